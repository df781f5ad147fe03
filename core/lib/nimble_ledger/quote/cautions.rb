# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What to take care of, at the step or piece of work it belongs to. A caution that stands at several is one row.
    class Cautions
      # at: labels; refs: step and target ids; text.
      Row = Struct.new(:text, :refs, :at)

      # @param plan [Access::Plan]
      def initialize(plan)
        @rows = {}
        plan.steps.each { |step| step.cautions.each { |text| add(text, step.id, step.label) } }
        plan.ways.each do |target, way|
          (target.cautions + way.cautions).each { |text| add(text, target.id, target.label) }
        end
        freeze
      end

      # @return [Array<Row>] in the order they come up
      def rows = @rows.values

      private

      def add(text, ref, label)
        row = (@rows[text] ||= Row.new(text, [], []))
        row.refs << ref
        row.at << label unless row.at.include?(label)
      end
    end
  end
end
