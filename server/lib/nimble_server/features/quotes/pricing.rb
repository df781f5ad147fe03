# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module Quotes
      # A quote's content with everything it refers to, priced by the core with what is in force now.
      class Pricing
        attr_reader :vehicle, :engine_row, :house, :content

        # @param content [Hash] fitted to the quote's engine revision by the caller
        # @param effort [Proc] gives what one scope's page may compute
        # @param compare_soaks [Boolean] whether the trouble panel is open
        # @raise [NimbleLedger::InvalidInput] when the content does not fit
        def initialize(shop, quote, content, compare_soaks: false, effort: -> { NimbleLedger::Access::NodeBudget.new })
          @compare_soaks = compare_soaks
          @effort = effort
          @shop = shop
          @vehicle = Vehicles::Garage.new(shop).find(quote[:vehicle_id])
          @engine_row = Library.head(shop, quote[:engine_profile_id])
          @in_force = shop.in_force
          @house = HouseRules::House.new(shop, id: @in_force.house)
          @content = NimbleLedger::Quote::Content.new(content, engine: engine, vehicle: facts, house: house.settings)
        end

        def price_list_id = @in_force.prices
        def engine = @engine ||= Library.engine(@shop, engine_row[:id])
        def catalog = @catalog ||= Library.catalog(@shop, price_list_id)

        # What the page is priced with: a save that names anything else freezes a price nobody saw.
        # @return [Hash] see the contract, PricedWith
        def priced_with
          {
            "engine" => engine_row[:id],
            "prices" => price_list_id,
            "house" => house.id,
            "totals" => @content.scopes.each_index.map { |i| sheet_of(i).answer&.price&.total_cents }
          }
        end

        # What is owed for the active scope, before everything that explains it.
        # @return [Hash, nil] see the contract, Balance
        def balance = sheet_of(@content.active).balance

        # The active scope as a job; nil where nothing is chosen, or it cannot be planned.
        # @return [NimbleLedger::Job, nil]
        def answer = sheet_of(@content.active).answer

        # The page of the active scope.
        # @return [Hash] see the contract, Sheet
        def sheet = sheet_of(@content.active).to_h

        # The other scopes in short, for laying over and for choosing.
        def others
          @content
            .scopes
            .each_index
            .reject { |i| i == @content.active }
            .map do |i|
              answer = sheet_of(i).answer
              {
                "index" => i,
                "name" => @content.scopes[i]["name"].to_s,
                "quoted_hours" => answer && (answer.quoted_tenths / 10.0),
                "total_cents" => answer&.price&.total_cents,
                "descent" => answer && NimbleLedger::Quote::Sheet.descent(answer.plan)
              }
            end
        end

        # A scope in two figures.
        Total = Struct.new(:title, :hours, :cents)

        # @return [Array<Total>] of every scope; hours and cents nil where there is no plan or nothing chosen
        def totals
          @content.scopes.each_index.map do |i|
            answer = sheet_of(i).answer
            title = @content.scopes[i]["name"].to_s
            title = sheet_of(i).title.to_s if title.empty?
            Total.new(title, answer && (answer.quoted_tenths / 10.0), answer&.price&.total_cents)
          end
        end

        # All scopes beside each other, as they are named in the quote.
        # @return [Array<Hash>] see the contract, Beside
        def side_by_side
          sheets = @content.scopes.each_index.map { |i| sheet_of(i) }
          NimbleLedger::Quote::SideBySide
            .new(sheets, active: @content.active)
            .rows
            .map { |row| row.merge("name" => @content.scopes[row["index"]]["name"].to_s) }
        end

        # What the months after bring with each scope.
        # @return [Hash, nil] see the contract, Ahead
        def ahead
          sheets = @content.scopes.each_index.map { |i| sheet_of(i) }
          NimbleLedger::Quote::MonthsAhead.new(sheets, assumed: @content.ahead, fitted_km: @content.fitted_km).to_h
        end

        # What was taken for granted: condition and history as used, and what of it is assumed.
        def resolved
          {
            "condition" => @content.condition,
            "history" => @content.history,
            "assumed" => @content.assumed,
            "oily_wells" => @content.oily_wells,
            "equipment" => house.equipment,
            "variants" => questions,
            "schools" => schools
          }
        end

        # What is in force where practitioners disagree, with whose word it is and what else there is.
        # @return [Array<Hash>] see the contract, Resolved
        def schools
          NimbleLedger::House::Schools.page(house.settings, engine, @content.schools)
        end

        # What the engine asks of a car, with the answer in force.
        def questions
          answers = engine.variants.resolve(@content.variants)
          engine.variants.questions.map do |question|
            {
              "id" => question.id,
              "ask" => question.ask,
              "options" => question.options,
              "answer" => answers.in_force[question.id],
              "assumed" => answers.assumed.key?(question.id)
            }
          end
        end

        # A scope with something in it: its place, what the advisor wrote, its page, and the request that recomputes it.
        PricedScope = Struct.new(:index, :scope, :sheet, :request)

        # @return [Array<PricedScope>]
        # @raise [NimbleLedger::ImpossiblePlan] when one of them cannot be planned
        def priced_scopes
          @content.scopes.each_index.filter_map do |i|
            sheet = sheet_of(i)
            next if sheet.request_targets.empty?
            raise sheet.problem if sheet.problem

            PricedScope.new(i, @content.scopes[i], sheet, complete_request(i, sheet))
          end
        end

        private

        def sheet_of(index)
          @sheets ||= {}
          @sheets[index] ||= NimbleLedger::Quote::Sheet.new(
            @content.selection(index),
            request(index),
            engine: engine,
            catalog: catalog,
            base: house.settings,
            visit: visit,
            decimal: Documents::ShopText.decimal_mark(@shop.profile[:locale]),
            compare_soaks: @compare_soaks,
            effort: @effort.call,
            keep: ->(key, &build) { Library.planner(engine, house.id, key, &build) }
          )
        end

        def facts =
          Vehicles::Garage.facts(vehicle, @shop.now).merge(
            "fittings" => Vehicles::Fittings.new(@shop).by_us(vehicle[:id]),
            "today" => @shop.now.to_date
          )

        def visit = NimbleLedger::Quote::Sheet::Visit.new(@content.drop_off || now, @content.arrival, @content.promised)

        # @return [Hash] "learned", or nothing
        def learned = @learned ||= { "learned" => Ledger::Lessons.new(@shop).for(engine, id: @in_force.lesson) }.compact

        # What a scope asks for, with what was learned of its engine where the shop took that.
        def request(index)
          @content.request(index, equipment: house.equipment).merge(learned)
        end

        # The whole resolved request: recomputing it gives the same cents for ever.
        def complete_request(index, sheet)
          request(index).merge(
            "rules" => NimbleLedger::Rules::NEWEST.number,
            "engine" => sheet.written.source,
            "targets" => sheet.request_targets,
            "soak" => sheet.answer.plan.soak,
            "pins" => sheet.pins,
            "house" => @content.settings.to_h,
            "catalog" => catalog.only(parts_of(sheet))
          )
        end

        # This moment on the shop's wall clock.
        def now
          local = TZInfo::Timezone.get(@shop.profile[:time_zone]).to_local(@shop.now)
          NimbleLedger::Slots::ReadyTime::Moment.new(local.to_date, (local.hour * 60) + local.min)
        end

        def parts_of(sheet) = sheet.answer.needed.rows.map(&:part)
      end
    end
  end
end
