# frozen_string_literal: true

require "rack"

module NimbleServer
  module Features
    module CalendarFiles
      # Adds: GET /calendar/LINK.ics, which programs ask for without a session. It stands before the session.
      class FeedPage
        ADDRESS = %r{\A/calendar/([A-Za-z0-9_-]{43})\.ics\z}

        # @param db [Sequel::Database] of the role nimble_web
        # @param door [Sequel::Database] of the role nimble_door: which shop a link belongs to
        def initialize(app, db:, door:, clock: Time)
          @app = app
          @db = db
          @door = door
          @clock = clock
        end

        def call(env)
          found = env["PATH_INFO"].match(ADDRESS) or return @app.call(env)
          env["sinatra.route"] = "GET /calendar/:link"
          unless %w[GET HEAD].include?(env["REQUEST_METHOD"])
            return 405, { "content-type" => "text/plain" }, ["Only GET here."]
          end

          row = @door.from(Sequel.function(:feed_of_link, CustomerToken.digest(found[1]))).first
          return 404, { "content-type" => "text/plain" }, ["There is no calendar here."] unless row

          env["nimble.shop"] = row[:shop_id]
          [200, { "content-type" => IcsFile::TYPE, "cache-control" => "private, max-age=60" }, [file(row)]]
        end

        private

        def file(row)
          Database.within_shop(@db, row[:shop_id]) do
            Feeds.new(Shop.new(@db, row[:shop_id], actor: Actor.system("calendar"), clock: @clock)).file(row[:id])
          end
        end
      end
    end
  end
end
