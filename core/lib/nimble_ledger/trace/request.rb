# frozen_string_literal: true

module NimbleLedger
  module Trace
    # A trace request (formats.md, "Other requests"): what is known of a misfire, answered with suspects and their
    # chances, the tests worth doing next on this engine, and what to do now.
    class Request
      FORMAT = "nimble-ledger.trace-request"
      MOMENTS = %w[always load idle cold hot].freeze
      BLINKS = "The lamp blinks: do not drive, unburned fuel overheats the catalyst."
      PERMANENT =
        "A permanent code clears itself over the next drives after the repair; it does not say that a repair failed."
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "engine" => Estimate::Request::ENGINE
          },
          optional: {
            **Estimate::Request::CAR,
            "codes" => Codes::SHAPE,
            "lamp" => Shape.one_of("off", "steady", "blinking"),
            "when" => Shape.one_of(*MOMENTS),
            "open" => Shape.list(Shape.string(max: 80), max: Profile::MAX_STEPS, unique: true),
            "evidence" => Evidence::SHAPE,
            "counters" => Counters::SHAPE,
            "sets" => Suspects::SETS,
            "tables" => Tables::SHAPE,
            "rules" => Shape.one_of(*Rules::KNOWN.keys),
            "diagnosis_rate_cents" => Shape.number(max: 100_000_000, unit: "cents")
          }
        )

      attr_reader :car, :belief

      # @param hash [Hash] parsed JSON
      # @param documents [Documents] where engine and catalog come from
      # @param base [House::Settings]
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents: Documents.new, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, Estimate::CarPart.new(hash, documents: documents, base: base))
      end

      def initialize(hash, part)
        @hash = hash
        @car = part.car
        @written = part.written
        @tables = Tables.new(hash["tables"])
        @codes = Codes.new(hash["codes"], car.engine, @tables)
        refuse_open
        @given = hash["evidence"] || []
        @counters = Counters.new(hash["counters"], car.engine, @tables)
        @suspects = Suspects.new(car, @tables, brittle: car.condition.brittle?, sets: hash["sets"] || []).list
        @belief = believed(@given)
        freeze
      end

      # @return [Hash] see formats.md, trace
      def answer(effort: Access::NodeBudget.new)
        found = candidates(effort)
        answered(found, advice(found, effort))
      end

      # The answer with what a page shows beside it: what each code says, the share of each cylinder, what repairs it
      # where that is known, guessing beside knowing, parts that do not sit where they came from, and the scopes it
      # leads to.
      # @return [Hash] see the contract, TraceSheet
      def sheet(effort: Access::NodeBudget.new)
        found = candidates(effort)
        advice = advice(found, effort)
        answered(found, advice).merge(
          "hypotheses" => hypotheses(parts: true),
          "codes" => @codes.told,
          "permanent" => @codes.permanent?,
          "shares" => found.shares.map { |number, share| { "cylinder" => number, "share" => share } },
          "repair" => repair(advice),
          "worth" => worth(found, effort).to_h,
          "leads_to" =>
            LeadsTo.new(
              car.engine,
              advice.sure_target || Repairs.new(car.engine, belief.places).likeliest(belief.held)
            ).scopes,
          "moved" => belief.places.moved,
          "outcomes" => @tables.tests.to_h { |test| [test, @tables.test(test)["outcomes"]] }
        )
      end

      # Tests that can be done with what is here.
      # @return [Array<Hash>] "test", "swap": whether it takes a partner
      def tests_here
        here = @tables.tests.select { |test| (@tables.test(test)["needs"].to_a - car.equipment).empty? }
        here.map { |test| { "test" => test, "swap" => SwappedParts::SWAPS.key?(test) } }
      end

      # What cures the fault as good as surely.
      # @return [Profile::Target, nil] nil where nothing does
      def sure_target(effort: Access::NodeBudget.new) = advice(candidates(effort), effort).sure_target

      # What a test costs from here on.
      # @param test [Hash] "test", "cylinder", "with"?
      # @return [TestCost::Cost, nil] nil where it cannot be done
      def cost_of(test, effort: Access::NodeBudget.new) =
        candidates(effort).cost(test["test"], test.values_at("cylinder", "with").compact)

      private

      def candidates(effort) =
        NextTest.new(car, belief, TestCost.new(car, @hash["open"] || [], @tables, effort: effort), @tables)

      def believed(given) =
        Posterior.new(@suspects, @codes, moment, Evidence.new(given, car.engine, @tables), @tables, @counters)

      def advice(candidates, effort) = Advice.new(car, belief, candidates, rate_cents: rate, effort: effort)

      def repair(advice)
        target = advice.sure_target or return nil
        { "target" => target.id, "label" => target.label, "cured" => advice.cured_by(target) }
      end

      def worth(candidates, effort)
        after = ->(row, outcome) do
          believed(@given + [row.to_h.slice("test", "cylinder", "with").merge("outcome" => outcome)])
        end
        PriceOfGuessing.new(car, belief, candidates, after: after, tables: @tables, rate_cents: rate, effort: effort)
      end

      def answered(candidates, advice)
        {
          "format" => "nimble-ledger.trace",
          "version" => 1,
          "hypotheses" => hypotheses,
          "tests" => candidates.list.map(&:to_h),
          "advice" => advice.word,
          "together" => together,
          "cautions" => cautions,
          "evidence" => steps,
          "other_codes" => @codes.others
        }.reject { |key, value| %w[other_codes together].include?(key) && value.empty? }
      end

      def together = Together.new(belief, Repairs.new(car.engine, belief.places)).targets.map(&:id)

      def moment = @hash["when"] || (@codes.cold? ? "cold" : nil)
      def rate = @hash["diagnosis_rate_cents"] || car.house["rate_cents"]

      # Suspects with their chances, the likeliest first.
      # @param parts [Boolean] whether each says what part it is of: a boot is a wire's row and a word of its own
      def hypotheses(parts: false)
        repairs = Repairs.new(car.engine, belief.places)
        belief
          .held
          .map do |one|
            h = one.hypothesis
            {
              "cause" => h.cause,
              "cylinders" => h.cylinders,
              "now" => one.now == h.cylinders ? nil : one.now,
              "target" => repairs.target(h)&.id,
              "chance" => one.chance,
              "part" => parts ? h.part&.kind : nil
            }.compact
          end
          .each_with_index
          .sort_by { |row, i| [-row["chance"], i] }
          .map(&:first)
      end

      def cautions = [@hash["lamp"] == "blinking" ? BLINKS : nil, @codes.permanent? ? PERMANENT : nil].compact

      # What codes, the moment and each test that counts did to the suspect that leads.
      def steps
        belief.steps.map do |step|
          said = step.name.is_a?(String) ? { "from" => step.name } : test_of(step.name)
          said.merge("before" => step.before, "after" => step.after)
        end
      end

      def test_of(done)
        {
          "from" => "test",
          "test" => done.test,
          "cylinder" => done.cylinder,
          "with" => done.with,
          "outcome" => done.outcome
        }.compact
      end

      def refuse_open
        (@hash["open"] || []).each_with_index do |id, i|
          next if @written.step(id)

          raise InvalidInput.at("/open/#{i}", "names step #{id}, which #{@written.code} does not have")
        end
      end
    end
  end
end
