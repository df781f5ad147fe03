# frozen_string_literal: true

module NimbleLedger
  module Practice
    # How a practice went, beside how the tables would have gone about it: bits learned of the fault, minutes lost in
    # tests, money (tests, what was renewed, the return where it did not cure), and whether the words say what a
    # customer needs.
    class Score
      MOST_TESTS = 12
      LIKELY_BREAK = 0.05
      # What was tested and renewed: tests with outcomes; minutes lost up to each; targets.
      Way = Struct.new(:evidence, :minutes, :targets)

      # @param kase [Case]
      # @param tests [Array<Hash>] done, in their order
      # @param targets [Array<String>] ids of what would be renewed
      # @param words [String] what would be said to the customer
      # @param effort [Access::NodeBudget]
      # @raise [InvalidInput]
      def initialize(kase, tests, targets, words, effort: Access::NodeBudget.new)
        @case = kase
        @effort = effort
        @car = kase.request.car
        @targets = targets.each_with_index.map { |id, i| known(id, i) }
        evidence = kase.done(tests)
        @own = Way.new(evidence, lost(evidence), @targets)
        @words = words
      end

      # @return [Hash] see the contract, PracticeEnd
      def to_h
        { "truth" => truth, "bits" => bits, "yours" => way(@own), "tables" => way(tables), "words" => words }
      end

      private

      def known(id, index)
        @car.engine.target(id) ||
          raise(InvalidInput.at("/targets/#{index}", "names target #{id}, which #{@car.engine.code} does not have"))
      end

      def repairs_after(evidence) = Trace::Repairs.new(@car.engine, @case.request(evidence).belief.places)

      def truth
        fault = @case.fault
        target = repairs_after([]).target(fault)
        {
          "cause" => fault.cause,
          "part" => fault.part&.kind,
          "cylinders" => fault.cylinders,
          "target" => target&.id,
          "label" => target&.label,
          "plugs" => plugs
        }
      end

      # What the plugs that would have been taken out would have done.
      def plugs
        ids = @targets.select(&:plug?).map(&:id)
        @case
          .plugs
          .select { |plug| ids.include?(plug.target) }
          .map { |plug| { "cylinder" => plug.cylinder, "outcome" => plug.outcome } }
      end

      # How likely the truth was held to be at each point.
      def believed(evidence)
        (0..evidence.size).map do |count|
          @case.request(evidence.first(count)).belief.held.find { |one| same?(one.hypothesis) }.chance
        end
      end

      def same?(one) = [one.cause, one.cylinders, one.part] == [fault.cause, fault.cylinders, fault.part]
      def fault = @case.fault

      def bits
        chances = believed(@own.evidence)
        { "learned" => Math.log2(chances.last / chances.first), "hidden" => -Math.log2(chances.first) }
      end

      # Minutes lost up to each test.
      def lost(evidence)
        evidence
          .each_index
          .reduce([0.0]) do |sums, i|
            cost = @case.request(evidence.first(i)).cost_of(evidence[i], effort: @effort)
            [*sums, sums.last + (cost ? cost.lost : 0.0)]
          end
      end

      # As the tables go about it: the best test while that is the advice, then what leads.
      def tables
        @tables ||= go([])
      end

      def go(evidence)
        answer = @case.request(evidence).answer(effort: @effort)
        best = answer["tests"].first
        if answer["advice"] == "test" && best && evidence.size < MOST_TESTS
          return go(@case.done([*bare(evidence), best.slice("test", "cylinder", "with")]))
        end

        Way.new(evidence, lost(evidence), [renewed(answer["advice"], evidence)].compact)
      end

      # What the advice renews: what mends what is known, else what repairs the likeliest suspect; nothing where it is
      # known to be something no part mends.
      def renewed(advice, evidence)
        return nil if advice == "elsewhere"

        request = @case.request(evidence)
        return request.sure_target(effort: @effort) if advice == "repair"

        repairs_after(evidence).likeliest(request.belief.held)
      end

      def bare(evidence) = evidence.map { |one| one.slice("test", "cylinder", "with") }

      def way(one)
        {
          "tests" => one.evidence,
          "path" =>
            one.minutes.zip(believed(one.evidence)).map { |at, chance| { "minutes" => at, "chance" => chance } },
          "minutes" => one.minutes.last,
          "targets" => one.targets.map(&:id),
          "labels" => one.targets.map(&:label),
          "cured" => cured?(one),
          **money(one)
        }
      end

      # Renewing nothing is right where no part of the list mends it.
      def cured?(way)
        repairs = repairs_after(way.evidence)
        return way.targets.empty? if repairs.target(fault).nil?

        repairs.cures?(way.targets, fault)
      end

      # Cents; nil where a part has no price. The return: what cures it on another day, and what the visit costs them.
      def money(way)
        finding = Money.round(ThreePoints.exact(way.minutes.last) * @car.house["rate_cents"] / 60)
        renewed = price(way.targets)
        back = cured?(way) ? 0 : returned(way)
        whole = [finding, renewed, back].then { |all| all.any?(&:nil?) ? nil : all.sum }
        { "finding_cents" => finding, "renewed_cents" => renewed, "return_cents" => back, "cents" => whole }
      end

      def returned(way)
        target = repairs_after(way.evidence).target(fault)
        own = @car.house["return_own_cents"]
        target ? price([target])&.+(own) : own
      end

      def price(targets)
        return 0 if targets.empty?

        @car.catalog && @car.job(targets, effort: @effort).price.then { |one| one.total_cents unless one.incomplete? }
      rescue ImpossiblePlan
        nil
      end

      # What a customer needs to hear of the job that is proposed; nothing is asked where nothing is renewed.
      def words
        return [] if @targets.empty?

        said = {
          "place" => @targets.flat_map(&:cylinders).uniq.all? { |number| @words.match?(/\b#{number}\b/) },
          "part" => @targets.map(&:work).uniq.all? { |work| @words.match?(/#{Regexp.escape(work.tr("-", " "))}/i) },
          "reach" => layers.empty? || layers.any? { |word| @words.match?(/\b#{Regexp.escape(word)}/i) },
          "amount" => amount.nil? || figures.include?(amount),
          "plain" => !@words.match?(/\bP0\d{3}\b/)
        }
        said["trouble"] = @words.match?(/break|snap|seiz|stuck|thread/i) if breaks?
        said.map { |what, yes| { "what" => what, "said" => yes } }
      end

      def job = @job ||= @car.job(@targets, effort: @effort)

      # Words that name what comes off first.
      def layers = job.plan.steps.map(&:label).flat_map { |label| label.scan(/[[:alpha:]]{5,}/) }.uniq

      # The amount in whole units, however it is written.
      def amount = price(@targets)&.then { |cents| cents / 100 }
      def figures = @words.delete(",' ").scan(/\d+/).map(&:to_i).flat_map { |figure| [figure, figure - 1] }

      def breaks? = (job.outcomes&.plug_rows || []).any? { |row| row.chances.broken >= LIKELY_BREAK }
    end
  end
end
