# frozen_string_literal: true

module NimbleLedger
  module Estimate
    # An estimate request, checked and resolved (formats.md, "Estimate request and answer").
    class Request
      id = Shape.string(max: 80)
      document = Shape.either(Shape.open_object, Shape.string(max: 1000), say: "a path or an inline object")
      condition = Shape.object(optional: {
                                 "corrosion" => Shape.one_of(*Time::Condition::LEVELS), "brittle" => Shape.boolean,
                                 "bodged" => Shape.boolean, "wells" => Shape.map(Shape.one_of(*Time::Condition::WELLS), max: 32)
                               })
      pins = Shape.object(optional: {
                            "ways" => Shape.map(id, max: 64),
                            "choices" => Shape.map(Shape.either(id, Shape.list(id, min: 1, max: 12), say: "a step id or a list of them"), max: 64)
                          })
      SHAPE = Shape.object(
        required: {
          "format" => Shape.const("nimble-ledger.estimate-request"), "version" => Shape.const(1), "engine" => document,
          "targets" => Shape.list(id, min: 1, max: Profile::MAX_TARGETS, unique: true)
        },
        optional: {
          "equipment" => Shape.list(id, max: 200), "pins" => pins, "condition" => condition, "history" => Risk::History::SHAPE,
          "soak" => Shape.one_of(*Profile::SOAKS), "house" => House::Settings::SHAPE, "catalog" => document,
          "codes" => Shape.boolean, "override" => Override::SHAPE,
          "discount" => Shape.object(required: { "cents" => Shape.integer(max: 100_000_000) }, optional: { "label" => Shape.string(max: 80) })
        }
      )

      attr_reader :engine, :targets, :equipment, :pins, :condition, :history, :soak, :house, :catalog, :discount, :override

      # @param hash [Hash] parsed JSON; `engine` and `catalog` inline
      # @param engine [Profile::Engine, nil] already built, in place of hash["engine"]
      # @param catalog [Parts::Catalog, nil] already built, in place of hash["catalog"]
      # @param base [House::Settings] what the request's own house settings override
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, engine: nil, catalog: nil, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, engine, catalog, base)
      end

      def initialize(hash, engine, catalog, base)
        @engine = engine || Profile::Engine.build(inline(hash, "engine"), path: "/engine")
        @catalog = catalog || (hash["catalog"] && Parts::Catalog.build(inline(hash, "catalog"), path: "/catalog"))
        @house = House::Precedence.resolve(base, @engine, hash["house"])
        @targets = named_targets(hash["targets"])
        @equipment = (hash["equipment"] || []).uniq
        @pins = Access::Pins.new(@engine, hash["pins"])
        @condition = Time::Condition.new(hash["condition"], @house)
        @history = hash["history"] && Risk::History.new(hash["history"])
        @soak = allowed_soak(hash["soak"] || "none")
        @codes = hash["codes"] || false
        @discount = hash["discount"]
        @override = Override.from(hash["override"])
        wells_exist(hash)
        freeze
      end
      private_class_method :new

      def codes? = @codes

      private

      def inline(hash, key)
        return hash[key] if hash[key].is_a?(Hash)

        fault("/#{key}", "must be an inline object here; a path works only with bin/estimate")
      end

      def named_targets(ids)
        ids.each_with_index.map do |id, i|
          @engine.target(id) || fault("/targets/#{i}", "names target #{id}, which #{@engine.code} does not have")
        end
      end

      def allowed_soak(name)
        return name if name == "none" || @engine.soaks.include?(name)

        fault("/soak", "#{name} is not allowed on this engine; it allows #{@engine.soaks.join(", ")}")
      end

      def wells_exist(hash)
        numbers = @engine.cylinders.map { |cylinder| cylinder.number.to_s }
        @condition.wells.each_key do |number|
          fault("/condition/wells/#{Shape.key(number)}", "names cylinder #{number}, which does not exist") unless numbers.include?(number)
        end
        hash
      end

      def fault(path, message)
        raise InvalidInput.new("The request has a fault: #{path} #{message}.", code: "invalid_request",
                                                                             details: [{ "path" => path, "message" => message }])
      end
    end
  end
end
