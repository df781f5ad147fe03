# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Everything one scope of the Quote page shows, computed from the resolved request: the drawing, the layers, the
    # descent, the spread, the ledger lines, the explanation. The interface draws it and computes nothing.
    class Sheet
      # When the car comes (Slots::ReadyTime::Moment), how warm ("cold", "warm", "hot"), and what was promised (Moment
      # or nil).
      Visit = Struct.new(:drop_off, :arrival, :promised)

      SHOWN = %w[
        title
        layers
        descent
        compare
        spread
        explanation
        cautions
        reach
        trouble
        ready
        parts
        quoted_share
        reference_hours
        learned
        diagnosis
        warranty
        soak
      ].freeze

      # engine: as this car has it; written: its profile as written, with the plug that was chosen.
      attr_reader :answer, :engine, :written

      # @param selection [Selection]
      # @param resolved [Hash] an estimate request without targets: house, condition, history, equipment, pins, soak
      # @param engine [Profile::Engine] as written; all that is shown is of the engine as this car has it
      # @param catalog [Parts::Catalog, nil]
      # @param base [House::Settings]
      # @param visit [Visit, nil] nil leaves ready times out
      # @param decimal [String] the mark before decimals in sentences
      # @param effort [Access::NodeBudget] shared by everything the page shows of this scope
      # @param keep [Proc] given what a planner depends on beside engine and house, and a block that makes one: may hand
      # out one made before
      def initialize(
        selection,
        resolved,
        engine:,
        catalog: nil,
        base: House::Settings.defaults,
        visit: nil,
        decimal: ".",
        compare_soaks: true,
        keep: ->(_key, &build) { build.call },
        effort: Access::NodeBudget.new
      )
        @effort = effort
        @undecided = []
        @compare_soaks = compare_soaks
        @decimal = decimal
        @selection = selection
        @promised = visit&.promised
        @written = selection.done_on(engine, catalog)
        documents = Documents.new(engine: @written, catalog: catalog)
        @request =
          Estimate::Request.build(resolved.merge("targets" => ids_on(@written)), documents: documents, base: base)
        @car = planned(@request.car, resolved.values_at("condition", "learned", "house"), keep)
        @engine = @car.engine
        @pick_up = visit && PickUp.new(@engine, drop_off: visit.drop_off, arrival: visit.arrival, house: @car.house)
        @targets = selection.ids.map { |id| @engine.target(id) }
        compute
      end

      # What lies over each cylinder, and the hours of each if done alone.
      def reach = @reach ||= Picture::Reach.new(@engine, soundings, job: answer&.plan)

      # The strokes of a plan, for drawing it or laying another over it.
      # @param plan [Access::Plan]
      def self.descent(plan)
        picture = Picture::Descent.new(plan)
        {
          "length_minutes" => picture.length,
          "levels" => picture.levels,
          "strokes" => picture.strokes.map { |stroke| stroke.to_h.compact.transform_keys(&:to_s) }
        }
      end

      # Ways and members that were fixed: by the advisor, or by the house's rule for near ties.
      # @return [Hash] as formats.md has it
      def pins = @tie ? { "ways" => @tie.ways, "choices" => @tie.choices } : @car.pins.to_h

      # The problem that keeps the job from being planned, if any.
      attr_reader :problem

      def request_targets = @targets.map(&:id)

      # "Plug and coil 5, throttle clean": what the scope is, in a line.
      def title
        numbers = @selection.cylinders.sort
        parts = numbers.empty? || @selection.works.empty? ? [] : [Words.work_on(@selection.works, numbers)]
        (parts + @selection.extras.map { |id| @engine.target(id).label }).join(", ")
      end

      # Other work on the same car, on a day of its own; what was set by hand for this scope does not touch it.
      # @param targets [Array<Profile::Target>]
      # @return [Job, nil] nil when there is nothing to do, or no way to do it
      def alone(targets)
        return nil if targets.empty?

        found = @car.job(targets, soak: @request.soak, codes: @request.codes?, effort: @effort)
        found.plan.proven? ? found : leave_out(targets)
      rescue ImpossiblePlan
        nil
      end

      # What is owed, before everything that explains it.
      # @return [Hash, nil] see formats/openapi.json, Balance; nil without a job or a catalog
      def balance
        return nil unless answer&.price

        {
          "title" => title,
          "hours" => answer.quoted_tenths / 10.0,
          "price" => Estimate::Answer.new(answer).price_section
        }
      end

      # @return [Risk::Trouble, nil] nil without a job, a history or a price
      def trouble = answer && (@trouble ||= Risk::Trouble.for(answer))

      # @return [Slots::ReadyTime::Moment, nil] when the car is ready, without removal trouble
      def ready
        return nil unless answer && @pick_up

        @selection.to_go ? @pick_up.after(@selection.to_go) : @pick_up.ready(answer.plan)
      end

      # @return [Hash] see formats/openapi.json, Sheet
      def to_h
        {
          "rules" => @car.rules.number,
          "reach" => chart.reach_section,
          "layers" => chart.layers,
          "offers" => offers,
          "title" => title,
          "undecided" => @undecided
        }.merge(job_sections)
      end

      # What a saved revision keeps of the page, so that it can be shown and printed again as it was.
      # @return [Hash] the sections of SHOWN that there are
      def shown = to_h.slice(*SHOWN)

      private

      # What the request is built for; while nothing is chosen, anything: a request names at least one target.
      def ids_on(engine) = @selection.ids.empty? ? [engine.targets.first.id] : @selection.ids

      # The car with a planner, one made before where everything it depends on is the same.
      def planned(car, given, keep)
        depends_on = [*given, car.equipment, car.pins.to_h, car.engine.object_id, car.rules.number]
        car.planned_by(keep.call(depends_on) { car.planner })
      end

      # Targets of the profile as written, as they are on this car.
      def on_this_car(targets) = targets.map { |target| @engine.target(target.id) }

      def chart =
        @chart ||=
          Chart.new(reach, answer, condition: @car.condition, chosen: @selection.cylinders, equipment: @car.equipment)

      # Each cylinder's own job with the work now chosen, plugs while none is.
      def soundings
        works = @selection.works.empty? ? ["plug"] : @selection.works
        @engine.cylinders.to_h do |cylinder|
          [cylinder.number, alone(on_this_car(@selection.targets_on(cylinder.number, with: works)))]
        end
      end

      def compute
        return if @targets.empty?

        @answer = @request.job(effort: @effort, car: @car)
        take_near_tie
        return unless @selection.soak.nil? && @pick_up

        plain = trouble
        soak =
          StartingSoak.of(
            plain,
            -> { TroubleSection.soaks_of(plain, @pick_up, method(:with_soak)).recommended(promised: @promised) }
          )
        @trouble = with_soak(soak)
        @answer = @trouble&.answer || @answer
      rescue ImpossiblePlan => e
        @problem = e
      end

      # By house rule the way that spares the car something is taken where it is about as short and nobody pinned
      # another (House::Schools, "near_ties"): frozen as the pins it comes to.
      def take_near_tie
        return if @car.house["near_ties"] != "taken" || @car.pins.any?

        @tie = answer.near_ties.first or return
        @car = @car.with(pins: Access::Pins.new(@engine, pins)).planned
        @answer = @request.job(effort: @effort, car: @car)
      end

      def tie_taken = @tie && { "extra_minutes" => @tie.extra, "spares" => @tie.spares }

      def leave_out(targets)
        @undecided |= targets.map(&:label)
        nil
      end

      # The problem with its equipment in words beside the ids.
      def said(problem)
        problem
          .to_h
          .fetch("error")
          .then do |error|
            error.merge(
              "details" =>
                error["details"].map do |row|
                  row.merge("takes" => (row["equipment"] || []).map { |id| Words.equipment(id) })
                end
            )
          end
      end

      def job_sections
        return { "problem" => problem && said(problem) } unless answer

        explanation = Explanation.new(answer, reach, @selection.works, decimal: @decimal)
        JobSection
          .new(answer, reach, @selection.works)
          .to_h
          .merge(
            "compare" => compare,
            "spread" => spread,
            "explanation" => {
              "short" => explanation.short,
              "spoken" => explanation.spoken,
              "in_order" => explanation.in_order
            },
            "quoted_share" => answer.quoted_share,
            "reference_hours" => @selection.reference_hours,
            "learned" => LearnedSection.of(answer),
            "diagnosis" => diagnosis,
            "warranty" => warranty,
            "set_aside" => @selection.set_aside,
            "tie_taken" => tie_taken,
            "soak" => {
              "in_force" => answer.plan.soak,
              "chosen" => !@selection.soak.nil?
            }
          )
          .merge(trouble_sections)
      end

      # What we owe of this scope, and the hours of it nobody pays for.
      def warranty
        owed = answer.owed
        charged = @selection.charged?
        return nil if owed.empty? && !charged

        billed = answer.billed ? answer.billed.quoted_tenths : 0
        {
          "labels" => owed.map(&:label),
          "hours" => [answer.quoted_tenths - billed, 0].max / 10.0,
          "charged" => charged
        }
      end

      # What finding out may cost, and what is owed for it without the repair.
      def diagnosis
        sold = answer.diagnosis or return nil
        { "hours" => sold.hours, "cents" => sold.cents, "owed_cents" => sold.owed_cents, "credited" => sold.credited? }
      end

      def trouble_sections
        return {} unless @pick_up

        about = { "ready" => ready.to_s, "cooling_minutes" => @pick_up.cooling }
        return about unless trouble

        about.merge(
          "trouble" =>
            TroubleSection.new(
              trouble,
              @pick_up,
              with_soak: method(:with_soak).to_proc,
              promised: @promised,
              compare_soaks: @compare_soaks
            ).to_h
        )
      end

      # The same job with another soak: same plan, other minutes and odds; each worked out once.
      # @return [Risk::Trouble, nil]
      def with_soak(protocol)
        return trouble if protocol == answer.plan.soak

        @soaked ||= {}
        @soaked[protocol] ||= Risk::Trouble.new(answer.with_soak(protocol))
      end

      # What the advisor may choose on this engine.
      def offers
        {
          "works" => Selection.works_of(@engine),
          "extras" => Selection.extras_of(@engine).map { |t| { "id" => t.id, "label" => t.label } }
        }
      end

      # The same work where it is clearly easier, to lay over the descent.
      def compare
        unless @selection.cylinders.size == 1 &&
                 answer.targets.size == @selection.targets_on(@selection.cylinders.first).size
          return nil
        end

        number, hours =
          reach.soundings.reject { |n, h| h.nil? || n == @selection.cylinders.first }.min_by { |n, h| [h, n] }
        return nil unless number && hours <= (answer.plan.job.quoted_tenths / 10.0) - 0.3

        { "label" => "number #{number}", "descent" => Sheet.descent(reach.plans[number]) }
      end

      def spread
        picture = Picture::Spread.new(answer.plan.job.total)
        { "low" => picture.low, "high" => picture.high, "curve" => picture.curve }
      end
    end
  end
end
