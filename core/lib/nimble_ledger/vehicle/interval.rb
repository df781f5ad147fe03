# frozen_string_literal: true

module NimbleLedger
  module Vehicle
    # When plugs are due again, the one rule for bench, Counter, customer, hand-over and, under rules 3, the overdue
    # ratio of section 5 (model.md section 10): the fitted plug's interval, else the profile's where it states one, else
    # that of its grade, shorter in a boosted engine with direct injection; less in severe use; months beside it.
    #
    #   interval = Interval.new(engine, house)
    #   interval.km                          #=> 120000
    #   interval.due_km(181_000)             #=> 301000
    #   interval.due_on(Date.new(2026, 11, 26))  #=> 2034-11-26
    class Interval
      # What stands in for a grade nobody states.
      USUAL_GRADE = "platinum"
      # Of the distance, where the house halves boosted engines' (house boosted_interval).
      HALVED = 0.5
      BOOSTED = %w[turbo twin-charged].freeze

      # @param engine [Profile::Engine]
      # @param house [House::Settings]
      # @param fitted_km [Numeric, nil] the interval of what is in the head, where that is known
      # @param severe [Boolean]
      def initialize(engine, house, fitted_km: nil, severe: false)
        @engine = engine
        @house = house
        @fitted_km = fitted_km
        @severe = severe
        freeze
      end

      # @return [Numeric] km between changes
      def km = whole(exact_km)

      # @return [Rational]
      def exact_km = (stated ? ThreePoints.exact(stated) * stated_factor : by_grade) * severity

      # @return [Integer, nil] whole months between changes; nil where the profile states none
      def months = @engine.plug("interval_months")&.then { |months| (ThreePoints.exact(months) * severity).floor }

      # @param changed_km [Numeric, nil] odometer at the change
      # @return [Numeric, nil] odometer when they are due
      def due_km(changed_km) = changed_km && whole(ThreePoints.exact(changed_km) + exact_km)

      # @param changed_on [Date, nil]
      # @return [Date, nil] when the months are over
      def due_on(changed_on) = changed_on && months && (changed_on >> months)

      # @return [Numeric, nil] distance past due, negative before; nil where it is not known
      def over_km(changed_km, odometer_km)
        at = due_km(changed_km)
        at && odometer_km && (odometer_km - at)
      end

      private

      def stated = @fitted_km || @engine.plug("interval_km")
      def severity = @severe ? ThreePoints.exact(@house["severe_use"]) : 1r
      def boosted? = @engine.injection == "direct" && BOOSTED.include?(@engine.aspiration)

      # A stated figure stands, unless the house halves those of boosted engines too.
      def stated_factor = boosted? && @house["boosted_interval"] == "halved" ? ThreePoints.exact(HALVED) : 1r

      def by_grade
        km = ThreePoints.exact(@house["grade_km"].fetch(@engine.plug("grade") || USUAL_GRADE))
        boosted? ? km * ThreePoints.exact(boosted_factor) : km
      end

      def boosted_factor = @house["boosted_interval"].then { |set| set.is_a?(Numeric) ? set : HALVED }

      def whole(number) = number.denominator == 1 ? number.to_i : number.to_f
    end
  end
end
