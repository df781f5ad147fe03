# frozen_string_literal: true

module NimbleLedger
  module Risk
    # The chances that a plug fights back (model.md section 5): base chance by construction, odds multiplied by what
    # is known of the car. Staged: it breaks; if not, the thread is damaged; if not, it is stubborn; else free.
    class PlugRemoval
      # Distance stands in for a profile that states no interval, by grade, km.
      INTERVAL_BY_GRADE = { "nickel" => 40_000, "platinum" => 80_000, "iridium" => 100_000 }.freeze
      SIGNS = { "freer" => 0.5, "more-force" => 2.0, "chirps" => 0.9, "hot" => 1.5 }.freeze

      # Chances of one plug: each stage's own, given the stages before it did not happen.
      Chances = Struct.new(:broken, :thread, :stubborn) do
        def no_trouble = (1 - broken) * (1 - thread) * (1 - stubborn)
      end

      # @param condition [Time::Condition]
      # @param history [History]
      def initialize(engine, condition:, history:, house:, soak: "none")
        @engine = engine
        @condition = condition
        @history = history
        @house = house
        @soak = soak
        freeze
      end

      # Whether the profile says enough to judge: without a construction there is no base chance.
      def self.known?(engine) = !engine.plug("construction").nil?

      # @return [Chances] for each plug of a plug target
      def chances(target)
        odds = factors(target).reduce(1.0) { |product, (_label, factor)| product * factor }
        Chances.new(shift(@house["break_chance"][@engine.plug("construction")], odds),
                    shift(@house["thread_chance"], odds), shift(@house["stubborn_chance"], odds))
      end

      # What moves the odds and by how much: [[label, factor], ...]; factors of 1 are left out.
      def factors(target)
        [distance_factor, years_factor, head_factor, wear_factor(target), compound_factor, soak_factor].reject { |_l, f| f == 1 }
      end

      # Odds times a factor, as a probability again.
      def shift(chance, odds)
        return chance.to_f if chance.zero? || chance == 1 || odds == 1

        moved = chance / (1.0 - chance) * odds
        moved / (1 + moved)
      end

      private

      def distance_factor
        interval = @engine.plug("interval_km") || INTERVAL_BY_GRADE.fetch(@engine.plug("grade") || "platinum")
        ratio = @history.distance_km / interval.to_f
        ["#{ratio.round(2)} intervals since the last change", @house["distance_factor"]**[0, ratio - 1].max]
      end

      def years_factor
        beyond = [0, @history.years - @house["years_free"]].max
        ["#{@history.years} years since the last change", @house["years_factor"]**beyond]
      end

      def head_factor = ["#{@engine.head.tr("-", " ")} head", @house["head_factor"][@engine.head]]

      # The worse of the car's rust and this cylinder's well; a wet well counts as light, a rusted one as heavy.
      def wear_factor(target)
        wells = target.cylinders.map { |number| @condition.wells[number.to_s] || "dry" }
        levels = wells.map { |well| Time::Condition::LEVELS[Time::Condition::WELLS.index(well)] } + [@condition.corrosion]
        worst = levels.max_by { |level| Time::Condition::LEVELS.index(level) }
        ["#{worst} rust or wet well", @house["wear_factor"][worst]]
      end

      def compound_factor = ["compound used last time", @history.compound_used? ? @house["compound_factor"] : 1]

      def soak_factor = ["soak: #{@soak}", @house["soaks"][@soak]["break_factor"]]
    end
  end
end
