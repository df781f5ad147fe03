# frozen_string_literal: true

module NimbleServer
  module Features
    module Day
      # What a quote's work needs on the board: its segments and its time, of what was agreed where something was, else
      # of the scope the quote has in hand.
      class WorkOf
        def initialize(shop)
          @shop = shop
        end

        # @param quote [Hash] row
        # @param job [Hash, nil] row of its job
        # @param arrival ["cold", "warm", "hot"]
        # @return [Hash] "of", "title", "segments", "time", "descent", "equipment"; nil where nothing is chosen
        def to_h(quote, job, arrival)
          work, title = job ? agreed(job) : chosen(quote)
          return nil unless work

          plan = work.plan
          cooling = NimbleLedger::Time::Cooling.minutes(work.car.engine, arrival, work.car.house)
          segments = NimbleLedger::Day::Segments.of(plan.sequence.pieces, overnight: plan.overnight?, cooling: cooling)
          {
            "of" => job ? "job #{job[:updated_at].to_f}" : "quote",
            "title" => title,
            "segments" => segments,
            "time" => NimbleLedger::Day::WorkTime.of(work).rows,
            "equipment" => plan.equipment,
            "descent" => NimbleLedger::Quote::Sheet.descent(plan)
          }
        end

        private

        def agreed(job) = [Jobs::Cards.new(@shop).of(job).work, job[:title]]

        def chosen(quote)
          draft = Quotes::Drafts.new(@shop).of(quote)
          engine = Library.engine(@shop, quote[:engine_profile_id])
          content, = NimbleLedger::Quote::Content.fit(draft[:content].to_h, engine)
          pricing = Quotes::Pricing.new(@shop, quote, content)
          answer = pricing.answer or return nil

          [answer, pricing.totals[pricing.content.active].title]
        end
      end
    end
  end
end
