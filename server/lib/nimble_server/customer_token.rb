# frozen_string_literal: true

require "base64"
require "digest"
require "openssl"

module NimbleServer
  # The secret by which a customer opens one offer. It follows from the offer's id and a key outside the database,
  # so that it need not be kept: the database holds its digest only.
  #
  #   CustomerToken.secret(offer_id)          #=> "x7Ff…", 43 characters
  #   CustomerToken.digest(CustomerToken.secret(id))   #=> what stands in the offer's row
  module CustomerToken
    VARIABLE = "LINK_SECRET"
    SHAPE = /\A[A-Za-z0-9_-]{43}\z/

    module_function

    def secret(offer_id) =
      Base64.urlsafe_encode64(OpenSSL::HMAC.digest("SHA256", ENV.fetch(VARIABLE), offer_id), padding: false)

    def digest(secret) = Digest::SHA256.hexdigest(secret)

    # @return [String] the address of the customer's page
    def path(offer_id) = "/y/#{secret(offer_id)}"

    # With the name this server is known under outside (PUBLIC_URL).
    def url(offer_id) = "#{outside}#{path(offer_id)}"

    def outside = ENV.fetch("PUBLIC_URL", "http://127.0.0.1:4080")

    # Whether another machine could open a link.
    def reachable? = !["127.0.0.1", "localhost", "[::1]"].include?(URI(outside).host)
  end
end
