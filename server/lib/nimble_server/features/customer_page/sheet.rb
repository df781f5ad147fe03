# frozen_string_literal: true

require "erubi"

module NimbleServer
  module Features
    module CustomerPage
      # What the customer reads: one page, useful without scripts, in the language the offer was made in. All text is
      # escaped by the template.
      class Sheet
        VIEWS = File.join(ROOT, "server/views")
        STYLE = File.read(File.join(VIEWS, "customer.css"))

        # A template as Ruby, escaping what is put into it.
        def self.template(file) = Erubi::Engine.new(File.read(File.join(VIEWS, file)), escape: true, freeze: true).src
        private_class_method :template

        OFFER = template("offer.erb").freeze
        GONE = template("gone.erb").freeze
        private_constant :OFFER, :GONE

        # In place of a page that is not there, or cannot be shown just now.
        # @param texts [Documents::Texts]
        # @param why ["gone", "away", "busy", "closed"]
        def self.instead(texts, why) = allocate.tap { |sheet| sheet.send(:only, texts, why) }

        # @param offer [Offers::Offer]
        # @param fault [String, nil] key of what is to be said first
        # @param form [Hash] what was typed, so that nothing is lost
        def initialize(shop, offer, fault: nil, form: {})
          @shop = shop
          @offer = offer
          @fault = fault
          @form = form
          @wording = Offers::Wording.new(shop, offer)
          @texts = @wording.texts
        end

        # @param nonce [String] of this answer's policy, for the style
        # @return [String]
        def html(nonce:)
          @nonce = nonce
          instance_eval(@offer ? OFFER : GONE, __FILE__, __LINE__) # our own templates, nothing from outside
        end

        private

        attr_reader :offer, :wording, :fault, :form, :nonce

        def only(texts, why)
          @texts = texts
          @why = why
        end

        def say(key, **values) = @texts.say("page.#{key}", **values)
        def language = @texts.language
        def scopes = wording.scopes

        # Those that can be answered here and now.
        def open_scopes = scopes.select { |words| words.scope.open? }

        # The scope that is chosen: what was, before something else was asked for; else the first.
        def chosen
          at = form["choice"].to_s[/\A\d{1,2}\z/]&.to_i
          (at && open_scopes.find { |words| words == scopes[at] }) || open_scopes.first
        end

        # The scope the page tells about: what was agreed to, else the first.
        def told = scopes.find { |words| words.scope.state == "authorized" } || open_scopes.first || scopes.first

        # What can be chosen now, or what was: each with its own odds.
        def offered = open_scopes.empty? ? [told] : open_scopes

        # Who the page is from.
        # @return [Hash] see HouseRules::Letterhead
        def letterhead = @letterhead ||= HouseRules::Letterhead.of(@shop)

        # When plugs are due again, where one of the scopes changes any.
        def next_due = offered.filter_map(&:next_due).first

        def descent(words) =
          Documents::DescentSVG.new(words.scope.page["descent"], label: say("why.drawing", minutes: words.way)).to_s

        # What stands of the offer, in sentences; none while it waits.
        # @return [Array<String>]
        def stands
          answered = scopes.select { |words| words.scope.answer }.map { |words| answered(words) }
          return [*answered, called_off].compact if answered.any?
          return [] if offer.open?

          [say("stands.#{offer.state}", until: wording.until_day)]
        end

        # That the work was called off, and what of it stays agreed.
        # @return [String, nil]
        def called_off
          job = @shop[:jobs].where(quote_id: offer.quote[:id]).exclude(called_off_at: nil).first or return
          row = Jobs::CallingOff.new(@shop).called_off(job)
          return if row[:struck]

          values = { at: wording.money.date(row[:created_at]), reason: row[:reason] }
          say(job[:started_at] ? "stands.called_off_begun" : "stands.called_off", **values)
        end

        def answered(words)
          answer = words.scope.answer
          values = { title: words.title, at: wording.money.date(answer[:created_at]) }
          return say("stands.declined", **values) if answer[:answer] == "no"

          struck = words.scope.struck
          return say("stands.struck", reason: struck[:reason], **values) if struck && struck[:called_off_id].nil?

          limit = wording.money.full(answer[:limit_cents])
          say("stands.authorized_by", name: answer[:name], limit: limit, **values)
        end

        # What is known to be wrong with the car at the cylinders of the work.
        # @return [Array<String>]
        def findings
          numbers = offer.revision[:content].to_h["scopes"].flat_map { |scope| scope["cylinders"] }
          rows = Vehicles::Findings.new(@shop).of(offer.quote[:vehicle_id])
          rows.select { |row| row["cylinder"].nil? || numbers.include?(row["cylinder"]) }.map { |row| finding(row) }
        end

        def finding(row)
          what = say("finding.#{row["kind"]}", words: row["words"])
          row["cylinder"] ? say("finding.at", what: what, cylinder: row["cylinder"]) : what
        end

        # What was done and found, once the car was handed over.
        # @return [Jobs::HandOverWords, nil]
        def told_of_job
          return @told_of_job if defined?(@told_of_job)

          job = @shop[:jobs].where(quote_id: offer.quote[:id]).exclude(handed_over_at: nil).first
          @told_of_job = job && Jobs::HandOverWords.new(@shop, job, @texts)
        end

        # @return [TimeWords]
        def times = @times ||= TimeWords.new(@shop, offer, wording, told)

        # What happened, where the offer asks how to go on after trouble.
        # @return [Stopped, nil]
        def stopped
          return @stopped if defined?(@stopped)

          @stopped = Stopped.of(@shop, offer, @texts)
        end

        # Where this page is: pictures stand below it.
        def address = URI(CustomerToken.url(offer.id)).path

        def codes? = offer.revision[:content].to_h["codes"] == true

        def head = Record::ActLog.new(@shop).head

        def font =
          @font ||= Dir[File.join(Pages::DIST, "assets/*next-latin-wght*.woff2")].map { |f| File.basename(f) }.first
      end
    end
  end
end
