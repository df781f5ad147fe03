# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # Offers a saved revision to the customer: by a message with the link, read out on the phone, or on paper. What
      # was sent before and still waits is superseded by it, when the advisor says so.
      class Sending
        def initialize(shop)
          @shop = shop
          @reading = Reading.new(shop)
        end

        # @param given [Hash] see the contract, NewOffer
        # @return [Offer]
        # @raise [Refusal] 404, 409 when another offer still waits and is not to be superseded, 422 for what does not
        #   fit, with its path
        def offer(quote_id, given)
          refuse_address(given["channel"], given["address"].to_s.strip)
          @shop.transaction do
            quote = @shop[:quotes].where(id: quote_id).for_update.first or raise Refusal.not_found("quote")
            proposal = proposed(quote, given["revision"])
            refuse_incomplete(proposal)
            superseded = make_way(quote, given["supersede"])
            offer = store(proposal, given)
            record(offer, proposal, superseded)
            deliver(offer) if carried?(given["channel"])
            settle(quote)
            Live.tell(@shop, "quotes")
            offer
          end
        end

        # Closes the link; what was offered can still be agreed to in person or on the phone.
        # @return [Offer]
        def revoke(id)
          @shop.transaction do
            offer = @reading.find(id)
            @shop[:offers].where(id: id, link_revoked_at: nil).update(link_revoked_at: @shop.now)
            Record::ActLog.new(@shop).append("link-revoked", offer.subject, { "offer" => id })
            Live.tell(@shop, "quotes")
            @reading.find(id)
          end
        end

        # A quote's status follows from its offers.
        def settle(quote)
          states = @reading.of_quote(quote[:id]).reject(&:struck?).map(&:state)
          status = called_off?(quote) ? "declined" : NimbleLedger::Record::Standing.of_all(states)
          @shop[:quotes].where(id: quote[:id]).update(
            status: status == "draft" ? "open" : status,
            updated_at: @shop.now
          )
        end

        private

        # By the customer, not because a yes was a mistake.
        def called_off?(quote)
          jobs = @shop[:jobs].where(quote_id: quote[:id]).exclude(called_off_at: nil).select(:id)
          !@shop[:called_off_jobs].where(job_id: jobs, undone_at: nil, struck: false).empty?
        end

        # What is offered is what was saved last, and what the advisor has seen.
        def proposed(quote, number)
          proposal = Proposal.new(@shop, quote)
          return proposal if proposal.any? && number == quote[:latest_revision]

          details = [{ "path" => "/revision", "message" => "is not the newest saved revision" }]
          unless number < quote[:latest_revision]
            said = "Save the quote first: only what is saved can be offered."
            raise Refusal.new(422, "unknown_revision", said, details: details)
          end

          said = "Revision #{quote[:latest_revision]} was saved meanwhile. Look at it first."
          raise Refusal.new(409, "old_revision", said, details: details)
        end

        def refuse_address(channel, text)
          fault = Address.fault(channel, text) or return
          said = text.empty? ? "An address is missing." : "#{text} #{fault}."
          raise Refusal.new(422, "invalid_address", said, details: [{ "path" => "/address", "message" => fault }])
        end

        def refuse_incomplete(proposal)
          return if proposal.incomplete.empty?

          said = "#{proposal.incomplete.first} has a part without a price: its total is not the whole."
          raise Refusal.new(
                  422,
                  "incomplete_total",
                  "#{said} Set the price first, then save again.",
                  details: [{ "path" => "/revision", "message" => "has a total that is incomplete" }]
                )
        end

        # @return [Array<Offer>] those that no longer count
        def make_way(quote, agreed)
          waiting = @reading.of_quote(quote[:id]).select(&:open?)
          return [] if waiting.empty?
          raise waits(waiting.first) unless agreed

          @shop[:offers].where(id: waiting.map(&:id)).update(superseded_at: @shop.now)
          waiting
        end

        def waits(offer)
          said = "Revision #{offer.revision[:revision]} still waits for #{offer.row[:recipient]}."
          Refusal.new(
            409,
            "offer_waits",
            "#{said} Sending this one takes its place.",
            details: [{ "path" => "/supersede", "message" => "must be true to take its place" }]
          )
        end

        def store(proposal, given)
          id = SecureRandom.uuid
          @shop.insert(
            :offers,
            id: id,
            quote_id: proposal.quote[:id],
            revision_id: proposal.revision[:id],
            job_id: proposal.job && proposal.job[:id],
            recipient: given["recipient"].strip,
            channel: given["channel"],
            address: given["address"].to_s.strip,
            language: Documents::Texts.of(@shop.profile[:locale]).language,
            token_digest: CustomerToken.digest(CustomerToken.secret(id)),
            expires_at: proposal.expires_at
          )
          store_scopes(id, proposal, (given["limits"] || []).to_h { |row| [row["position"], row["limit_cents"]] })
          @reading.find(id)
        end

        def store_scopes(id, proposal, limits)
          proposal.rows.each do |row|
            limit = limits.fetch(row.position, row.limit_cents)
            refuse_limit(limit, row)
            @shop.db[:offer_scopes].insert(
              shop_id: @shop.id,
              offer_id: id,
              position: row.position,
              scope_id: row.frozen[:id],
              title: row.title,
              total_cents: row.total_cents,
              limit_cents: limit,
              agreed_before_cents: row.agreed_before_cents
            )
          end
        end

        def refuse_limit(limit, row)
          return unless NimbleLedger::Record::Limit.fault(limit, row.total_cents)

          raise Refusal.new(
                  422,
                  "limit_below_total",
                  "A limit below the total could not be kept.",
                  details: [{ "path" => "/limits/#{row.position}/limit_cents", "message" => "is below the total" }]
                )
        end

        ACTS = { "phone" => "offer-read-out", "paper" => "offer-printed" }.freeze

        def record(offer, proposal, superseded)
          book = Record::ActLog.new(@shop)
          superseded.each do |old|
            book.append("offer-superseded", old.subject, { "offer" => old.id, "by" => offer.id })
          end
          book.append(
            ACTS.fetch(offer.row[:channel], "offer-sent"),
            offer.subject,
            {
              "offer" => offer.id,
              "recipient" => offer.row[:recipient],
              "channel" => offer.row[:channel],
              "expires_at" => offer.row[:expires_at].getutc.iso8601,
              "scopes" =>
                offer.scopes.map do |scope|
                  {
                    "title" => scope.title,
                    "total_cents" => scope.total_cents,
                    "limit_cents" => scope.limit_cents,
                    "agreed_before_cents" => scope.before_cents
                  }
                end
            }
          )
          record_limits(book, offer, proposal)
        end

        # Limits that were set by hand.
        def record_limits(book, offer, proposal)
          computed = proposal.rows.to_h { |row| [row.position, row.limit_cents] }
          offer.scopes.each do |scope|
            next if computed[scope.position] == scope.limit_cents

            book.append(
              "limit-changed",
              offer.subject(scope),
              { "computed_cents" => computed[scope.position], "limit_cents" => scope.limit_cents }
            )
          end
        end

        # Where no carrier is connected the link is handed over by the advisor, and nothing is said to be sent.
        def carried?(channel) = Outbox::Carriers.carry?(@shop, channel)

        def deliver(offer)
          wording = Wording.new(@shop, offer)
          Outbox::Letters.new(@shop).put(offer, kind: "offer", subject: wording.subject, body: wording.message)
        end
      end
    end
  end
end
