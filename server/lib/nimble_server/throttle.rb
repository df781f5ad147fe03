# frozen_string_literal: true

module NimbleServer
  # rack-attack with limits for sign-in. Counters live in the process: each of several processes counts for itself,
  # and the lockout of an account (in the database) holds across all of them.
  module Throttle
    # The little of a cache store that rack-attack asks for.
    class Counters
      def initialize
        @counts = {}
        @lock = Mutex.new
      end

      def increment(key, amount, expires_in: 60)
        @lock.synchronize do
          now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
          @counts.delete_if { |_key, (_count, deadline)| deadline < now } if @counts.size > 10_000
          count, deadline = @counts[key]
          count, deadline = 0, now + expires_in if deadline.nil? || deadline < now
          @counts[key] = [count + amount, deadline]
          count + amount
        end
      end

      def read(key) = @lock.synchronize { @counts[key]&.first }
      def write(key, value, expires_in: 60) = @lock.synchronize { @counts[key] = [value, Process.clock_gettime(Process::CLOCK_MONOTONIC) + expires_in] }
      def delete(key) = @lock.synchronize { @counts.delete(key) }
    end

    SIGN_INS_PER_MINUTE = Integer(ENV.fetch("SIGN_INS_PER_MINUTE", "30"))

    REFUSED = { "error" => { "code" => "throttled", "message" => "Too many tries from here. Wait a minute, then try again.", "details" => [] } }.freeze

    # @return [Class] the middleware, with the limits set
    def self.middleware
      Rack::Attack.cache.store = Counters.new
      Rack::Attack.throttle("sign-in by address", limit: SIGN_INS_PER_MINUTE, period: 60) do |request|
        request.ip if request.post? && request.path == "/api/account/login"
      end
      Rack::Attack.throttled_responder = ->(_request) { [429, { "content-type" => "application/json", "retry-after" => "60" }, [JSON.generate(REFUSED)]] }
      Rack::Attack
    end
  end
end
