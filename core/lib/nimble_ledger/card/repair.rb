# frozen_string_literal: true

module NimbleLedger
  module Card
    # Small repairs that no profile knows, found beside the job: a connector repaired, a snapped bolt drilled out, what
    # fell into a well fetched out. Hours and material as the house figures them (settings, "repairs"), as lines by hand
    # (model.md section 16): they bind like all the rest, and nothing is learned from them.
    #
    #   Card::Repair.for("bolt-snapped", 3, House::Settings.defaults).lines.map(&:label)
    #   #=> ["Snapped bolt at cylinder 3: drilled out", "Snapped bolt at cylinder 3: bolt and thread"]
    class Repair
      # work: what is done, material: what it takes.
      Kind = Struct.new(:figure, :name, :work, :material)

      KINDS = {
        "connector-lock-broken" => Kind.new("connector", "Connector", "repaired", "lock and terminals"),
        "bolt-snapped" => Kind.new("bolt", "Snapped bolt", "drilled out", "bolt and thread"),
        "lost-in-well" => Kind.new("lost-in-well", "Something in the well", "fetched out", "what it takes")
      }.freeze

      # @param finding [String] one of Finding::KINDS
      # @param cylinder [Integer, nil]
      # @param house [House::Settings]
      # @return [Repair, nil] nil where the finding is no such repair
      def self.for(finding, cylinder, house)
        kind = KINDS[finding]
        kind && new(kind, cylinder, house)
      end

      def initialize(kind, cylinder, house)
        @kind = kind
        @cylinder = cylinder
        @house = house
        @figures = house["repairs"].fetch(kind.figure)
        freeze
      end

      # As an advisor would enter them: hours at the shop's rate, and the material where it costs anything.
      # @return [Array<Hash>] fitting Price::HandLine::ENTERED
      def entered
        cents = @figures["cents"]
        work = line(@kind.work, "labor", hours, @house["rate_cents"])
        cents.positive? ? [work, line(@kind.material, "parts", 1, cents)] : [work]
      end

      # @return [Array<Price::HandLine>]
      def lines = entered.map { |row| Price::HandLine.of(row) }

      # Rounded up to the house's increment.
      # @return [Float] hours
      def hours
        step = ThreePoints.exact(@house["increment_hours"])
        (((ThreePoints.exact(@figures["minutes"]) / 60) / step).ceil * step).to_f
      end

      private

      def line(what, tax_class, quantity, each)
        place = @cylinder ? " at cylinder #{@cylinder}" : ""
        {
          "label" => "#{@kind.name}#{place}: #{what}",
          "class" => tax_class,
          "quantity" => quantity,
          "each_cents" => each
        }
      end
    end
  end
end
