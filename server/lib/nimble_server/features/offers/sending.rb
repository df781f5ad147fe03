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
          @shop.transaction do
            quote = @shop[:quotes].where(id: quote_id).for_update.first or raise Refusal.not_found("quote")
            revision = saved(quote, given["revision"])
            job = @shop[:jobs].where(quote_id: quote_id).first
            superseded = make_way(quote, given["supersede"], revision)
            offer = store(quote, revision, given, job)
            record(offer, given, superseded)
            deliver(offer) if %w[text mail].include?(given["channel"])
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
            Record::Book.new(@shop).append("link-revoked", offer.subject, { "offer" => id })
            Live.tell(@shop, "quotes")
            @reading.find(id)
          end
        end

        # A quote's status follows from its offers.
        def settle(quote)
          states = @reading.of_quote(quote[:id]).map(&:state)
          status = NimbleLedger::Record::Standing.of_all(states)
          @shop[:quotes].where(id: quote[:id]).update(
            status: status == "draft" ? "open" : status,
            updated_at: @shop.now
          )
        end

        private

        def saved(quote, number)
          row = @shop[:quote_revisions].where(quote_id: quote[:id], revision: number).first
          return row if row && number == quote[:latest_revision]

          raise Refusal.new(
                  row ? 409 : 422,
                  row ? "old_revision" : "unknown_revision",
                  row ? "Revision #{quote[:latest_revision]} was saved meanwhile. Look at it first." : "Save the quote first: only what is saved can be offered.",
                  details: [{ "path" => "/revision", "message" => "is not the newest saved revision" }]
                )
        end

        # @return [Array<Offer>] those that no longer count
        def make_way(quote, agreed, _revision)
          waiting = @reading.of_quote(quote[:id]).select(&:open?)
          return [] if waiting.empty?
          raise waits(waiting.first) unless agreed

          @shop[:offers].where(id: waiting.map(&:id)).update(superseded_at: @shop.now)
          waiting
        end

        def waits(offer)
          Refusal.new(
            409,
            "offer_waits",
            "Revision #{offer.revision[:revision]} still waits for #{offer.row[:recipient]}. Sending this one takes its place.",
            details: [{ "path" => "/supersede", "message" => "must be true to take its place" }]
          )
        end

        def store(quote, revision, given, job)
          id = SecureRandom.uuid
          @shop.insert(
            :offers,
            id: id,
            quote_id: quote[:id],
            revision_id: revision[:id],
            job_id: job && job[:id],
            recipient: given["recipient"].strip,
            channel: given["channel"],
            address: given["address"].to_s.strip,
            language: Documents::Texts.of(@shop.profile[:locale]).language,
            token_digest: Link.digest(Link.secret(id)),
            expires_at: @shop.now + (HouseRules::House.new(@shop).settings["quote_days"] * 86_400)
          )
          store_scopes(id, revision, given, job)
          @reading.find(id)
        end

        def store_scopes(id, revision, given, job)
          house = HouseRules::House.new(@shop).settings
          limits = (given["limits"] || []).to_h { |row| [row["position"], row["limit_cents"]] }
          @shop[:quote_scopes]
            .where(revision_id: revision[:id])
            .order(:position)
            .each do |scope|
              offered = NimbleLedger::Record::Limit.offered(scope[:answer].to_h, scope[:page].to_h, house)
              limit = limits.fetch(scope[:position], offered)
              refuse_limit(limit, scope)
              @shop.db[:offer_scopes].insert(
                shop_id: @shop.id,
                offer_id: id,
                position: scope[:position],
                scope_id: scope[:id],
                title: scope[:name].empty? ? scope[:page].to_h["title"].to_s : scope[:name],
                total_cents: scope[:total_cents],
                limit_cents: limit,
                agreed_before_cents: job ? job[:agreed_cents] : 0
              )
            end
        end

        def refuse_limit(limit, scope)
          return unless NimbleLedger::Record::Limit.fault(limit, scope[:total_cents])

          raise Refusal.new(
                  422,
                  "limit_below_total",
                  "A limit below the total could not be kept.",
                  details: [
                    { "path" => "/limits/#{scope[:position]}/limit_cents", "message" => "is below the total" }
                  ]
                )
        end

        ACTS = { "phone" => "offer-read-out", "paper" => "offer-printed" }.freeze

        def record(offer, given, superseded)
          book = Record::Book.new(@shop)
          superseded.each do |old|
            book.append("offer-superseded", old.subject, { "offer" => old.id, "by" => offer.id })
          end
          book.append(
            ACTS.fetch(given["channel"], "offer-sent"),
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
          record_limits(book, offer)
        end

        # Limits that were set by hand.
        def record_limits(book, offer)
          house = HouseRules::House.new(@shop).settings
          offer.scopes.each do |scope|
            offered = NimbleLedger::Record::Limit.offered(scope.estimate, scope.page, house)
            next if offered == scope.limit_cents

            book.append(
              "limit-changed",
              offer.subject(scope),
              { "computed_cents" => offered, "limit_cents" => scope.limit_cents }
            )
          end
        end

        def deliver(offer)
          wording = Wording.new(@shop, offer)
          Outbox::Letters.new(@shop).put(offer, subject: wording.subject, body: wording.message)
        end
      end
    end
  end
end
