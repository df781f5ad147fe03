# frozen_string_literal: true

require "openapi_first"
require_relative "../../../../formats/contract"

module NimbleServer
  # Addresses and parameters are held against the OpenAPI contract before they reach the API; bodies are checked by the
  # shapes the contract is printed from (API.api), which stop at the first few faults and never look into a list that is
  # too long. Refusals take the error form of formats.md.
  module ContractCheck
    SPEC = File.join(ROOT, "formats/openapi.json")

    # The gem makes each operation anew for every request. They never change: kept, a write answers sooner.
    module KeptOperations
      KEPT = {}.compare_by_identity

      def operation(method) = (KEPT[@path_item_object] ||= {})[method] ||= super
    end
    OpenapiFirst::Definition::PathItem.prepend(KeptOperations)

    # The error form for a request that does not fit the contract.
    class Answer
      include OpenapiFirst::ErrorResponse

      def body
        JSON.generate("error" => { "code" => failure.type.to_s, "message" => message, "details" => details })
      end

      def content_type = "application/json"

      private

      def message
        case failure.type
        when :not_found
          "There is nothing at this address."
        when :method_not_allowed
          "This address does not take that method."
        else
          if details.empty?
            "The request does not fit the contract."
          else
            "The request does not fit: #{details.first["path"]} #{details.first["message"]}"
          end
        end
      end

      def details
        (failure.errors || [])
          .first(25)
          .map do |error|
            {
              "path" => error.instance_location.to_s,
              "message" => error.message.to_s.gsub("`", "").sub(/\A[a-z ]+ at \S+ /, "")
            }
          end
      end
    end

    # Mounted in front of the API; everything outside /api/ passes by.
    class Middleware
      def initialize(app)
        @app = app
        @checked =
          OpenapiFirst::Middlewares::RequestValidation.new(
            app,
            spec: ContractCheck.without_bodies,
            raise_error: false,
            error_response: Answer
          )
      end

      def call(env) = env["PATH_INFO"].start_with?("/api/") ? @checked.call(env) : @app.call(env)
    end

    def self.without_bodies
      contract = JSON.parse(File.read(SPEC))
      contract["paths"].each_value { |verbs| verbs.each_value { |operation| operation.delete("requestBody") } }
      OpenapiFirst.parse(contract)
    end
  end
end
