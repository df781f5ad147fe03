# frozen_string_literal: true

module NimbleLedger
  module Price
    # The taxes of the house (model.md section 7): once per entry, on the net of its classes after the discount; where
    # prices include tax, contained in them and shown, not added.
    class Tax
      # What a kind of line counts as; consumables are taxed as parts, supplies as fees.
      CLASS_OF = {
        "labor" => "labor",
        "part" => "parts",
        "consumable" => "parts",
        "supplies" => "fees",
        "fee" => "fees"
      }.freeze

      # A tax and what it comes to.
      Due = Struct.new(:label, :percent, :on, :cents)

      # @param house [House::Settings]
      # @param lines [Array<#kind>] every line before tax
      # @param net [Array<Integer>] cents of each line after the discount
      def initialize(house, lines, net)
        @taxes = house["taxes"]
        @inclusive = house["tax_inclusive"]
        @by_class =
          lines
            .zip(net)
            .each_with_object(Hash.new(0)) { |(line, cents), sums| sums[CLASS_OF.fetch(line.kind)] += cents }
        freeze
      end

      # Taxes that are added to the lines.
      # @return [Array<Due>] one for each entry of the house that comes to something; none where prices include tax
      def added = @inclusive ? [] : due.select { |tax| tax.cents.positive? }

      # @return [Integer] cents of tax the prices contain; 0 where they do not
      def included_cents = @inclusive ? due.sum(&:cents) : 0

      private

      def due
        @taxes.map do |tax|
          Due.new(
            tax["label"],
            tax["percent"],
            tax["on"],
            Money.round(tax["on"].uniq.sum(0r) { |kind| net(kind) } * rate(tax))
          )
        end
      end

      # What a class comes to without the tax in it: gross ÷ (1 + the sum of the rates on that class).
      def net(kind)
        gross = @by_class[kind].to_r
        @inclusive ? gross / (1 + @taxes.select { |tax| tax["on"].include?(kind) }.sum(0r) { |tax| rate(tax) }) : gross
      end

      def rate(tax) = ThreePoints.exact(tax["percent"]) / 100
    end
  end
end
