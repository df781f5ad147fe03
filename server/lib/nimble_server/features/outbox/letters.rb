# frozen_string_literal: true

module NimbleServer
  module Features
    module Outbox
      # Messages that wait to be carried. One offer goes to one address by one channel once, however often it is asked
      # for, and so does each kind of what is said of it later. The link is put in on the way out: at rest there is only
      # its place (LinkPlace).
      class Letters
        def initialize(shop)
          @shop = shop
        end

        # @param offer [Offers::Offer]
        # @param kind ["offer", "struck", "called-off", "reminder", "ready", "late"]
        # @param nth [Integer] which of its kind
        # @return [Boolean] whether it was not there before
        def put(offer, kind:, subject:, body:, nth: 0)
          made =
            @shop.db[:messages].insert_conflict(target: %i[shop_id offer_id channel address kind nth]).insert(
              shop_id: @shop.id,
              id: SecureRandom.uuid,
              created_by: @shop.actor.account_id,
              created_at: @shop.now,
              offer_id: offer.id,
              channel: offer.row[:channel],
              address: offer.row[:address],
              kind: kind,
              nth: nth,
              subject: subject,
              body: body,
              next_try_at: @shop.now,
              updated_at: @shop.now
            )
          @shop.db.notify("nimble_post") if made
          !made.nil?
        end

        # The message of an offer, if there is one.
        def of(offer_id) = @shop[:messages].where(offer_id: offer_id).order(Sequel.desc(:created_at)).first

        # Tries one that failed or bounced once more.
        # @raise [Refusal] 404 when there is none that needs it
        def again(offer_id)
          rows = @shop[:messages].where(offer_id: offer_id, state: %w[failed bounced])
          values = { state: "queued", problem: "", next_try_at: @shop.now, updated_at: @shop.now, tries: 0 }
          raise Refusal.not_found("message that needs another try") if rows.update(values).zero?

          @shop.db.notify("nimble_post")
          Live.tell(@shop, "quotes")
        end
      end
    end
  end
end
