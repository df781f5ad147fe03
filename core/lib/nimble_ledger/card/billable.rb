# frozen_string_literal: true

module NimbleLedger
  module Card
    # What the bill of a job has to know of its card (model.md section 16, formats.md "bill-request"): what was not
    # done, what was only tried, what happened and is in no agreed price yet, minutes worked. Nothing of it is typed
    # again.
    #
    #   Card::Billable.new(standing).to_h   #=> { "not_done" => ["plug-4"], "worked_minutes" => 61.5 }
    class Billable
      # @param standing [Standing] of the finished card
      # @param owed [Array<String>] targets under our warranty
      def initialize(standing, owed: [])
        @standing = standing
        @owed = owed
        @targets = standing.job.targets
        @left = @targets - WorkDone.of(@targets, standing.state["done"])
        freeze
      end

      # @return [Hash] keys of a bill request; those that say nothing are left out
      def to_h
        {
          "not_done" => (@left - tried).map(&:id),
          "tried" => tried.map(&:id) - @owed,
          "owed" => @targets.map(&:id) & @owed,
          "happened" => happened,
          "worked_minutes" => @standing.hands_on.total.round(3)
        }.reject { |_key, value| value.respond_to?(:empty?) && value.empty? }
      end

      private

      # Opened for and fought with, and not done in the end.
      def tried = @left & @standing.everything_fought.map(&:of)

      def happened
        fought = @standing.fought
        plugs = ->(kind) { fought.select { |one| one.kind == kind }.map { |one| one.of.id }.tally }
        mishaps =
          fought.select { |one| one.kind == "mishap" }.map { |one| { "step" => one.of.step, "what" => one.of.what } }
        {
          "broken" => plugs.call("broken"),
          "thread" => plugs.call("thread"),
          "mishaps" => mishaps.uniq
        }.reject { |_, of| of.empty? }
      end
    end
  end
end
