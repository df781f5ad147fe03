# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What the advisor has chosen in one scope: cylinders, kinds of work, and extras. Turns into targets.
    class Selection
      # What a customer may choose when trouble takes a job above what was agreed (Card::WaysOn).
      WAYS = %w[finish leave stop].freeze

      SHAPE =
        Shape.object(
          required: {
            "cylinders" => Shape.list(Shape.integer(min: 1, max: 99), max: 32, unique: true),
            "works" => Shape.list(Shape.one_of(*Profile::WORKS), max: 10, unique: true)
          },
          optional: {
            "name" => Shape.string(max: 80, empty: true),
            "extras" => Shape.list(Shape.string(max: 80), max: 64, unique: true),
            "soak" => Shape.one_of(*Profile::SOAKS),
            "charged" => Shape.boolean,
            "hours" =>
              Shape.object(
                required:
                  Estimate::Override::SHAPE.required.merge(
                    "targets" => Shape.list(Shape.string(max: 80), min: 1, max: Profile::MAX_TARGETS, unique: true)
                  )
              ),
            "reference" =>
              Shape.object(
                required: {
                  "hours" => Shape.number(above: 0, max: 99.9, unit: "hours"),
                  "targets" => Shape.list(Shape.string(max: 80), min: 1, max: Profile::MAX_TARGETS, unique: true)
                }
              ),
            "discount" =>
              Shape.object(
                required: {
                  "cents" => Shape.integer(min: 1, max: 100_000_000),
                  "label" => Shape.string(max: 80)
                }
              ),
            "plug" => Shape.string(max: 60),
            "way" => Shape.one_of(*WAYS),
            "take_out" => Shape.boolean,
            "places" => Shape.list(Shape.integer(min: 1, max: 99), max: 32, unique: true),
            "tried" => Shape.map(Shape.list(Shape.string(max: 80), min: 1, max: Profile::MAX_STEPS), max: 64),
            "trouble" =>
              Shape.list(
                Shape.object(required: { "kind" => Shape.string(max: 20), "of" => Shape.string(max: 200) }),
                max: 64
              ),
            "limit_cents" => Shape.integer(max: 100_000_000),
            "to_go" => Shape.number(max: 100_000, unit: "minutes"),
            "lines" => Shape.list(Price::HandLine::ENTERED, max: Price::HandLine::MAX),
            "pins" =>
              Shape.object(
                optional: {
                  "ways" => Shape.map(Shape.string(max: 80), max: 64),
                  "choices" =>
                    Shape.map(
                      Shape.either(
                        Shape.string(max: 80),
                        Shape.list(Shape.string(max: 80), min: 1, max: 12),
                        say: "a step id or a list of them"
                      ),
                      max: 64
                    )
                }
              )
          }
        )

      # A scope without the cylinders, extras, soak, hours and pins an engine lacks; what goes is named in `dropped`.
      # @return [Hash]
      def self.fit(engine, scope, dropped)
        numbers = engine.cylinders.map(&:number)
        cylinders = keep(scope["cylinders"], dropped) { |n| "cylinder #{n}" unless numbers.include?(n.to_i) }
        kept = scope.merge("cylinders" => cylinders)
        kept["extras"] = keep(scope["extras"], dropped) { |id| id unless engine.target(id) } if scope["extras"]
        {
          "soak" => "the soak",
          "hours" => "the hours set by hand",
          "reference" => "the guide's hours",
          "pins" => "the pinned routes"
        }.each do |key, name|
          next if fits?(engine, key, scope[key])

          kept.delete(key)
          dropped << name
        end
        kept
      end

      def self.fits?(engine, key, value)
        return true if value.nil?
        return ["none", *engine.soaks].include?(value) if key == "soak"
        return value["targets"].all? { |id| engine.target(id) } if %w[hours reference].include?(key)

        Access::Pins.new(engine, value) && true
      rescue InvalidInput
        false
      end
      private_class_method :fits?

      def self.keep(list, dropped)
        list.reject { |item| yield(item).tap { |name| dropped << name if name } }
      end
      private_class_method :keep

      attr_reader :cylinders, :works, :extras, :discount, :soak, :lines, :plug, :to_go

      # The engine as it is done here: with the plug that goes in, and what was opened for and left.
      # @param engine [Profile::Engine] as written
      # @param catalog [Parts::Catalog, nil]
      # @return [Profile::Engine]
      def done_on(engine, catalog) = Parts::PlugChoice.new(catalog).engine_with(engine, plug).with_left(@tried)

      # Whether work under the shop's warranty is charged all the same (it wore out, or was run into).
      def charged? = @charged

      # @param hash [Hash] fitting SHAPE
      # @raise [InvalidInput] for a cylinder or extra the engine does not have
      def initialize(engine, hash, path: "")
        @engine = engine
        @cylinders = hash["cylinders"].map(&:to_i)
        @works = hash["works"]
        @extras = hash["extras"] || []
        @hours = hash["hours"]
        @reference = hash["reference"]
        @discount = hash["discount"]
        @plug = hash["plug"]
        @to_go = hash["to_go"]
        @tried = hash["tried"] || {}
        @lines = (hash["lines"] || []).map { |entered| Price::HandLine.of(entered) }
        @charged = hash["charged"] || false
        # nil while the advisor has not chosen: the quote then starts with the one StartingSoak names
        @soak = hash["soak"]
        refuse_unknown(path)
        freeze
      end

      # @return [Array<Profile::Target>] in file order; empty while nothing is chosen
      def targets
        @engine.targets.select { |target| extras.include?(target.id) || covers?(target, cylinders) }
      end

      # Ids of all that is done on the engine as it is done here: the targets, and what was opened for and left.
      # @return [Array<String>]
      def ids = targets.map(&:id) + @tried.keys.map { |id| Profile::Target.left_id(id) }

      # Targets of the chosen work on one cylinder alone.
      def targets_on(number, with: works) =
        @engine.targets.select { |target| with.include?(target.work) && target.cylinders.include?(number) }

      # The advisor's own hours, in force while the scope holds what they were set for.
      # @return [Hash, nil] an estimate request's "override"
      def override = for_these_targets?(@hours) ? @hours.slice("by_hours", "reason") : nil

      # Hours a printed guide of the shop gives for this work (model.md section 7); nil where none were typed for it.
      # @return [Numeric, nil]
      def reference_hours = for_these_targets?(@reference) ? @reference["hours"] : nil

      # Hours set for other work than the scope now holds: kept, not used.
      # @return [Hash, nil] "by_hours", "reason"
      def set_aside = @hours && !for_these_targets?(@hours) ? @hours.slice("by_hours", "reason") : nil

      # The kinds of work this engine offers on cylinders, in the order of the trade.
      def self.works_of(engine) =
        (Profile::WORKS - ["other"]).select { |work| engine.targets.any? { |t| t.work == work && t.cylinders.any? } }

      # Targets that serve no cylinder: offered by name.
      def self.extras_of(engine) = engine.targets.select { |target| target.work == "other" || target.cylinders.empty? }

      private

      # Whether something typed was for what the scope now holds.
      def for_these_targets?(typed) = !typed.nil? && typed["targets"].sort == targets.map(&:id).sort

      def covers?(target, numbers) = works.include?(target.work) && target.cylinders.any? { |n| numbers.include?(n) }

      def refuse_unknown(path)
        known = @engine.cylinders.map(&:number)
        cylinders.each_with_index do |n, i|
          unless known.include?(n)
            refuse("#{path}/cylinders/#{i}", "names cylinder #{n}, which #{@engine.code} does not have")
          end
        end
        extras.each_with_index do |id, i|
          refuse("#{path}/extras/#{i}", "names #{id}, which #{@engine.code} does not offer") unless @engine.target(id)
        end
      end

      def refuse(path, message)
        raise InvalidInput.at(path, message, what: "scope", code: "invalid_input")
      end
    end
  end
end
