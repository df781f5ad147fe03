# frozen_string_literal: true

module NimbleLedger
  module Price
    # The taxes of the house (model.md section 7): once per entry, on the net of its classes after the discount; where
    # prices include tax, contained in them and shown, not added.
    class Tax
      # What a kind of line counts as; consumables are taxed as parts, supplies as fees.
      CLASS_OF = {
        "labor" => "labor",
        "diagnosis" => "labor",
        "part" => "parts",
        "consumable" => "parts",
        "supplies" => "fees",
        "fee" => "fees"
      }.freeze

      # A tax and what it comes to.
      Due = Struct.new(:label, :percent, :on, :cents)

      # An entry of the house, its classes once each and its rate as an exact fraction.
      Entry = Struct.new(:label, :percent, :on, :classes, :rate)
      private_constant :Entry

      # @param kind [String] of a line
      # @return [String] labor, parts or fees
      def self.class_of(kind) = CLASS_OF.fetch(kind)

      # @param house [House::Settings]
      def initialize(house)
        @inclusive = house["tax_inclusive"]
        @entries =
          house["taxes"].map do |tax|
            rate = ThreePoints.exact(tax["percent"]) / 100
            Entry.new(tax["label"], tax["percent"], tax["on"], tax["on"].uniq, rate)
          end
        @contained = @inclusive ? CLASS_OF.values.uniq.to_h { |name| [name, contained(name)] } : {}
        freeze
      end

      # Taxes that are added to the lines.
      # @param by_class [Hash{String=>Integer}] cents after the discount
      # @return [Array<Due>] one for each entry of the house that comes to something; none where prices include tax
      def added(by_class)
        return [] if @inclusive

        @entries
          .map { |one| Due.new(one.label, one.percent, one.on, due(one, by_class)) }
          .select { |d| d.cents.positive? }
      end

      # @return [Integer] cents of all taxes that are added
      def added_cents(by_class) = @inclusive ? 0 : @entries.sum { |entry| [due(entry, by_class), 0].max }

      # @return [Integer] cents of tax the prices contain; 0 where they do not
      def included_cents(by_class) = @inclusive ? @entries.sum { |entry| due(entry, by_class) } : 0

      # One entry and what it comes to: net it is taken from, tax on it or in it; cents.
      Share = Struct.new(:label, :percent, :net_cents, :cents)

      # @return [Array<Share>] every entry, those of nothing too
      def shares(by_class) =
        @entries.map do |entry|
          net = entry.classes.sum(0) { |name| net(name, by_class) }
          Share.new(entry.label, entry.percent, Money.round(net), Money.round(net * entry.rate))
        end

      # @return [Hash{String=>Integer}] cents by class, without contained tax
      def net_cents(by_class) = CLASS_OF.values.uniq.to_h { |name| [name, Money.round(net(name, by_class))] }

      # @return [Rational] the most that tax adds to a cent
      def highest_rate
        return 0r if @inclusive

        CLASS_OF.values.uniq.map { |name| contained(name) - 1 }.max
      end

      private

      def due(entry, by_class) = Money.round(entry.classes.sum(0) { |name| net(name, by_class) } * entry.rate)

      # What a class comes to without the tax in it: gross ÷ (1 + the sum of the rates on that class).
      def net(name, by_class) = @inclusive ? by_class[name] / @contained[name] : by_class[name]

      def contained(name) = 1 + @entries.select { |entry| entry.classes.include?(name) }.sum(0r, &:rate)
    end
  end
end
