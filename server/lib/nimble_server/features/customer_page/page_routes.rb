# frozen_string_literal: true

require "rack"

module NimbleServer
  module Features
    module CustomerPage
      # The page a customer opens by a secret link: GET shows where the offer stands and decides nothing; POST takes a
      # yes, a no or a question. Adds: GET and POST /y/LINK, POST /y/LINK/seen, GET /y/LINK/time.ics. It stands before
      # the session. An answer is the customer's: one from a browser in which somebody of a shop is signed in is
      # refused.
      class PageRoutes
        ADDRESS = %r{\A/y/([A-Za-z0-9_-]{43})(?:(/seen)|/p/(\h{8}-\h{4}-\h{4}-\h{4}-\h{12})|(/time\.ics))?\z}
        LARGEST = 8_000 # bytes of a form

        # @param db [Sequel::Database] of the role nimble_web
        # @param door [Sequel::Database] of the role nimble_door: which shop a link belongs to
        # @param staff [#call] whether a request's browser is signed in to a shop
        def initialize(app, db:, door:, staff:, clock: Time)
          @app = app
          @db = db
          @door = door
          @staff = staff
          @clock = clock
        end

        def call(env)
          return @app.call(env) unless env["PATH_INFO"].start_with?("/y/")

          env["sinatra.route"] = "#{env["REQUEST_METHOD"]} /y/:link"
          answer(Rack::Request.new(env))
        end

        # In place of a page that cannot be shown just now.
        def self.away(env) = instead(env, 503, "away")

        # Too many tries from one address.
        def self.busy(env) = instead(env, 429, "busy")

        def self.instead(env, status, why)
          texts = Documents::Texts.of(env["HTTP_ACCEPT_LANGUAGE"].to_s[0, 2].downcase)
          html = Sheet.instead(texts, why).html(nonce: env["nimble.nonce"])
          [status, { "content-type" => "text/html; charset=utf-8", "retry-after" => "60" }, [html]]
        end
        private_class_method :instead

        private

        def answer(request)
          found = request.path_info.match(ADDRESS)
          row = found && @door.from(Sequel.function(:offer_of_link, CustomerToken.digest(found[1]))).first
          return page(404, Sheet.instead(texts(request.env), "gone"), request.env) unless row

          request.env["nimble.shop"] = row[:shop_id]
          Database.within_shop(@db, row[:shop_id]) do
            visit = Visit.new(shop_of(row, request), row[:id])
            next picture(visit, found[3], request) if found[3]
            next time_file(visit, request) if found[4]

            act(request, visit, seen: found[2])
          end
        end

        def shop_of(row, _request) = Shop.new(@db, row[:shop_id], actor: Actor.customer_link(row[:id]), clock: @clock)

        def act(request, visit, seen:)
          return looked(visit, request) if seen && request.post?
          return page(200, visit.sheet, request.env) if request.get? || request.head?
          return 405, { "content-type" => "text/plain" }, ["Only GET and POST here."] unless request.post?
          return 413, { "content-type" => "text/plain" }, ["Too long."] if request.content_length.to_i > LARGEST

          fault = @staff.call(request.env) ? Visit::Fault.new(403, "staff") : visit.take(form(request))
          return 303, { "location" => request.path_info }, [] unless fault

          page(fault.status, visit.sheet(fault: fault), request.env)
        end

        def looked(visit, request)
          visit.seen unless @staff.call(request.env)
          [204, {}, []]
        end

        # A picture the shop lets the customer see, of a job that was handed over.
        def picture(visit, id, request)
          row = request.get? ? visit.picture(id) : nil
          return page(404, Sheet.instead(texts(request.env), "gone"), request.env) unless row

          [200, { "content-type" => row[:type] }, [row[:bytes].to_s]]
        end

        # When the car is to come and when it is ready, for the customer's own calendar.
        def time_file(visit, request)
          file = request.get? ? visit.time_file : nil
          return page(404, Sheet.instead(texts(request.env), "gone"), request.env) unless file

          head = { "content-type" => CalendarFiles::IcsFile::TYPE, "cache-control" => "no-store" }
          [200, head.merge("content-disposition" => 'attachment; filename="time.ics"'), [file]]
        end

        # Fields of a plain form, as text.
        def form(request)
          body = request.body.read(LARGEST + 1).to_s
          body = body.force_encoding(Encoding::UTF_8)
          return {} unless body.valid_encoding? && body.bytesize <= LARGEST

          URI.decode_www_form(body).to_h.transform_values { |text| clean(text) }
        rescue ArgumentError
          {}
        end

        def clean(text) = text.scrub("").gsub(/[[:cntrl:]&&[^\n]]/, " ").strip

        def texts(env) = Documents::Texts.of(env["HTTP_ACCEPT_LANGUAGE"].to_s[0, 2].downcase)

        def page(status, sheet, env)
          [status, { "content-type" => "text/html; charset=utf-8" }, [sheet.html(nonce: env["nimble.nonce"])]]
        end
      end
    end
  end
end
