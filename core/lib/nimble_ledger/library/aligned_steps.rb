# frozen_string_literal: true

module NimbleLedger
  module Library
    # The steps of two profiles side by side: those of one id in one row, then those of one name, the rest alone, in the
    # order they come off (model.md section 1).
    #
    #   Library::AlignedSteps.new(older, newer).rows
    class AlignedSteps
      # @param engines [Array<Profile::Engine>] two
      def initialize(*engines)
        @left, @right = engines.map { |engine| engine.source["steps"] }
      end

      # @return [Array<Hash>] "label", and of each side "remove" and "refit" (likely minutes) or nil
      def rows
        pairs = @left.map { |step| [step, partner(step)] }
        alone = @right - pairs.map(&:last)
        alone.each { |step| pairs.insert(place(pairs, step), [nil, step]) }
        pairs.map { |left, right| row(left, right) }
      end

      private

      def partner(step)
        @right.find { |other| other["id"] == step["id"] } ||
          @right.find { |other| other["label"] == step["label"] && @left.none? { |one| one["id"] == other["id"] } }
      end

      # After the step it stands after in its own profile.
      def place(pairs, step)
        before = @right.take_while { |other| !other.equal?(step) }.last
        before ? pairs.index { |_left, right| right.equal?(before) } + 1 : 0
      end

      def row(left, right)
        { "label" => (right || left)["label"], "left" => minutes(left), "right" => minutes(right) }
      end

      def minutes(step) = step && { "remove" => step["remove"][1], "refit" => step["refit"][1] }
    end
  end
end
