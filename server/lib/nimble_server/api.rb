# frozen_string_literal: true

require "sinatra/base"
require_relative "../../../formats/contract"

module NimbleServer
  # The JSON API. Features register their routes with the least role that may use them and the shape of the body they
  # take; the registry is what the access spec walks.
  class API < Sinatra::Base
    ROLES = %w[technician advisor owner].freeze
    Route = Struct.new(:verb, :path, :role, :body)

    set :show_exceptions, false
    set :raise_errors, false
    set :dump_errors, false
    set :protection, false # rack-protection is mounted in the stack (see Application)
    set :host_authorization, { permitted_hosts: [] }
    set :add_charset, []
    set :routes_by_role, []

    # Declares a route for a role and those above it; :anyone needs no sign-in.
    # @param body [String, nil] name of the request shape in formats/contract.rb; :document for what the core checks
    # itself
    # @param beside [String, nil] the queue of LongRequest for what may take long
    def self.api(verb, path, role:, body: nil, beside: nil, &block)
      routes_by_role << Route.new(verb, path, role, body)
      public_send(verb, path) do
        admit(role)
        check_body(body)
        next handed_on(beside) if beside && LongRequest.handed_on? && !env["nimble.beside"]

        said(within_shop { instance_exec(&block) })
      end
    end

    helpers do
      def db = settings.db

      def admit(role)
        return if role == :anyone
        raise Refusal.new(401, "signed_out", "Sign in first.") unless account

        env["nimble.shop"] = account[:shop_id]
        return if ROLES.index(account[:role]) >= ROLES.index(role.to_s)

        raise Refusal.new(403, "role", "This needs the role #{role}; you are signed in as #{account[:role]}.")
      end

      def check_body(name)
        return if name.nil? || name == :document

        Contract::REQUESTS.fetch(name).check!(body_json, what: "request", code: "invalid_body")
      end

      # The database shows the rows of the signed-in shop for as long as the block runs, and no others.
      def within_shop(&block) = account ? Database.within_shop(db, account[:shop_id], &block) : yield

      def account = env["nimble.account"]

      def shop = @shop ||= Shop.new(db, account[:shop_id], actor: Actor.account(account), clock: settings.clock)

      def body_json = env["nimble.body"] || {}

      # What this request may compute, given up when nobody waits for it any more.
      def effort = @effort ||= NimbleLedger::Access::NodeBudget.new(tick: Patience.new(env).method(:tick).to_proc)

      def json(value, code = nil)
        status code if code
        content_type "application/json"
        JSON.generate(value)
      end

      # Worked off beside this process.
      def handed_on(queue)
        status_code, fields, parts = within_shop { LongRequest.new(shop, env, queue: queue).answer }
        raise Refusal.said(status_code, JSON.parse(parts.to_enum.to_a.join)) if status_code >= 400

        status status_code
        headers fields
        parts
      end

      # What a route came to, as it goes out.
      def said(answer)
        content_type "application/json" if answer.is_a?(InTwoParts)
        answer.is_a?(Hash) || answer.is_a?(Array) ? json(answer) : answer
      end

      # Runs a write once per Idempotency-Key: a retry gets the first answer again.
      def once(code, &block)
        key = request.env["HTTP_IDEMPOTENCY_KEY"]
        return json(block.call, code) unless key

        if key.length > 100
          raise Refusal.new(400, "idempotency_key", "The Idempotency-Key is longer than 100 characters.")
        end

        Idempotency
          .new(shop, key, request.path_info, body_json)
          .once(code, &block)
          .then { |stored, body| json(body, stored) }
      end

      def uuid(text, what)
        text.to_s.match?(/\A\h{8}-\h{4}-\h{4}-\h{4}-\h{12}\z/) ? text : raise(Refusal.not_found(what))
      end
    end

    error Refusal do |e|
      json(e.to_h, e.status)
    end

    error NimbleLedger::ImpossiblePlan do |e|
      json(e.to_h, 422)
    end

    error NimbleLedger::Risk::History::Impossible do |e|
      said = account ? within_shop { shop.text.doubt(e.doubt) } : e.message
      json({ "error" => e.to_h["error"].merge("message" => said) }, 400)
    end

    error NimbleLedger::Error do |e|
      json(e.to_h, 400)
    end

    error Sequel::DatabaseDisconnectError, Sequel::DatabaseConnectionError, Sequel::PoolTimeout do
      json(
        {
          "error" => {
            "code" => "database_away",
            "message" => "The database does not answer. Nothing was lost; try again in a moment.",
            "details" => []
          }
        },
        503
      )
    end

    error Patience::Abandoned do
      json(
        {
          "error" => {
            "code" => "abandoned",
            "message" => "This was given up: nobody waited for it any more.",
            "details" => []
          }
        },
        503
      )
    end

    error do |e|
      ErrorFallback.log(e)
      json(
        {
          "error" => {
            "code" => "internal",
            "message" => "Something went wrong here, not with your input. It has been logged.",
            "details" => []
          }
        },
        500
      )
    end

    not_found do
      json(
        { "error" => { "code" => "not_found", "message" => "There is nothing at this address.", "details" => [] } },
        404
      )
    end

    FeatureRegistry.shipped.flat_map(&:routes).each { |routes| register routes }
  end
end
