# frozen_string_literal: true

module NimbleLedger
  module Trace
    # What a trace leads to on a quote (model.md section 9, "Advice", and section 8's candidate scopes): the part that
    # is at fault alone, and beside it all that sparks on its cylinders.
    class LeadsTo
      SPARKS = %w[plug coil wire].freeze

      # @param engine [Profile::Engine]
      # @param target [Profile::Target, nil] what repairs the suspect that leads
      def initialize(engine, target)
        @engine = engine
        @target = target
      end

      # @return [Array<Hash>] {"works", "cylinders"}; none where no part is pointed at
      def scopes
        return [] if @target.nil?

        [scope([@target.work]), scope(SPARKS & offered)].uniq.reject { |one| one["works"].empty? }
      end

      private

      def scope(works) = { "works" => works, "cylinders" => @target.cylinders.sort }

      def offered
        @engine.targets.select { |target| target.cylinders.intersect?(@target.cylinders) }.map(&:work).uniq
      end
    end
  end
end
