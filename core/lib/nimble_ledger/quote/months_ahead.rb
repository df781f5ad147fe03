# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What the months after bring with each scope of a quote (model.md section 8): chance of no comeback, returns,
    # scheduled changes, the net of it all; which is recommended, which stands beside it, when the cheaper one breaks
    # even. Every assumption can be set anew.
    class MonthsAhead
      # What a quote may assume of the time to come.
      SHAPE =
        Shape.object(
          optional: {
            "yearly_km" => Shape.number(max: 1_000_000, unit: "km"),
            "months" => Shape.number(above: 0, max: 240, unit: "months"),
            "found" => Shape.map(Shape.one_of("weak", "sound"), max: Scope::Part::KINDS.size),
            "failed" => Shape.list(Shape.string(max: 80), max: 20, unique: true),
            "shown" => Shape.boolean
          }
        )

      # @param sheets [Array<Sheet>] one for each scope, in the order they stand
      # @param assumed [Hash] fitting SHAPE
      # @param fitted_km [Hash{String=>Numeric}] odometer at fitting, by target id, where it is known
      def initialize(sheets, assumed: {}, fitted_km: {})
        @sheets = sheets.each_with_index.select { |sheet, _i| sheet.answer&.price && sheet.answer.car.history }
        @assumed = assumed
        @fitted = fitted_km
        @car = @sheets.first&.first&.answer&.car
        freeze
      end

      def yearly_km = @assumed["yearly_km"] || @car.house["yearly_km"]
      def months = @assumed["months"] || @car.house["horizon_months"]

      # @return [Hash, nil] see the contract, Ahead; nil where nothing can be said
      def to_h
        return nil if @car.nil?

        all = set
        futures = @sheets.map { |sheet, i| Scope::Comebacks.new(i, sheet.answer, all) }
        choice = Scope::Recommendation.new(futures, house: @car.house)
        {
          "yearly_km" => yearly_km,
          "months" => months,
          "shown" => @assumed["shown"] || false,
          "found" => found,
          "failed" => failed,
          "rows" => futures.map { |future| row(future) },
          "recommended" => choice.recommended&.id,
          "also" => choice.also&.id,
          "cheapest_now" => choice.cheapest_now&.id,
          "break_even_returns" => choice.break_even
        }
      rescue ImpossiblePlan
        nil
      end

      private

      def found = (@assumed["found"] || {}).slice(*Scope::Part::KINDS)

      # What failed, as far as every scope renews it: a scope that leaves it in would be no repair.
      def failed
        renewed = @sheets.map { |sheet, _i| sheet.answer.targets.map(&:id) }.reduce(:&)
        (@assumed["failed"] || []) & renewed
      end

      def row(future)
        {
          "index" => future.id,
          "no_comeback" => future.no_comeback,
          "returns" => future.returns,
          "return_cents" => future.return_cents.round,
          "scheduled" => future.to_h["scheduled"],
          "life_used_cents" => future.life_used_cents,
          "total_cents" => future.total_cents,
          "net_cents" => future.net_cents,
          "incomplete" => !future.complete?
        }
      end

      def set
        known = @fitted.select { |id, km| @car.engine.target(id) && km <= @car.history.odometer_km }
        parts = Scope::Parts.new(@car, Scope::Fitted.new(known, @car), chains: method(:chain)).list
        entries = failed.select { |id| parts.any? { |part| part.targets.map(&:id).include?(id) } }
        Scope::PartSet.new(
          parts,
          @car,
          failures: Scope::Failures.new(entries.map { |id| { "target" => id } }, {}, parts, @car.engine),
          found: found,
          yearly_km: yearly_km,
          months: months
        )
      end

      def chain(target)
        @car.job([target]).plan.chains.fetch(target)
      rescue ImpossiblePlan
        []
      end
    end
  end
end
