# frozen_string_literal: true

module NimbleServer
  module Features
    module Setup
      # Opens the first shop: its owner, how it writes and measures, its rate and tax; an empty garage and price list.
      class Opening
        # @param door [Sequel::Database] of the role nimble_door
        # @param db [Sequel::Database] of the role nimble_web
        def initialize(door, db, clock: Time)
          @door = door
          @db = db
          @clock = clock
        end

        # @return [Boolean] whether this server has no shop yet
        def due? = !@door.get(Sequel.function(:any_shop))

        # @param given [Hash] see the contract, NewShop
        # @return [Hash] the owner's e-mail, to sign in with
        # @raise [Refusal] 409 when there is a shop already, 422 for what does not fit, with its path
        def open(given)
          shop, owner = given.values_at("shop", "owner")
          faults = [*place_faults(shop), *Accounts::Password.faults(owner["password"], path: "/owner/password")]
          raise Refusal.new(422, "invalid_shop", said(faults.first), details: plain(faults)) if faults.any?

          raise already unless opened(shop, owner, figures(given))
          { "email" => owner["email"] }
        end

        private

        def opened(shop, owner, figures)
          keys = owner.slice("name", "email").transform_values(&:strip)
          keys["password_hash"] = Accounts::Password.hash(owner["password"])
          made = SecureRandom.uuid
          Database.within_shop(@db, made) do
            new_shop = Shop.new(@db, made, actor: Actor.system("first-run"), clock: @clock)
            new_shop.transaction { @db.get(opening(made, shop, keys, figures)) }
          end
        end

        def opening(made, shop, keys, figures)
          Sequel.function(
            :open_shop,
            Sequel.cast(made, :uuid),
            Sequel.pg_jsonb(shop.merge("name" => shop["name"].strip)),
            Sequel.pg_jsonb(keys),
            Sequel.pg_jsonb(figures),
            @clock.now
          )
        end

        # The house figures that are this shop's own from the first day.
        def figures(given)
          currency = given["shop"]["currency"]
          own = {
            "rate_cents" => given["rate_cents"],
            "currency" => currency,
            "currency_exponent" => Currencies.exponent(currency),
            "taxes" => [given["tax"]].compact
          }
          NimbleLedger::House::Settings.defaults.with(own, path: "")
          own
        end

        def place_faults(shop)
          faults = ShopDetails::Details.faults(shop, path: "/shop")
          return faults if Currencies.known?(shop["currency"])

          faults + [{ "path" => "/shop/currency", "message" => "is no currency in use" }]
        end

        def said(fault) = fault["said"] || "#{fault["path"]} #{fault["message"]}."
        def plain(faults) = faults.map { |row| row.slice("path", "message") }

        def already =
          Refusal.new(409, "shop_there", "This server has its shop already. Sign in, or ask its owner to invite you.")
      end
    end
  end
end
