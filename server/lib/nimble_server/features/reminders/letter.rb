# frozen_string_literal: true

module NimbleServer
  module Features
    module Reminders
      # One letter about a time, by the way the offer went out that was agreed to; where the house lets it go out by
      # itself.
      class Letter
        # The house figure by which each goes out.
        RULES = { "reminder" => "remind_day_before", "ready" => "tell_ready", "late" => "tell_late" }.freeze

        def initialize(shop)
          @shop = shop
        end

        # @param kind ["reminder", "ready", "late"]
        # @param nth [Integer] which of its kind: each goes out once
        # @return [Boolean] whether it goes out now
        def tell(quote_id, kind, nth: 0)
          return false unless HouseRules::House.new(@shop).settings[RULES.fetch(kind)]

          offer = agreed(quote_id) or return false
          booked = Day::Promises.booked(@shop, quote_id)
          return false unless kind == "ready" || booked

          wording = Offers::Wording.new(@shop, offer)
          body = wording.of_time(variant(kind, booked), arrives: booked&.arrives, ready: booked&.pick_up)
          Outbox::Letters.new(@shop).put(offer, kind: kind, nth: nth, subject: wording.time_subject, body: body)
        end

        private

        # The newest offer with a yes that somebody can be written to about.
        def agreed(quote_id)
          offers = Offers::Reading.new(@shop).of_quote(quote_id)
          offers.find do |offer|
            offer.scopes.any? { |scope| scope.state == "authorized" } && !offer.revoked? &&
              Outbox::Carriers.carry?(@shop, offer.row[:channel])
          end
        end

        # Nothing is said of a time that was not promised.
        def variant(kind, booked) = kind != "ready" && booked.pick_up.nil? ? "#{kind}_open" : kind
      end
    end
  end
end
