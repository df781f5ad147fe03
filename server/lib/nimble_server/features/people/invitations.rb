# frozen_string_literal: true

require "digest"

module NimbleServer
  module Features
    module People
      # One-time links by which people join a shop. Only a digest of the secret is kept: the link is shown once.
      class Invitations
        DAYS = 7

        def initialize(shop)
          @shop = shop
        end

        # @param given [Hash] see the contract, NewInvitation
        # @return [Hash] the invitation, with the address of its page, shown this once
        # @raise [Refusal] 409 when the e-mail has an account already
        def invite(given)
          mail = given["email"].strip
          raise known(mail) if @shop.db[:accounts].where(email: mail).select(:id).any?

          secret = SecureRandom.urlsafe_base64(32)
          id =
            @shop.insert(
              :invitations,
              email: mail,
              role: given["role"],
              digest: Invitations.digest(secret),
              expires_at: @shop.now + (DAYS * 86_400)
            )
          Invitations.row(@shop[:invitations].where(id: id).first).merge("link" => "/join##{secret}")
        end

        # @raise [Refusal] 404 when there is none open with this id
        def withdraw(id)
          @shop.transaction do
            raise Refusal.not_found("invitation") if waiting.where(id: id).update(withdrawn_at: @shop.now).zero?
          end
        end

        # @return [Array<Hash>] rows nobody has used yet, newest first
        def open = waiting.where { |row| row.expires_at > @shop.now }.order(Sequel.desc(:created_at), :id).all

        def self.digest(secret) = Digest::SHA256.hexdigest(secret.to_s)

        def self.row(row) =
          { "id" => row[:id], "email" => row[:email], "role" => row[:role], "expires_at" => row[:expires_at].iso8601 }

        private

        def waiting = @shop[:invitations].where(used_at: nil, withdrawn_at: nil)

        def known(mail) =
          Refusal.new(
            409,
            "mail_known",
            "#{mail} has an account already.",
            details: [{ "path" => "/email", "message" => "has an account already" }]
          )
      end
    end
  end
end
