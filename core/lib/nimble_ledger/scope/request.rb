# frozen_string_literal: true

module NimbleLedger
  module Scope
    # A scopes request (formats.md, "Other requests"): some scopes of work on one car, weighed by what they cost now and
    # what the time after brings.
    class Request
      FORMAT = "nimble-ledger.scopes-request"
      id = Shape.string(max: 80)
      km = Shape.number(max: 10_000_000, unit: "km")
      ESTIMATE =
        Shape.object(
          required: {
            "engine" => Estimate::Request::ENGINE,
            "catalog" => Estimate::Request::CAR["catalog"],
            "history" => Estimate::Request::CAR["history"]
          },
          optional: {
            **Estimate::Request::CAR,
            **Estimate::Request::JOB.except("live")
          }
        )
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "estimate" => ESTIMATE,
            "yearly_km" => Shape.number(max: 1_000_000, unit: "km"),
            "scopes" =>
              Shape.list(
                Shape.object(
                  required: {
                    "id" => id,
                    "targets" => Shape.list(id, min: 1, max: Profile::MAX_TARGETS, unique: true)
                  }
                ),
                min: 1,
                max: 40
              )
          },
          optional: {
            "failed" => Shape.list(Failures::SHAPE, max: 64),
            "fitted_km" => Shape.map(km, max: 80),
            "earlier_failures" => Failures::EARLIER,
            "found" => Shape.map(Shape.one_of("weak", "sound"), max: Part::KINDS.size),
            "months" => Shape.number(max: 600, unit: "months")
          }
        )

      # @param hash [Hash] parsed JSON
      # @param documents [Documents] where engine and catalog come from
      # @param base [House::Settings]
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents: Documents.new, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, Estimate::CarPart.new(hash["estimate"], documents: documents, base: base, path: "/estimate"))
      end

      def initialize(hash, part)
        @hash = hash
        @part = part
        @car = part.car.planned
        refuse_twice
        refuse_kinds
        @requests = hash["scopes"].each_with_index.map { |scope, i| priced(scope, i) }
        @parts = Parts.new(@car, Fitted.new(hash["fitted_km"] || {}, @car), chains: method(:chain)).list
        @failures = Failures.new(hash["failed"] || [], hash["earlier_failures"] || {}, @parts, @car.engine)
        @requests.each_with_index { |one, i| @failures.refuse_left_in(one.targets, "/scopes/#{i}") }
        freeze
      end

      # @return [Hash] see formats.md, scopes
      # @raise [ImpossiblePlan]
      def answer(effort: Access::NodeBudget.new)
        futures = futures(effort)
        { "format" => "nimble-ledger.scopes", "version" => 1, "scopes" => futures.map(&:to_h) }.merge(
          Recommendation.new(futures, house: @car.house).to_h
        )
      end

      # @return [Array<Future>] in the order of the request
      def futures(effort)
        set = set(effort)
        @hash["scopes"]
          .zip(@requests)
          .map { |scope, one| Comebacks.new(scope["id"], one.job(car: @car, effort: effort), set) }
      end

      private

      def set(effort) =
        PartSet.new(
          @parts,
          @car,
          failures: @failures,
          found: @hash["found"] || {},
          yearly_km: @hash["yearly_km"],
          months: @hash["months"] || @car.house["horizon_months"],
          soak: @hash["estimate"]["soak"] || "none",
          effort: effort
        )

      def priced(scope, index) =
        Estimate::Request.new(@hash["estimate"], @part, targets: scope["targets"], path: "/scopes/#{index}")

      # The steps a target goes through when it is done alone; none where it cannot be reached.
      def chain(target)
        @car.job([target]).plan.chains.fetch(target)
      rescue ImpossiblePlan
        []
      end

      def refuse_twice
        seen = {}
        @hash["scopes"].each_with_index do |scope, i|
          raise InvalidInput.at("/scopes/#{i}/id", "is there already (#{scope["id"]})") if seen[scope["id"]]
          seen[scope["id"]] = true
        end
      end

      def refuse_kinds
        (@hash["found"] || {}).each_key do |kind|
          raise InvalidInput.at("/found/#{Shape.key(kind)}", "is no kind of part") unless Part::KINDS.include?(kind)
        end
      end
    end
  end
end
