# frozen_string_literal: true

module NimbleLedger
  module Trace
    # Every fault an engine may have, with its chance before anything is known (model.md section 9, "Hypotheses" and
    # "Prior").
    class Suspects
      # Kinds of part that may be weak all together.
      SETS = Shape.list(Shape.one_of("coil", "plug", "wire"), max: 3, unique: true)

      # @param car [Car]
      # @param tables [Tables]
      # @param brittle [Boolean] whether connectors are
      # @param sets [Array<String>] kinds of part that are equally old and weak
      def initialize(car, tables, brittle: false, sets: [])
        @sets = sets
        @engine = car.engine
        @tables = tables
        @brittle = brittle
        @numbers = @engine.cylinders.map(&:number).sort
        freeze
      end

      # @return [Array<Hypothesis>] their priors sum to 1
      def list
        shares = @tables.prior(@engine.ignition)
        all = shares.flat_map { |cause, share| hypotheses(cause, share) }
        all += @sets.filter_map { |kind| set(kind, all) }
        whole = all.sum(0.0, &:prior)
        all.map { |hypothesis| hypothesis.times(1 / whole) }
      end

      private

      # All parts of a kind, weak together: of no one cylinder. A rail is one suspect already.
      def set(kind, suspects)
        cylinders = suspects.select { |one| one.cause == kind }.flat_map(&:cylinders).uniq.sort
        return if cylinders.empty? || (kind == "coil" && rail?)

        Hypothesis.new(kind, cylinders, @tables.set(kind).to_f, set: true)
      end

      def hypotheses(cause, share)
        case cause
        when "coil"
          rail? ? rail(share) : spread(cause, share, records)
        when "wire"
          wires(share)
        when "wiring"
          spread(cause, factor(cause, share), rail? || @engine.ignition == "coil-on-plug" ? each : plain(records))
        when "elsewhere"
          [Hypothesis.new(cause, @numbers, share.to_f)]
        when "injector"
          @engine.injection == "carburetor" ? [] : spread(cause, share, each)
        else
          spread(cause, share, each(plugs: cause == "plug"))
        end
      end

      def rail? = @engine.ignition == "rail"
      def factor(cause, share) = @brittle ? share * @tables.brittle(cause) : share

      # What a cause may sit in: the cylinders it then affects, and the part it is.
      Place = Struct.new(:cylinders, :part)
      private_constant :Place

      def each(plugs: false)
        @numbers.map { |number| Place.new([number], plugs ? Hypothesis::Part.new("plug", number) : nil) }
      end

      def records = @engine.coils.map { |coil| Place.new(coil.cylinders.sort, Hypothesis::Part.new("coil", coil.id)) }
      def plain(places) = places.map { |place| Place.new(place.cylinders, nil) }

      def spread(cause, share, places) =
        places.map { |place| Hypothesis.new(cause, place.cylinders, share.to_f / places.size, part: place.part) }

      # An element for each cylinder, and the rail as a whole.
      def rail(share)
        whole = share * @tables.rail_whole
        spread("coil", share - whole, plain(each)) + [Hypothesis.new("coil", @numbers, whole.to_f)]
      end

      # Wires and boots, and on a distributor what turns under them.
      def wires(share)
        cap = @engine.ignition == "distributor" && serving("cap-and-rotor").any?
        own = cap ? @tables.cap_and_rotor : 0
        places = @numbers.filter_map { |number| wire_place(number) }
        found = spread("wire", factor("wire", share - own), places)
        cap ? found << Hypothesis.new("cap-and-rotor", @numbers, own.to_f) : found
      end

      def wire_place(number)
        return Place.new([number], Hypothesis::Part.new("wire", number)) if serving("wire", number).any?

        Place.new([number], Hypothesis::Part.new("boot", number)) if serving("boot", number).any?
      end

      def serving(work, number = nil) =
        @engine.targets.select { |target| target.work == work && (number.nil? || target.cylinders.include?(number)) }
    end
  end
end
