# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  module Features
    module Jobs
      # Where a job stands by its marks: odds, money against the limit, time, what is open; and what it really took.
      class Standings
        def initialize(shop)
          @shop = shop
          @standings = {}.compare_by_identity
        end

        # @param card [Cards::Card]
        # @param fold [NimbleLedger::Card::Fold]
        # @return [NimbleLedger::Card::Standing] the same one for the same fold
        def standing(card, fold) = @standings[fold] ||= build(card, fold)

        # Hands-on minutes of each piece beside what was reckoned, and what fought back: ready for the ledger.
        # @return [Hash]
        def actuals(card, fold)
          found = standing(card, fold)
          minutes = found.hands_on.minutes
          {
            "pieces" =>
              found
                .pieces
                .reject(&:waiting)
                .map { |piece| { "id" => piece.id, "estimate" => piece.minutes, "actual" => minutes[piece.id] } },
            "trouble_minutes" => found.hands_on.trouble,
            "actual_minutes" => found.hands_on.total,
            "plugs" => fold.state["plugs"].transform_values { |plug| plug.slice("out", "read") },
            "corrected" => fold.state["corrected"]
          }
        end

        private

        def build(card, fold)
          work = card.work
          NimbleLedger::Card::Standing.new(
            work,
            fold,
            nights: nights(work),
            limit_cents: card.job[:limit_cents],
            agreed_cents: card.job[:agreed_cents],
            counted: card.counted
          )
        end

        def nights(work)
          zone = TZInfo::Timezone.get(@shop.profile[:time_zone])
          NimbleLedger::Card::Nights.new(
            work.car.house["opening_hours"],
            wall: ->(time) { zone.utc_to_local(time.getutc) },
            instant: ->(wall) { zone.local_to_utc(wall, &:first) }
          )
        end
      end
    end
  end
end
