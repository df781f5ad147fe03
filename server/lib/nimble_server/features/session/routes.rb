# frozen_string_literal: true

module NimbleServer
  module Features
    module Session
      # Who is signed in, with the token that writes must carry. Adds: GET
      # /api/session, GET /api/health.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/health", role: :anyone) do
            db.get(1)
            { "ok" => true }
          end

          app.api(:get, "/api/session", role: :anyone) do
            token = Rack::Protection::AuthenticityToken.token(env["rack.session"])
            unless account
              due = Setup::Opening.new(settings.door, db).due?
              next { "csrf" => token, "account" => nil, "shop" => nil, "first_run" => due }
            end

            house = HouseRules::House.new(shop).settings
            profile = shop.profile
            {
              "csrf" => token,
              "first_run" => false,
              "account" => account.slice(:id, :name, :email, :role).transform_keys(&:to_s),
              "shop" => {
                "name" => profile[:name],
                "locale" => profile[:locale],
                "distance_unit" => profile[:distance_unit],
                "time_zone" => profile[:time_zone],
                "currency" => house["currency"],
                "currency_exponent" => house["currency_exponent"],
                "paper" => profile[:paper],
                "stand_ins" => shop.stand_ins?,
                "mail_server" => Outbox::MailServer.set?,
                "links_reach" => CustomerToken.reachable?
              }
            }
          end
        end
      end
    end
  end
end
