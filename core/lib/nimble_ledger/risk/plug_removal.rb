# frozen_string_literal: true

module NimbleLedger
  module Risk
    # The chances that a plug fights back, before any is turned (model.md section 5): base chance by the construction of
    # what is fitted, odds multiplied by what is known of the car and the cylinder. Staged: it breaks; if not, the
    # thread is damaged; if not, it is stubborn; else free.
    class PlugRemoval
      # Distance between changes of the plug the profile names: its own, else that of its grade (rules 1 and 2).
      # @param engine [Profile::Engine]
      # @param house [House::Settings]
      # @return [Numeric] km
      def self.interval_km(engine, house) =
        engine.plug("interval_km") || house["grade_km"].fetch(engine.plug("grade") || Vehicle::Interval::USUAL_GRADE)

      # Chances of one plug: each stage's own, given the stages before it did not happen.
      Chances =
        Struct.new(:broken, :thread, :stubborn) do
          def no_trouble = (1 - broken) * (1 - thread) * (1 - stubborn)

          # Chance that a plug which did not break comes out free.
          def no_trouble_whole = (1 - thread) * (1 - stubborn)
        end

      # One thing that moves the odds, in codes. kind: "distance" (amount: intervals since the last change), "years"
      # (amount: since the last change), "head" (level: its metal), "wear" (level: rust), "compound", "soak" (level:
      # protocol), "learned" (level: construction; what earlier plugs have taught of a break); times: what the odds are
      # multiplied by.
      Factor = Struct.new(:kind, :level, :amount, :times)

      # @param car [Car] with a history, where chances are asked for
      # @param soak [String] protocol
      def initialize(car, soak: "none")
        @car = car
        @engine = car.engine
        @house = car.house
        @soak = soak
        freeze
      end

      # Whether enough is known to judge: without a construction there is no base chance.
      # @param car [Car]
      def self.known?(car) =
        !car.history.nil? && !(car.engine.plug("construction") || car.history.car.construction).nil?

      # @return [Chances] for each plug of a plug target; of several cylinders, all three of the one with the highest
      # break chance
      def chances(target) = by_cylinder(target).map(&:last).max_by(&:broken)

      # @return [String, nil] construction of what is fitted where the chances of a plug target are those of
      def construction_of(target) = construction(by_cylinder(target).max_by { |_number, one| one.broken }.first)

      # What moves the odds and by how much, at the cylinder the chances are those of; factors of 1 are left out.
      # @return [Array<Factor>]
      def factors(target) =
        named_factors(by_cylinder(target).max_by { |_number, chances| chances.broken }.first).reject do |factor|
          factor.times == 1
        end

      # @param number [Integer, nil] cylinder
      # @return [String, nil] construction of what is in the head there; the profile's where nothing else is known
      def construction(number) = (@car.history && entry(number).construction) || @engine.plug("construction")

      # @param number [Integer, nil] cylinder
      # @return [Boolean] whether a break leaves a shell in the head, to be filled and left to cure
      def leaves_shell?(number) = construction(number) == "multi-piece"

      private

      def by_cylinder(target) =
        (target.cylinders.empty? ? [nil] : target.cylinders).map { |number| [number, at(number)] }

      def at(number)
        odds = car_factors(number).reduce(1.0) { |product, factor| product * factor.times }
        learned = @car.odds
        Chances.new(
          Odds.shift(@house["break_chance"][construction(number)], odds * learned_factor(number).times),
          Odds.shift(@house["thread_chance"], odds * (learned ? learned.thread : 1)),
          Odds.shift(@house["stubborn_chance"], odds * (learned ? learned.stubborn : 1))
        )
      end

      def entry(number) = number ? @car.history.of(number) : @car.history.car

      def named_factors(number) = [*car_factors(number), learned_factor(number)]

      def car_factors(number)
        known = entry(number)
        [
          distance_factor(known),
          years_factor(known),
          head_factor,
          wear_factor(number),
          compound_factor(known),
          soak_factor
        ]
      end

      def distance_factor(known)
        ratio = known.distance_km / interval_km(known).to_f
        Factor.new("distance", nil, ratio.round(2), @house["distance_factor"]**[0, ratio - 1].max)
      end

      def interval_km(known)
        return Vehicle::Interval.new(@engine, @house, fitted_km: known.interval_km).km if @car.rules.one_interval?

        known.interval_km || PlugRemoval.interval_km(@engine, @house)
      end

      def years_factor(known)
        beyond = [0, known.years - @house["years_free"]].max
        Factor.new("years", nil, known.years, @house["years_factor"]**beyond)
      end

      def head_factor = Factor.new("head", @engine.head, nil, @house["head_factor"][@engine.head])

      # The worse of the car's rust and this cylinder's well; a wet well counts as light, a rusted one as heavy.
      def wear_factor(number)
        well = @car.condition.wells[number.to_s] || "dry"
        levels = [Time::Condition::LEVELS[Time::Condition::WELLS.index(well)], @car.condition.corrosion]
        worst = levels.max_by { |level| Time::Condition::LEVELS.index(level) }
        Factor.new("wear", worst, nil, @house["wear_factor"][worst])
      end

      def compound_factor(known) =
        Factor.new("compound", nil, nil, known.compound_used? ? @house["compound_factor"] : 1)

      def learned_factor(number)
        times = @car.odds ? @car.odds.broken(construction(number), @soak) : 1
        Factor.new("learned", construction(number), nil, times)
      end

      def soak_factor = Factor.new("soak", @soak, nil, @house["soaks"][@soak]["break_factor"])
    end
  end
end
