# frozen_string_literal: true

module NimbleServer
  module Features
    module TheYes
      # "The yes" of a quote as the advisor sees it: what can be offered, what was, to whom, up to what, and where it
      # stands.
      class Page
        def initialize(shop)
          @shop = shop
          @reading = Offers::Reading.new(shop)
        end

        # @return [Hash] see the contract, YesPage
        def of(quote_id)
          quote = @shop[:quotes].where(id: quote_id).first or raise Refusal.not_found("quote")
          vehicle = Vehicles::Garage.new(@shop).find(quote[:vehicle_id])
          {
            "quote" => Quotes::Rows.quote(quote),
            "vehicle" => Vehicles::Garage.card(vehicle, @shop.now),
            "wishes" => vehicle[:customer_wishes],
            "provisional" => Library.engine(@shop, quote[:engine_profile_id]).provisional?,
            "proposal" => proposal(quote),
            "offers" => @reading.of_quote(quote_id).map { |offer| shown(offer) },
            "job" => job(quote_id)
          }
        end

        # The page as the customer sees it: of the newest offer that was made of the newest revision, else of what would
        # be offered.
        # @return [String] HTML
        def preview(quote_id, nonce:)
          quote = @shop[:quotes].where(id: quote_id).first or raise Refusal.not_found("quote")
          proposal = Offers::Proposal.new(@shop, quote)
          raise Refusal.not_found("saved revision") unless proposal.any?

          made = @reading.of_quote(quote_id).find { |offer| offer.revision[:id] == proposal.revision[:id] }
          owner = Vehicles::Garage.new(@shop).find(quote[:vehicle_id])[:customer_name]
          CustomerPage::Sheet.new(@shop, made || proposal.as_offer(owner.to_s)).html(nonce: nonce)
        end

        # @param offer [Offers::Offer]
        # @return [Hash] see the contract, Offer
        def shown(offer)
          wording = Offers::Wording.new(@shop, offer)
          facts(offer).merge(
            "until" => offer.row[:expires_at].iso8601,
            "greeting" =>
              wording.texts.say(
                "phone.greeting",
                name: offer.row[:recipient],
                shop: @shop.profile[:name],
                car: wording.vehicle[:description]
              ),
            "scopes" => wording.scopes.map { |words| scope(words) },
            "questions" => offer.questions.map { |row| question(row) },
            "message" => message(offer),
            "link" => offer.revoked? || @shop.actor.role == "technician" ? nil : CustomerToken.url(offer.id)
          )
        end

        private

        # What could be offered now, nothing sent yet.
        def proposal(quote)
          proposal = Offers::Proposal.new(@shop, quote)
          return nil unless proposal.any?

          {
            "revision" => proposal.revision[:revision],
            "currency" => proposal.revision[:currency],
            "scopes" =>
              proposal.rows.map do |row|
                row
                  .to_h
                  .slice(:position, :title, :total_cents, :limit_cents)
                  .transform_keys(&:to_s)
                  .merge("incomplete" => row.incomplete?)
              end
          }
        end

        def facts(offer)
          {
            "id" => offer.id,
            "revision" => offer.revision[:revision],
            "recipient" => offer.row[:recipient],
            "channel" => offer.row[:channel],
            "address" => offer.row[:address],
            "sent_at" => offer.row[:created_at].iso8601,
            "by" => account(offer.row[:created_by]),
            "seen_at" => offer.row[:seen_at]&.iso8601,
            "revoked_at" => offer.row[:link_revoked_at]&.iso8601,
            "supplement" => offer.supplement?,
            "state" => offer.state
          }
        end

        def scope(words)
          scope = words.scope
          {
            "position" => scope.position,
            "title" => words.title,
            "total_cents" => scope.total_cents,
            "limit_cents" => scope.limit_cents,
            "before_cents" => scope.before_cents,
            "state" => scope.state,
            "spoken" => words.spoken,
            "answer" => scope.answer && answer(scope.answer),
            "struck" => scope.struck && struck(scope.struck)
          }
        end

        def struck(row) =
          { "reason" => row[:reason], "at" => row[:created_at].iso8601, "by" => account(row[:created_by]) }

        def account(id) = @shop.db[:accounts].where(id: id).get(:name)

        def answer(row)
          {
            "answer" => row[:answer],
            "how" => row[:how],
            "name" => row[:name],
            "limit_cents" => row[:limit_cents],
            "reason" => row[:reason],
            "at" => row[:created_at].iso8601,
            "taken_by" => row[:created_by] && account(row[:created_by])
          }
        end

        def question(row)
          {
            "id" => row[:id],
            "words" => row[:words],
            "at" => row[:created_at].iso8601,
            "open" => row[:settled_at].nil?
          }
        end

        def message(offer)
          row = Outbox::Letters.new(@shop).of(offer.id) or return nil
          {
            "channel" => row[:channel],
            "address" => row[:address],
            "body" => Outbox::LinkPlace.fill(row[:body], "…/y/…"),
            "state" => row[:state],
            "problem" => row[:problem],
            "at" => row[:updated_at].iso8601
          }
        end

        def job(quote_id)
          row = @shop[:jobs].where(quote_id: quote_id).first
          row &&
            Jobs::Row.shown(row).merge(
              "called_off" => called_off(row),
              "begun" => !row[:started_at].nil?,
              "handed_over" => !row[:handed_over_at].nil?
            )
        end

        def called_off(job)
          row = job[:called_off_at] && Jobs::CallingOff.new(@shop).called_off(job) or return nil
          struck(row).merge("struck" => row[:struck])
        end
      end
    end
  end
end
