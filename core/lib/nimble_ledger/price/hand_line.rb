# frozen_string_literal: true

module NimbleLedger
  module Price
    # A line by hand (model.md section 16, formats.md): other work or a free part that no profile knows, agreed with the
    # rest and billed as agreed. It is in discount, tax and total, never in hours, risk or supplies.
    #
    #   line = Price::HandLine.of("label" => "Left wiper", "class" => "parts", "quantity" => 2, "each_cents" => 1_250)
    #   line.to_h   #=> {"label" => "Left wiper", "cents" => 2500, "class" => "parts", "quantity" => 2}
    class HandLine
      MAX = 40
      CLASSES = %w[labor parts fees].freeze

      amount = Shape.integer(max: 100_000_000)
      many = Shape.number(above: 0, max: 999)

      # As a request says it.
      SHAPE =
        Shape.object(
          required: {
            "label" => Shape.string(max: 120),
            "cents" => amount,
            "class" => Shape.one_of(*CLASSES)
          },
          optional: {
            "quantity" => many
          }
        )

      # As an advisor enters it: hours of other work, or pieces of a part, at so much each.
      ENTERED =
        Shape.object(
          required: {
            "label" => Shape.string(max: 120),
            "class" => Shape.one_of(*CLASSES),
            "quantity" => many,
            "each_cents" => amount
          }
        )

      # @param entered [Hash] fitting ENTERED
      # @return [HandLine]
      def self.of(entered)
        quantity = entered["quantity"]
        cents = Money.round(ThreePoints.exact(quantity) * entered["each_cents"])
        new(entered["label"], entered["class"], quantity, cents)
      end

      # @param row [Hash] fitting SHAPE
      # @return [HandLine]
      def self.build(row) = new(row["label"], row["class"], row["quantity"] || 1, row["cents"].to_i)

      # @param rows [Array<Hash>, nil] each fitting SHAPE
      # @return [Array<HandLine>]
      def self.all(rows) = (rows || []).map { |row| build(row) }

      attr_reader :label, :tax_class, :quantity, :cents

      # @param quantity [Numeric] hours of labor, pieces of anything else
      # @param cents [Integer] of the whole line, before tax
      def initialize(label, tax_class, quantity, cents)
        @label = label
        @tax_class = tax_class
        @quantity = quantity
        @cents = cents
        freeze
      end

      # @return [Integer] cents of one hour or piece, as rounded
      def each_cents = Money.round(Rational(cents, 1) / ThreePoints.exact(quantity))

      # @return [Hash] fitting SHAPE
      def to_h
        row = { "label" => label, "cents" => cents, "class" => tax_class }
        quantity == 1 ? row : row.merge("quantity" => quantity)
      end

      def ==(other) = other.is_a?(HandLine) && to_h == other.to_h
      alias eql? ==
      def hash = to_h.hash
    end
  end
end
