# frozen_string_literal: true

require "openapi_first"

module NimbleServer
  # Requests are held against the OpenAPI contract before they reach the API; refusals take the error form of formats.md.
  module ContractCheck
    SPEC = File.join(ROOT, "formats/openapi.json")

    # The gem makes each operation, and with it the schemas of its bodies, anew for every request. They never change:
    # kept, a write answers several milliseconds sooner.
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
        when :not_found then "There is nothing at this address."
        when :method_not_allowed then "This address does not take #{failure.request&.request_method}." if failure.respond_to?(:request)
        else details.empty? ? failure.message.to_s : "The request does not fit: #{details.first["path"]} #{details.first["message"]}"
        end || "This address does not take that method."
      end

      def details
        (failure.errors || []).first(25).map do |error|
          { "path" => error.instance_location.to_s, "message" => error.message.to_s.gsub("`", "").sub(/\A[a-z ]+ at \S+ /, "") }
        end
      end
    end

    # Mounted in front of the API; everything outside /api/ passes by.
    class Middleware
      def initialize(app)
        @app = app
        @checked = OpenapiFirst::Middlewares::RequestValidation.new(app, spec: SPEC, raise_error: false, error_response: Answer)
      end

      def call(env) = env["PATH_INFO"].start_with?("/api/") ? @checked.call(env) : @app.call(env)
    end
  end
end
