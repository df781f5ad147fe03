# frozen_string_literal: true

module NimbleLedger
  module Estimate
    # An estimate request, checked and parsed into a car and the job on it (formats.md, "Estimate request and answer").
    class Request
      id = Shape.string(max: 80)
      document = Shape.either(Shape.open_object, Shape.string(max: 1000), say: "a path or an inline object")
      condition =
        Shape.object(
          optional: {
            "corrosion" => Shape.one_of(*Time::Condition::LEVELS),
            "brittle" => Shape.boolean,
            "bodged" => Shape.boolean,
            "wells" => Shape.map(Shape.one_of(*Time::Condition::WELLS), max: 32)
          }
        )
      pins =
        Shape.object(
          optional: {
            "ways" => Shape.map(id, max: 64),
            "choices" =>
              Shape.map(Shape.either(id, Shape.list(id, min: 1, max: 12), say: "a step id or a list of them"), max: 64)
          }
        )
      # What any request says of a car.
      CAR = {
        "equipment" => Shape.list(id, max: 200),
        "pins" => pins,
        "condition" => condition,
        "history" => Risk::History::SHAPE,
        "house" => House::Settings::SHAPE,
        "catalog" => document,
        "variants" => Shape.map(id, max: Profile::MAX_VARIANTS),
        "warranty" => Shape.list(id, max: Profile::MAX_TARGETS, unique: true),
        "rules" => Shape.one_of(*Rules::KNOWN.keys),
        "learned" =>
          Shape.object(optional: { "hours" => Time::Correction::SHAPE, "outcomes" => Risk::LearnedOdds::SHAPE })
      }.freeze
      # What it says of the job beyond its targets.
      JOB = {
        "soak" => Shape.one_of(*Profile::SOAKS),
        "codes" => Shape.boolean,
        "override" => Override::SHAPE,
        "live" => Risk::LiveOdds::SHAPE,
        "sequence" => Shape.boolean,
        "without" =>
          Shape.list(
            Shape.object(required: { "target" => id, "why" => Shape.string(max: 400) }),
            max: Profile::MAX_TARGETS
          ),
        "diagnosis" => Price::Diagnosis::SHAPE,
        "lines" => Shape.list(Price::HandLine::SHAPE, max: Price::HandLine::MAX),
        "discount" =>
          Shape.object(
            required: {
              "cents" => Shape.integer(max: 100_000_000)
            },
            optional: {
              "label" => Shape.string(max: 80)
            }
          )
      }.freeze
      ENGINE = document
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const("nimble-ledger.estimate-request"),
            "version" => Shape.const(1),
            "engine" => ENGINE,
            "targets" => Shape.list(id, min: 1, max: Profile::MAX_TARGETS, unique: true)
          },
          optional: {
            **CAR,
            **JOB
          }
        )

      attr_reader :car, :targets, :soak, :discount, :diagnosis, :override, :live, :warnings

      # @return [Hash{String=>String}] variants nobody answered, with the usual answer that was taken
      attr_reader :assumed_variants

      # @param hash [Hash] parsed JSON; `engine` and `catalog` inline
      # @param documents [Documents] where engine and catalog come from
      # @param base [House::Settings] what the request's own house settings override
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents: Documents.new, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, CarPart.new(hash, documents: documents, base: base))
      end

      # @param part [CarPart] what the request says of the car
      # @param targets [Array<String>] ids, where the request does not hold them
      def initialize(hash, part, targets: hash["targets"], path: "")
        @part = part
        @car = part.car
        @assumed_variants = part.assumed_variants
        @warnings = part.warnings
        @targets = part.targets(targets, "#{path}/targets")
        @soak = allowed_soak(hash["soak"] || "none", path)
        @codes = hash["codes"] || false
        @discount = hash["discount"]
        @diagnosis = hash["diagnosis"] && Price::Diagnosis.new(hash["diagnosis"]["hours"], house: car.house)
        @override = Override.from(hash["override"])
        @live = live_of(hash, path)
        @lines = Price::HandLine.all(hash["lines"])
        @sequence = hash["sequence"] || false
        @without = left_out(hash["without"] || [], path)
        refuse_soak_step(path) if @sequence
        freeze
      end

      def codes? = @codes

      # Whether the pieces are asked for in order (model.md section 15).
      def sequence? = @sequence

      # The job that is asked for.
      # @param car [Car] where another planner is to be used
      # @raise [ImpossiblePlan]
      # @return [Job]
      def job(car: @car, effort: Access::NodeBudget.new)
        car.job(
          targets,
          soak: soak,
          override: override,
          discount: discount,
          diagnosis: diagnosis,
          codes: codes?,
          live: live,
          without: @without,
          lines: @lines,
          effort: effort
        )
      end

      # @return [Hash] see formats.md, "Estimate request and answer"
      # @raise [ImpossiblePlan]
      def answer(effort: Access::NodeBudget.new) = Answer.new(self, effort: effort).to_h

      private

      def allowed_soak(name, path)
        return name if name == "none" || car.engine.soaks.include?(name)

        raise InvalidInput.at(
                "#{path}/soak",
                "#{name} is not allowed on this engine; it allows #{car.engine.soaks.join(", ")}"
              )
      end

      # @return [Array<String>] ids of targets that are not to be added
      def left_out(rows, path)
        rows.each_with_index do |row, i|
          next if car.engine.target(row["target"])

          message = "names target #{row["target"]}, which #{car.engine.code} does not have"
          raise InvalidInput.at("#{path}/without/#{i}/target", message)
        end
        rows.map { |row| row["target"] }
      end

      # Its pieces would be called as the soak's are.
      def refuse_soak_step(path)
        place = car.engine.source["steps"].index { |step| step["id"] == "soak" } or return
        raise InvalidInput.at("#{path}/engine/steps/#{place}/id", "is soak: a sequence calls its own piece that")
      end

      def live_of(hash, path)
        return nil unless hash["live"]

        unless car.history
          raise InvalidInput.at("#{path}/live", "needs a history: without one there are no odds to move")
        end
        Risk::LiveOdds.new(hash["live"], targets, house: car.house, path: "#{path}/live")
      end
    end
  end
end
