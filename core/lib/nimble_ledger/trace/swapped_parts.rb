# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Where each part sits now (model.md section 9): swaps move coils with their boots, and plugs, from cylinder to
    # cylinder. Unchanging: a swap makes another.
    class SwappedParts
      SWAPS = { "swap-coil" => %w[coil], "swap-plug" => %w[plug], "swap-both" => %w[coil plug] }.freeze

      # @param engine [Profile::Engine]
      # @param coils [Hash{String=>String}] coil to the coil whose place it sits in; itself where it was never moved
      # @param plugs [Hash{Integer=>Integer}] cylinder a plug comes from to the one it sits in
      def initialize(engine, coils: {}, plugs: {})
        @engine = engine
        @coils = coils
        @plugs = plugs
        freeze
      end

      # @param test [String] one of SWAPS
      # @return [SwappedParts] after it
      def swapped(test, one, other)
        moved = self
        moved = moved.swap_coils(record(one), record(other)) if SWAPS.fetch(test).include?("coil")
        SWAPS.fetch(test).include?("plug") ? moved.swap_plugs(one, other) : moved
      end

      def swap_coils(one, other) = SwappedParts.new(@engine, coils: exchanged(@coils, one.id, other.id), plugs: @plugs)
      def swap_plugs(one, other) = SwappedParts.new(@engine, coils: @coils, plugs: exchanged(@plugs, one, other))

      # Parts that sit where they did not come from.
      # @return [Array<Hash>] "kind" (coil or plug), "from" and "now": cylinders
      def moved
        coils =
          @coils.reject { |from, now| from == now }.map { |from, now| [coil(from).cylinders, coil(now).cylinders] }
        plugs = @plugs.reject { |from, now| from == now }.map { |from, now| [[from], [now]] }
        { "coil" => coils, "plug" => plugs }.flat_map do |kind, rows|
          rows.sort.map { |from, now| { "kind" => kind, "from" => from.sort, "now" => now.sort } }
        end
      end

      # The coil record a cylinder hangs on, by its place.
      # @return [Profile::Engine::Coil, nil]
      def record(number) = @engine.coils.find { |coil| coil.cylinders.include?(number) }

      # Cylinders a hypothesis affects as its part sits now.
      # @return [Array<Integer>]
      def affects(hypothesis)
        part = hypothesis.part or return hypothesis.cylinders
        case part.kind
        when "coil"
          seat(part).cylinders.sort
        when "plug"
          [@plugs.fetch(part.of, part.of)]
        when "boot"
          [boot(part.of)]
        else
          hypothesis.cylinders
        end
      end

      # The coil in whose place a coil sits now.
      # @param part [Hypothesis::Part] a coil
      # @return [Profile::Engine::Coil]
      def seat(part) = coil(@coils.fetch(part.of, part.of))

      # Parts that sit at a cylinder now, of the kinds a test looks at.
      # @param kinds [Array<String>] coil, plug, boot, wire
      # @return [Array<Hypothesis::Part>]
      def at(number, kinds, hypotheses)
        parts = hypotheses.filter_map { |one| one.part if one.part && affects(one).include?(number) }
        parts.select { |part| kinds.include?(part.kind) }.uniq
      end

      private

      def coil(id) = @engine.coils.find { |coil| coil.id == id }

      # Where a boot sits: it goes along with the coil it hangs on.
      def boot(number)
        home = record(number) or return number
        place = coil(@coils.fetch(home.id, home.id))
        place.cylinders[home.cylinders.index(number)] || place.cylinders.last
      end

      # What sits in the places of two things changes places.
      def exchanged(sits, one, other)
        there = sits.invert
        mine = there.fetch(one, one)
        its = there.fetch(other, other)
        sits.merge(mine => other, its => one)
      end
    end
  end
end
