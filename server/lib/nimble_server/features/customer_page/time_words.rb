# frozen_string_literal: true

module NimbleServer
  module Features
    module CustomerPage
      # What the page says of time, as it is now: when to bring the car, when it is ready, that it is; and since when
      # that stands.
      class TimeWords
        # What is said beside whatever else an offer's page tells.
        def self.of(shop, offer)
          wording = Offers::Wording.new(shop, offer)
          new(shop, offer, wording, wording.scopes.first)
        end

        # @param wording [Offers::Wording]
        # @param told [Offers::ScopeWords] what the page tells about
        def initialize(shop, offer, wording, told)
          @shop = shop
          @offer = offer
          @wording = wording
          @told = told
        end

        # @return [Array<String>] sentences; none once it was handed over, or where no time is given
        def said
          return [] if handed_over?
          return [say("done")] if done?
          return [] unless booked

          [@told.bring && say("bring", bring: @told.bring), ready && say("ready", ready: ready)].compact
        end

        # @return [String, nil]
        def since
          return nil if said.empty? || done?

          text = @wording.money
          say("since", since: text.moment(text.wall(booked.since).strftime("%Y-%m-%dT%H:%M")))
        end

        # @return [Boolean] whether there is something to put into a calendar
        def file? = !since.nil? && !booked.pick_up.nil?

        # From bringing it to fetching it, as a calendar file.
        # @return [String, nil]
        def file
          return nil unless file?

          profile = @shop.profile
          title = @wording.texts.say("page.time.title", car: @wording.car, shop: profile[:name])
          calendar = CalendarFiles::IcsFile.new(profile[:time_zone], name: profile[:name])
          calendar.add("offer-#{@offer.id}", from: booked.arrives, to: booked.pick_up, summary: title).to_s
        end

        private

        def say(key, **values) = @wording.texts.say("page.time.#{key}", **values)
        def booked = @told.booked
        def ready = @told.ready
        def job = @job ||= @shop[:jobs].where(quote_id: @offer.quote[:id], called_off_at: nil).first || {}
        def handed_over? = !job[:handed_over_at].nil?
        def done? = !job[:finished_at].nil?
      end
    end
  end
end
