# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # The code an engine goes by in a shop: it stands in addresses, and one engine has it.
      class Code
        # Words that addresses under /api/engines mean something else by.
        TAKEN = %w[report new export].freeze

        attr_reader :text

        def initialize(shop, text)
          @shop = shop
          @text = text.strip
        end

        # @raise [NimbleLedger::InvalidInput] invalid_profile for a code that would be taken for another address
        def refuse_address
          parts = text.split("/", -1)
          return if parts.none? { |part| part.strip.delete(".").empty? } && !TAKEN.include?(parts.last.downcase)

          message = "#{text} would be taken for another address of this program: choose another code"
          raise NimbleLedger::InvalidInput.at("/code", message, what: "engine profile", code: "invalid_profile")
        end

        # @raise [Refusal] 409 for a code the library has already
        def refuse_taken
          return unless newest

          raise Refusal.new(
                  409,
                  "code_taken",
                  "#{text} is in the library already. Choose another code.",
                  details: [{ "path" => "/code", "message" => "is in the library already" }]
                )
        end

        # @return [Hash, nil] head of its newest revision
        def newest = @newest ||= Library.heads(@shop).where(code: text).order(Sequel.desc(:revision)).first
      end
    end
  end
end
