# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # What the customer says to an offer: yes to one scope up to a limit, no, or a question (model.md section 14). One
      # act at a time on a quote, so that each race ends in one state.
      class Answers
        # How an answer reached the shop.
        HOW = %w[in-person phone link paper].freeze

        # What the customer says: position of the scope, "yes" or "no", how, by whom, up to what, why not.
        Said = Struct.new(:position, :answer, :how, :name, :limit_cents, :reason, keyword_init: true)

        def initialize(shop)
          @shop = shop
          @reading = Reading.new(shop)
        end

        # @param said [Said]
        # @return [Offer] as it stands then
        # @raise [Refusal] 404, 409 when it can no longer be answered or the limit is not the one offered, 422 for what
        #   does not fit
        def take(offer_id, said)
          @shop.transaction do
            offer = locked(offer_id)
            scope = offer.scope(said.position)
            refuse(offer, scope, said)
            store(offer, scope, said)
            record(offer, scope, said)
            agreed(offer, scope, said.limit_cents) if said.answer == "yes"
            Sending.new(@shop).settle(offer.quote)
            Live.tell(@shop, "quotes")
            @reading.find(offer_id)
          end
        end

        # @param words [String]
        # @return [Offer]
        def ask(offer_id, words, name:)
          @shop.transaction do
            offer = locked(offer_id)
            raise closed(offer, offer.scopes.first) unless offer.open? && !offer.revoked?

            @shop.insert(:offer_questions, offer_id: offer_id, words: words.strip)
            Record::ActLog.new(@shop).append("question", offer.subject, { "words" => words.strip, "name" => name })
            Live.tell(@shop, "quotes")
            @reading.find(offer_id)
          end
        end

        # Somebody at the shop has read the no to an offer.
        # @raise [Refusal] 404
        def read_no(offer_id)
          rows = @shop[:offers].where(id: offer_id)
          raise Refusal.not_found("offer") if rows.update(no_read_at: @shop.now).zero?

          Live.tell(@shop, "quotes")
        end

        # The shop has called or written.
        # @raise [Refusal] 404 when it is not open
        def settle_question(id)
          @shop.transaction do
            rows = @shop[:offer_questions].where(id: id, settled_at: nil)
            question = rows.first or raise Refusal.not_found("open question")
            rows.update(settled_at: @shop.now, settled_by: @shop.actor.account_id)
            offer = @reading.find(question[:offer_id])
            Record::ActLog.new(@shop).append("question-settled", offer.subject, { "words" => question[:words] })
            Live.tell(@shop, "quotes")
            offer
          end
        end

        private

        def agreed(offer, scope, limit_cents) =
          Feature.publish(:agreed, @shop, offer: offer, scope: scope, limit_cents: limit_cents)

        # The offer, with its quote held until the transaction ends.
        def locked(offer_id)
          quote_id = @shop[:offers].where(id: offer_id).get(:quote_id) or raise Refusal.not_found("offer")
          @shop[:quotes].where(id: quote_id).for_update.first
          @reading.find(offer_id)
        end

        def refuse(offer, scope, said)
          raise closed(offer, scope) unless scope.open?
          raise revoked if offer.revoked? && said.how == "link"
          return if said.answer == "no"

          if said.how == "link" && said.limit_cents != scope.limit_cents
            raise Refusal.new(409, "limit_differs", "The limit on the page is no longer the one offered.")
          end
          return unless NimbleLedger::Record::Limit.fault(said.limit_cents, scope.total_cents)

          raise Refusal.new(
                  422,
                  "limit_below_total",
                  "The limit is below the total: the work could not be done within it.",
                  details: [{ "path" => "/limit_cents", "message" => "is below the total" }]
                )
        end

        CLOSED = {
          "authorized" => "A yes to this was kept already.",
          "declined" => "A no to this was kept already.",
          "expired" => "This offer has lapsed. Send it again to have it answered.",
          "superseded" => "Something newer has taken this offer's place."
        }.freeze

        def closed(_offer, scope) =
          Refusal.new(409, scope.state, CLOSED.fetch(scope.state, "This can no longer be answered."))

        def revoked = Refusal.new(409, "revoked", "This link was closed.")

        def store(offer, scope, said)
          @shop.insert(
            :offer_answers,
            offer_id: offer.id,
            position: scope.position,
            answer: said.answer,
            how: said.how,
            name: said.name.strip,
            limit_cents: said.answer == "yes" ? said.limit_cents : nil,
            reason: said.reason.to_s.strip
          )
        end

        def record(offer, scope, said)
          Record::ActLog.new(@shop).append(
            said.answer,
            offer.subject(scope),
            {
              "offer" => offer.id,
              "title" => scope.title,
              "sealed" => sealed(offer),
              "how" => said.how,
              "name" => said.name.strip,
              "total_cents" => scope.total_cents,
              "limit_cents" => said.answer == "yes" ? said.limit_cents : scope.limit_cents,
              "reason" => said.reason.to_s.strip
            }
          )
        end

        def sealed(offer) = @shop[:quote_seals].where(revision_id: offer.revision[:id]).get(:sha256)
      end
    end
  end
end
