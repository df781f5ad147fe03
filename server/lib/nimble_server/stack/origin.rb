# frozen_string_literal: true

require "ipaddr"

module NimbleServer
  # Where a request really comes from. The address is the socket's; what headers say of address and scheme counts only
  # when the socket belongs to a configured proxy (TRUSTED_PROXIES). Hosts other than the configured ones
  # (ALLOWED_HOSTS) are refused. Everything behind this middleware may take REMOTE_ADDR and rack.url_scheme as they
  # stand.
  class Origin
    FORWARDED = %w[
      HTTP_FORWARDED
      HTTP_X_FORWARDED_FOR
      HTTP_X_FORWARDED_HOST
      HTTP_X_FORWARDED_PROTO
      HTTP_X_FORWARDED_PORT
      HTTP_X_FORWARDED_SCHEME
      HTTP_X_FORWARDED_SSL
      HTTP_X_REAL_IP
      HTTP_CLIENT_IP
    ].freeze
    SCHEMES = %w[HTTP_X_FORWARDED_PROTO HTTP_X_FORWARDED_SCHEME HTTP_X_FORWARDED_SSL HTTP_FORWARDED].freeze
    LOCAL = %w[127.0.0.1 localhost [::1]].freeze
    REFUSED =
      JSON.generate(
        "error" => {
          "code" => "host",
          "message" => "This server does not answer under that name. Set ALLOWED_HOSTS to allow it.",
          "details" => []
        }
      )

    # @param proxies [Array<String>] addresses or ranges
    # @param hosts [Array<String>] names without a port
    def initialize(
      app,
      proxies: ENV.fetch("TRUSTED_PROXIES", "").split(","),
      hosts: LOCAL + ENV.fetch("ALLOWED_HOSTS", "").split(",")
    )
      @app = app
      @proxies = proxies.map { |range| IPAddr.new(range.strip) }
      @hosts = hosts.map { |host| host.strip.downcase }
    end

    def call(env)
      return 421, { "content-type" => "application/json" }, [REFUSED] unless @hosts.include?(host(env))

      trusted?(env["REMOTE_ADDR"]) ? proxied(env) : plain(env)
      FORWARDED.each { |name| env.delete(name) }
      @app.call(env)
    end

    private

    def host(env) = env["HTTP_HOST"].to_s.downcase.sub(/:\d{1,5}\z/, "")

    def trusted?(address)
      ip = IPAddr.new(address.to_s)
      @proxies.any? { |range| range.family == ip.family && range.include?(ip) }
    rescue IPAddr::Error
      false
    end

    # What a stranger's headers say of the scheme (Puma has taken it up already) is not so.
    def plain(env)
      return if (SCHEMES & env.keys).empty?

      env["rack.url_scheme"] = "http"
      env.delete("HTTPS")
    end

    # The last address the chain of trusted proxies did not vouch for itself.
    def proxied(env)
      chain = env["HTTP_X_FORWARDED_FOR"].to_s.split(",").map(&:strip).reject(&:empty?)
      outside = chain.reverse.find { |address| !trusted?(address) }
      env["REMOTE_ADDR"] = outside if outside && valid?(outside)
      env["rack.url_scheme"] = "https" if env["HTTP_X_FORWARDED_PROTO"] == "https"
    end

    def valid?(address)
      IPAddr.new(address)
      true
    rescue IPAddr::Error
      false
    end
  end
end
