# frozen_string_literal: true

module NimbleServer
  module Features
    module CalendarFiles
      # Links under which a calendar can be subscribed to, without signing in: whoever has one reads it, until it is
      # withdrawn. What is read names plates, work and the shop's own people, and no customer.
      class Feeds
        def initialize(shop)
          @shop = shop
        end

        # @param id [String] of a feed
        # @return [String] what stands in its link
        def self.secret(id) = CustomerToken.secret("calendar feed #{id}")

        def self.url(id) = "#{CustomerToken.outside}/calendar/#{secret(id)}.ics"

        # @return [Hash] see the contract, CalendarFeeds
        def to_h = { "feeds" => rows.map { |row| shown(row) } }

        # @param person [Integer, nil] whose; nil: the whole shop's
        # @raise [Refusal] 404 for nobody, 409 where there is one
        def make(person)
          raise Refusal.not_found("person") if person && names[person].nil?
          if standing.where(person_id: person).any?
            raise Refusal.new(409, "feed_there", "There is a link for this already.")
          end

          id = SecureRandom.uuid
          digest = CustomerToken.digest(Feeds.secret(id))
          @shop.insert(:calendar_feeds, id: id, person_id: person, digest: digest)
          to_h
        end

        # The link opens nothing any more.
        # @raise [Refusal] 404
        def withdraw(id)
          found = standing.where(id: id).update(withdrawn_at: @shop.now)
          raise Refusal.not_found("link") if found.zero?

          to_h
        end

        # @return [String] the calendar file
        def file(id)
          row = @shop[:calendar_feeds].where(id: id).first
          whose = row[:person_id] && names[row[:person_id]]
          file = IcsFile.new(@shop.profile[:time_zone], name: [@shop.profile[:name], whose].compact.join(", "))
          jobs(row[:person_id]).each { |job| add(file, job, whose) }
          absences(row[:person_id]).each_with_index { |one, i| away(file, one, i) }
          file.to_s
        end

        private

        def standing = @shop[:calendar_feeds].where(withdrawn_at: nil)
        def rows = standing.order(:created_at).all
        def names = @names ||= @shop[:accounts].where(status_id: 2).select_hash(:id, :name)
        def day = @day ||= Day::DayPage.new(@shop).to_h
        def jobs(person) = day["jobs"].select { |job| person.nil? || job["person"] == person }
        def absences(person) =
          Day::Calendar.new(@shop).to_h["away"].select { |one| [nil, one["person"]].include?(person) }

        def shown(row)
          person = row[:person_id]
          { "id" => row[:id], "person" => person, "name" => names[person], "url" => Feeds.url(row[:id]) }
        end

        # From where it will be begun to where it will most likely be over.
        def add(file, job, whose)
          course = job["course"]
          return if course.empty?

          clock = NimbleLedger::WallClock.new(day["now"])
          from, to = [course.first["from"], course.last["to"]].map { |minutes| clock.text(minutes) }
          summary = [job["plate"], job["title"], whose ? nil : names[job["person"]]].compact.join(" · ")
          file.add("job-#{job["id"]}", from: from, to: to, summary: summary, description: "Quote #{job["number"]}")
        end

        def away(file, absence, index)
          summary = [names[absence["person"]], absence["why"]].reject { |text| text.to_s.empty? }.join(": ")
          file.add("away-#{index}-#{absence["from"]}", from: absence["from"], to: absence["to"], summary: summary)
        end
      end
    end
  end
end
