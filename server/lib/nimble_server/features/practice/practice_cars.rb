# frozen_string_literal: true

module NimbleServer
  module Features
    module Practice
      # Made-up cars to practise on: drawn by a number from the shop's own engines and prices, nothing of any customer
      # in them and nothing kept. The same number is the same car as long as the library stays as it is.
      class PracticeCars
        # @param text [String] the number, as an address has it
        # @raise [Refusal] 404 for what is none
        def self.of(shop, text, **rest)
          raise Refusal.not_found("practice car") unless text.match?(/\A\d{1,9}\z/)

          new(shop, text.to_i, **rest)
        end

        # @param seed [Integer]
        # @param effort [Proc] gives what one page may compute
        def initialize(shop, seed, effort: -> { NimbleLedger::Access::NodeBudget.new })
          @shop = shop
          @seed = seed
          @effort = effort
        end

        # @return [Hash] see the contract, PracticeCar
        def car
          first = practice.request
          {
            "seed" => @seed,
            "engine" => Engines::EngineLibrary.row(head, engine),
            "when" => practice.moment,
            "lamp" => practice.lamp,
            "codes" => practice.codes,
            "history" => practice.history,
            "condition" => practice.condition,
            "tests" => first.tests_here,
            "targets" => targets(first.car.engine)
          }.merge(drawing).merge(looked([]))
        end

        # @param tests [Array<Hash>] done so far, in their order
        # @param targets [Array<String>] what would be renewed
        # @return [Hash] see the contract, PracticeLook: what they showed and took, what is believed after them, and
        #   what renewing that is quoted at
        def looked(tests, targets = [])
          done = practice.done(tests)
          costs = done.each_index.map { |i| practice.request(done.first(i)).cost_of(done[i], effort: @effort.call) }
          sheet = practice.request(done).sheet(effort: @effort.call)
          {
            "evidence" => done.zip(costs).map { |one, cost| one.merge("minutes" => cost ? cost.minutes : 0.0) },
            "shares" => sheet["shares"],
            "moved" => sheet["moved"],
            "quote" => quoted(targets)
          }
        end

        # @return [Hash] see the contract, PracticeEnd: the truth, and how it went
        def ended(tests, targets, words) =
          NimbleLedger::Practice::Score.new(practice, tests, targets, words, effort: @effort.call).to_h

        private

        # @return [Hash, nil] hours, cents; nil while nothing is chosen, or where no way leads there
        def quoted(ids)
          car = practice.request.car
          targets = ids.filter_map { |id| car.engine.target(id) }
          return nil if targets.empty?

          job = car.job(targets, effort: @effort.call)
          { "hours" => job.quoted_tenths / 10.0, "cents" => job.price&.total_cents }
        rescue NimbleLedger::ImpossiblePlan
          nil
        end

        def practice
          @practice ||=
            NimbleLedger::Practice::Case.new(
              @seed,
              engine: engine,
              catalog: Library.catalog(@shop, @shop.newest(:price_lists)),
              house: house.settings,
              equipment: house.equipment
            )
        end

        def house = @house ||= HouseRules::House.new(@shop)

        # One of the shop's engines there is anything to find out on.
        def head
          @head ||=
            begin
              fit = Library.newest_of_each(@shop).select { |row| fit?(Library.engine(@shop, row[:id])) }
              raise Refusal.new(404, "no_engine", "There is no engine here yet to practise on.") if fit.empty?

              fit[@seed % fit.size]
            end
        end

        def fit?(engine) = NimbleLedger::Practice::Case.fit?(engine)

        def engine = Library.engine(@shop, head[:id])

        def targets(engine)
          wanted = engine.targets.select { |target| NimbleLedger::Trace::Repairs::WORKS.include?(target.work) }
          wanted.map { |one| { "id" => one.id, "label" => one.label, "cylinders" => one.cylinders } }
        end

        def drawing
          Library.worked_out(head[:id], house.id, "reach") do
            NimbleLedger::Library::EnginePage
              .new(engine, house: house.settings, equipment: house.equipment, only: true)
              .to_h
              .slice("reach", "layers")
          end
        end
      end
    end
  end
end
