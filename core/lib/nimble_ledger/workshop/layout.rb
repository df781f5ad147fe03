# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # How the cylinders of an engine that is only described stand, and what a layer usually lies over when all that is
    # known of it is its kind (model.md section 1; domain.md, access patterns). A guess to be corrected with one press.
    class Layout
      # @param built [Hash] fits Sketch::BARE: arrangement, mounting, cylinders (count), ignition
      def initialize(built)
        @arrangement = built["arrangement"]
        @sideways = built["mounting"] == "sideways"
        @count = built["cylinders"]
      end

      # @return [Array<Integer>] cylinder numbers, from 1
      def numbers = (1..@count).to_a

      # Odd numbers on the rear or left bank, even ones on the other: as most are counted, and changed when it is not.
      # @return [Hash] number, position from the front (or from the left), and the bank where there are two
      def place(number)
        return { "number" => number, "position" => number } unless banked?

        banks = @sideways ? %w[rear front] : %w[left right]
        { "number" => number, "bank" => number.odd? ? banks.first : banks.last, "position" => (number + 1) / 2 }
      end

      # @return [Boolean] whether there are two banks
      def banked? = %w[vee flat].include?(@arrangement)

      # @param kind [String] a kind of layer as in UsualTimes
      # @return [Array<Integer>] the cylinders a layer of the kind usually lies over, ascending
      def usually(kind)
        case kind
        when "manifold"
          rear_bank || numbers
        when "tray"
          rear_bank || hindmost
        when "box"
          banked? ? bank(-1) : numbers.first(half)
        when "bracket"
          numbers.last(half)
        else
          numbers
        end
      end

      private

      def half = [@count / 2, 1].max
      def bank(at) = numbers.group_by { |number| place(number)["bank"] }.values[at]
      def rear_bank = (bank(0) if banked? && @sideways)

      # Under the cowl of an engine that stands lengthwise: what stands furthest back, in each bank. All of a row that
      # stands sideways.
      def hindmost
        return numbers if @sideways

        deepest = numbers.map { |number| place(number)["position"] }.max
        least = deepest - [deepest / 3, 1].max
        numbers.select { |number| place(number)["position"] > least }
      end
    end
  end
end
