# frozen_string_literal: true

require "sinatra/base"

module NimbleServer
  # The JSON API. Features register their routes with the least role that may use them; the registry is what the
  # access spec walks.
  class API < Sinatra::Base
    ROLES = %w[technician advisor owner].freeze
    Route = Struct.new(:verb, :path, :role)

    set :show_exceptions, false
    set :raise_errors, false
    set :dump_errors, false
    set :protection, false # rack-protection is mounted in config.ru's stack (see Application)
    set :host_authorization, { permitted_hosts: [] }
    set :add_charset, []
    set :routes_by_role, []

    # Declares a route for a role and those above it; :anyone needs no sign-in.
    def self.api(verb, path, role:, &block)
      routes_by_role << Route.new(verb, path, role)
      public_send(verb, path) do
        admit(role)
        answer = instance_exec(&block)
        answer.is_a?(Hash) || answer.is_a?(Array) ? json(answer) : answer
      end
    end

    helpers do
      def db = settings.db

      def admit(role)
        return if role == :anyone
        raise Refusal.new(401, "signed_out", "Sign in first.") unless account

        env["nimble.shop"] = account[:shop_id]
        env["nimble.account"] = account[:id]
        return if ROLES.index(account[:role]) >= ROLES.index(role.to_s)

        raise Refusal.new(403, "role", "This needs the role #{role}; you are signed in as #{account[:role]}.")
      end

      def account
        return @account if defined?(@account)

        rodauth = env["rodauth"]
        id = rodauth&.logged_in? ? rodauth.session_value : nil
        @account = id && db[:accounts].where(id: id).first
      end

      def shop = @shop ||= Shop.new(db, account[:shop_id], actor: account[:id], clock: settings.clock)

      def body_json = env["nimble.body"] || {}

      def json(value, code = nil)
        status code if code
        content_type "application/json"
        JSON.generate(value)
      end

      # Runs a write once per Idempotency-Key: a retry gets the first answer again.
      def once(code, &block)
        key = request.env["HTTP_IDEMPOTENCY_KEY"]
        return json(block.call, code) unless key

        raise Refusal.new(400, "idempotency_key", "The Idempotency-Key is longer than 100 characters.") if key.length > 100

        Idempotency.new(shop, key, request.path_info).once(code, &block).then { |stored, body| json(body, stored) }
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

    error NimbleLedger::Error do |e|
      json(e.to_h, 400)
    end

    error Sequel::DatabaseDisconnectError, Sequel::DatabaseConnectionError, Sequel::PoolTimeout do
      json({ "error" => { "code" => "database_away", "message" => "The database does not answer. Nothing was lost; try again in a moment.", "details" => [] } }, 503)
    end

    error do |e|
      warn "#{e.class}: #{e.message}\n#{e.backtrace.first(8).join("\n")}"
      json({ "error" => { "code" => "internal", "message" => "Something went wrong here, not with your input. It has been logged.", "details" => [] } }, 500)
    end

    not_found do
      json({ "error" => { "code" => "not_found", "message" => "There is nothing at this address.", "details" => [] } }, 404)
    end

    register Features::Session
    register Features::Vehicles
    register Features::Engines
    register Features::Estimates
    register Features::Quotes
    register Features::Documents
    register Features::HouseRules
    register Features::Prices
  end
end
