# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # A yes that was kept by mistake is struck: it stays where it was, with who struck it and why beside it, and
      # nothing follows from it any more. The customer is told where they were written to.
      class Striking
        def initialize(shop)
          @shop = shop
        end

        # @param position [Integer] of the scope
        # @param reason [String]
        # @return [Offer] as it stands then
        # @raise [Refusal] 404 where no yes stands, 409 where work has begun on it
        def strike(offer_id, position, reason)
          @shop.transaction do
            offer = locked(offer_id)
            scope = offer.scope(position)
            raise Refusal.new(409, "no_yes", "There is no yes to this that could be struck.") unless yes?(scope)

            Feature.publish(:striking, @shop, quote_id: offer.quote[:id], others: others?(offer))
            put(offer, scope, reason)
            Feature.publish(:struck, @shop, quote_id: offer.quote[:id], reason: reason)
            deliver(offer, "struck", reason)
            settled(offer)
          end
        end

        # Every yes of a job nobody has begun.
        # @param job [Hash] row
        # @param called_off [String] id of the row of called_off_jobs
        def of_job(job, reason, called_off)
          Reading
            .new(@shop)
            .of_quote(job[:quote_id])
            .each do |offer|
              offer.scopes.select { |scope| yes?(scope) }.each { |scope| put(offer, scope, reason, called_off) }
            end
        end

        # Yeses that were struck with their job count again.
        # @param called_off [String] id of the row of called_off_jobs
        def undo(called_off)
          values = { undone_at: @shop.now, undone_by: @shop.actor.account_id }
          @shop[:struck_answers].where(called_off_id: called_off, undone_at: nil).update(values)
        end

        # Tells the customer of a job, where they were written to.
        # @param kind ["struck", "called-off"]
        def tell(job, kind, reason)
          written = Reading.new(@shop).of_quote(job[:quote_id]).find { |offer| offer.scopes.any?(&:answer) }
          deliver(written, kind, reason) if written
        end

        private

        def yes?(scope) = scope.state == "authorized"

        def locked(offer_id)
          quote_id = @shop[:offers].where(id: offer_id).get(:quote_id) or raise Refusal.not_found("offer")
          @shop[:quotes].where(id: quote_id).for_update.first
          Reading.new(@shop).find(offer_id)
        end

        # Whether something else is agreed to on the same quote.
        def others?(offer) = Answered.of(@shop, offer.quote[:id], "yes").count > 1

        def put(offer, scope, reason, called_off = nil)
          @shop.insert(
            :struck_answers,
            offer_id: offer.id,
            position: scope.position,
            reason: reason.strip,
            called_off_id: called_off
          )
          Record::ActLog.new(@shop).append(
            "yes-struck",
            offer.subject(scope),
            {
              "offer" => offer.id,
              "name" => scope.answer[:name],
              "taken_by" => taken_by(scope),
              "limit_cents" => scope.answer[:limit_cents],
              "reason" => reason.strip
            }
          )
        end

        def taken_by(scope) = @shop.db[:accounts].where(id: scope.answer[:created_by]).get(:name).to_s

        # By the way the offer went out, where there is somebody to carry it.
        def deliver(offer, kind, reason)
          return unless Outbox::Carriers.carry?(@shop, offer.row[:channel])

          wording = Wording.new(@shop, offer)
          body = wording.taken_back(kind, reason.strip)
          Outbox::Letters.new(@shop).put(offer, kind: kind, subject: wording.subject, body: body)
        end

        def settled(offer)
          Sending.new(@shop).settle(offer.quote)
          Live.tell(@shop, "quotes")
          Live.tell(@shop, "jobs")
          Reading.new(@shop).find(offer.id)
        end
      end
    end
  end
end
