# frozen_string_literal: true

module NimbleLedger
  module Library
    # What the library shows of one engine: the reach drawing, the hours of every kind of work on every cylinder and on
    # all of them, the descent of the deepest, and the parts it names. All of it from the profile and the equipment.
    class EnginePage
      # @return [Car] the engine as the shop would meet it: clean, with the shop's equipment
      attr_reader :car

      # @param engine [Profile::Engine]
      # @param house [House::Settings]
      # @param equipment [Array<String>]
      # @param work [String, nil] the kind of work drawn; plugs when nil or not offered
      # @param catalog [Parts::Catalog, nil]
      # @param only [Boolean] whether just the kind of work that is drawn is sounded
      def initialize(engine, house: House::Settings.defaults, equipment: [], work: nil, catalog: nil, only: false)
        @engine = engine
        @catalog = catalog
        @works = Quote::Selection.works_of(engine)
        @work = @works.include?(work) ? work : "plug"
        @works = [@work] if only
        @request =
          Estimate::Request.build(
            {
              "format" => "nimble-ledger.estimate-request",
              "version" => 1,
              "engine" => {
              },
              "targets" => [engine.targets.first.id],
              "equipment" => equipment
            },
            documents: Documents.new(engine: engine),
            base: house
          )
        @car = @request.car
        @engine = @car.engine
      end

      # @return [Hash] see the contract, EnginePage
      def to_h
        {
          "work" => @work,
          "works" => soundings,
          "reach" => chart.reach_section,
          "layers" => chart.layers,
          "deepest" => deepest&.first,
          "descent" => deepest && Quote::Sheet.descent(deepest.last.plan),
          "parts" => parts,
          "equipment" => equipment
        }
      end

      # Hours of one kind of work: each cylinder alone, and all together.
      # @return [Array<Hash>] "work", "cylinders" => [{"cylinder", "hours" or nil}], "all" => hours or nil
      def soundings
        @works.map do |work|
          {
            "work" => work,
            "cylinders" =>
              numbers(work).map { |number| { "cylinder" => number, "hours" => hours(alone(work)[number]) } },
            "all" => hours(answer(targets(work)))
          }
        end
      end

      # Every part the profile names, with what the price list calls it; nil where it lists none.
      def parts
        named.map do |part, uses|
          {
            "part" => part,
            "label" => @catalog&.item(part) && @catalog.description(part),
            "for" => uses.uniq,
            "priced" => priced?(part)
          }
        end
      end

      # Parts of it that no price is known for: totals with them are incomplete.
      # @return [Array<String>]
      def unpriced = named.keys.reject { |part| priced?(part) }

      private

      def priced?(part) = !@catalog.nil? && !@catalog.unit_cost(part).nil?

      def equipment
        @engine.equipment.map { |id| { "id" => id, "label" => Quote::Words.equipment(id) } }
      end

      def targets(work, number = nil) =
        @engine.targets.select { |t| t.work == work && (number ? t.cylinders.include?(number) : t.cylinders.any?) }

      def numbers(work) = @engine.cylinders.map(&:number).sort.select { |number| targets(work, number).any? }

      def alone(work)
        @alone ||= {}
        @alone[work] ||= numbers(work).to_h { |number| [number, answer(targets(work, number))] }
      end

      def answer(targets)
        targets.empty? ? nil : @car.job(targets)
      rescue ImpossiblePlan
        nil
      end

      def hours(answer) = answer && (answer.plan.job.quoted_tenths / 10.0)

      def reach =
        @reach ||= Picture::Reach.new(@engine, @engine.cylinders.to_h { |c| [c.number, alone(@work)[c.number]] })

      def chart = @chart ||= Quote::Chart.new(reach, condition: @car.condition, equipment: @car.equipment)

      # The cylinder whose job takes longest, with its answer.
      def deepest = @deepest ||= alone(@work).compact.max_by { |number, found| [found.plan.job.total.mean, -number] }

      def named
        found = Hash.new { |hash, part| hash[part] = [] }
        bought.each { |part, what| found[part] << what if part }
        @engine.steps.each { |step| disturbed(step).each { |part| found[part] << step.label } }
        found
      end

      # Parts the work itself takes, with what each is for.
      def bought
        coils = @engine.coils.map { |coil| [coil.part, coil.id.tr("-", " ")] }
        targets = @engine.targets.flat_map { |target| parts_of(target).map { |part| [part, target.label] } }
        [[@engine.plug("part"), "plugs"], *coils, *targets]
      end

      def parts_of(target) = [target.plug_part, *target.own_parts.map { |own| own["part"] }]

      def disturbed(step)
        mishaps = step.mishaps.flat_map(&:parts).map { |part| part["part"] }
        (step.seals + step.clips + step.fasteners).filter_map { |row| row["part"] } + mishaps
      end
    end
  end
end
