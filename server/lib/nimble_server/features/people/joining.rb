# frozen_string_literal: true

module NimbleServer
  module Features
    module People
      # What somebody with a link may do: see who invites them, and join. Used, withdrawn, expired and never made are
      # one answer.
      class Joining
        # @param door [Sequel::Database] of the role nimble_door
        # @param db [Sequel::Database] of the role nimble_web
        def initialize(door, db, clock: Time)
          @door = door
          @db = db
          @clock = clock
        end

        # @return [Hash] shop, e-mail and role the link is for
        # @raise [Refusal] 404 for a link that is of no use (any more)
        def look(secret)
          row = useful(secret).first or raise useless
          shop = @door[:shops].where(id: row[:shop_id]).select(:name, :locale).first
          { "shop" => shop[:name], "email" => row[:email], "role" => row[:role] }
        end

        # Makes the account; the link is of no use afterwards.
        # @param given [Hash] see the contract, Join
        # @return [Hash] the e-mail to sign in with
        # @raise [Refusal] 404, 422 for the password, 409 when the e-mail got an account meanwhile
        def join(given)
          faults = Accounts::Password.faults(given["password"], path: "/password")
          if faults.any?
            raise Refusal.new(422, "invalid_person", faults.first["said"], details: [faults.first.except("said")])
          end

          mail = look(given["token"])["email"]
          raise useless unless joined(given)

          { "email" => mail }
        rescue Sequel::UniqueConstraintViolation
          raise Refusal.new(409, "mail_known", "This e-mail has an account already. Sign in with it.")
        end

        private

        def joined(given)
          digest = Invitations.digest(given["token"])
          hash = Accounts::Password.hash(given["password"])
          shop_id = useful(given["token"]).get(:shop_id) or return nil
          Database.within_shop(@db, shop_id) do
            shop = Shop.new(@db, shop_id, actor: Actor.system("invitation"), clock: @clock)
            shop.transaction { @db.get(Sequel.function(:join_shop, digest, given["name"].strip, hash, @clock.now)) }
          end
        end

        def useful(secret)
          now = @clock.now
          @door[:invitations]
            .where(digest: Invitations.digest(secret), used_at: nil, withdrawn_at: nil)
            .where { |row| row.expires_at > now }
        end

        def useless =
          Refusal.new(
            404,
            "useless_link",
            "This link is of no use any more: it was used, withdrawn, or is too old. Ask the shop for another."
          )
      end
    end
  end
end
