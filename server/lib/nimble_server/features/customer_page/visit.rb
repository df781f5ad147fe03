# frozen_string_literal: true

module NimbleServer
  module Features
    module CustomerPage
      # One customer at one offer: looks, and answers.
      class Visit
        # What kept an answer from being taken: an HTTP status and the key of what the page says.
        Fault = Struct.new(:status, :key)

        NAME_MAX = 80
        WORDS_MAX = 500

        # @param shop [Shop] with the customer's link as its actor
        def initialize(shop, offer_id)
          @shop = shop
          @offer_id = offer_id
          @answers = Offers::Answers.new(shop)
        end

        # The page as it stands now; behind a closed link nothing of the quote.
        # @return [Sheet]
        def sheet(fault: nil)
          offer = Offers::Reading.new(@shop).find(@offer_id)
          return Sheet.instead(Documents::Texts.new(offer.row[:language]), "closed") if offer.revoked?

          Sheet.new(@shop, offer, fault: fault&.key, form: @form || {})
        end

        # A picture of the job this offer became, where the customer may see it.
        # @return [Hash, nil] row
        def picture(id)
          offer = Offers::Reading.new(@shop).find(@offer_id)
          texts = Documents::Texts.new("en")
          jobs = @shop[:jobs].where(quote_id: offer.quote[:id])
          jobs = jobs.exclude(handed_over_at: nil) unless Stopped.of(@shop, offer, texts)
          job = jobs.first
          job && !offer.revoked? ? Jobs::HandOverWords.new(@shop, job, texts).picture(id) : nil
        end

        # @return [String, nil] a calendar file of the time that is given, where one is
        def time_file
          offer = Offers::Reading.new(@shop).find(@offer_id)
          offer.revoked? ? nil : TimeWords.of(@shop, offer).file
        end

        # Notes that a person has looked; a decision it is not.
        def seen
          rows = @shop[:offers].where(id: @offer_id, seen_at: nil)
          Live.tell(@shop, "quotes") if rows.update(seen_at: @shop.now).positive?
          true
        end

        # @param form [Hash{String=>String}] "act" of yes-POSITION-LIMIT, "no" or "question"; name, reason, question
        # @return [Fault, nil]
        def take(form)
          @form = form
          case form["act"].to_s
          when /\Ayes-(\d{1,2})-(\d{1,12})\z/
            yes(Regexp.last_match(1).to_i, Regexp.last_match(2).to_i)
          when "no"
            no
          when "question"
            ask
          else
            Fault.new(422, "scope")
          end
        rescue Refusal => e
          Fault.new(e.status, { "limit_differs" => "limit", "not_found" => "scope" }.fetch(e.code, "late"))
        end

        private

        def yes(position, limit_cents)
          name = @form["name"].to_s[0, NAME_MAX]
          return Fault.new(422, "name") if name.length < 2

          @answers.take(@offer_id, said(position, "yes", name, limit_cents))
          nil
        end

        # A no is one to everything that still waits.
        def no
          offer = Offers::Reading.new(@shop).find(@offer_id)
          open = offer.scopes.select(&:open?)
          return Fault.new(409, "late") if open.empty? || offer.revoked?

          name = @form["name"].to_s[0, NAME_MAX]
          name = offer.row[:recipient] if name.empty?
          @shop.transaction { open.each { |scope| @answers.take(@offer_id, said(scope.position, "no", name, nil)) } }
          nil
        end

        def ask
          words = @form["question"].to_s[0, WORDS_MAX]
          return Fault.new(422, "question") if words.length < 2

          offer = Offers::Reading.new(@shop).find(@offer_id)
          @answers.ask(@offer_id, words, name: offer.row[:recipient])
          nil
        end

        def said(position, answer, name, limit_cents)
          Offers::Answers::Said.new(
            position: position,
            answer: answer,
            how: "link",
            name: name,
            limit_cents: limit_cents,
            reason: @form["reason"].to_s[0, WORDS_MAX]
          )
        end
      end
    end
  end
end
