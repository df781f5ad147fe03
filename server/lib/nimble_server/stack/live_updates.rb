# frozen_string_literal: true

module NimbleServer
  # GET /api/events: server-sent events for whoever is signed in, "something of this kind has changed", from whichever
  # process changed it. The socket leaves the server's threads at once; one thread of this process writes to all of
  # them.
  class LiveUpdates
    ADDRESS = "/api/events"
    SIGNED_OUT = { "error" => { "code" => "signed_out", "message" => "Sign in first.", "details" => [] } }.freeze

    # @param db [Sequel::Database] of the role nimble_web
    def initialize(app, db:)
      @app = app
      @hub = Hub.new(db)
    end

    def call(env)
      return @app.call(env) unless env["PATH_INFO"] == ADDRESS && env["REQUEST_METHOD"] == "GET"

      env["sinatra.route"] = "GET #{ADDRESS}"
      account = env["nimble.account"] or
        return 401, { "content-type" => "application/json" }, [JSON.generate(SIGNED_OUT)]

      env["nimble.shop"] = account[:shop_id]
      headers = {
        "content-type" => "text/event-stream",
        "cache-control" => "no-store",
        "x-accel-buffering" => "no",
        "rack.hijack" => ->(socket) { @hub.add(account, socket) }
      }
      [200, headers, []]
    end

    # The open streams of this process, by shop.
    class Hub
      HEARTBEAT = 15 # seconds
      LONGEST = 300 # seconds; the browser opens it again, and has to be signed in for that
      MOST = 6 # of one account

      # Said once a stream is among those that are told: what changed up to here was not, and is asked for.
      LISTENING = "retry: 2000\nevent: listening\ndata: now\n\n"

      Stream = Struct.new(:shop_id, :account_id, :socket, :since)

      def initialize(db)
        @db = db
        @streams = []
        @lock = Mutex.new
      end

      # @param account [Hash] id, shop_id
      # @param socket [IO]
      def add(account, socket)
        stream = Stream.new(account[:shop_id], account[:id], socket, now)
        @lock.synchronize do
          own = @streams.select { |one| one.account_id == account[:id] }
          own.first(own.size - MOST + 1).each { |one| drop(one) } if own.size >= MOST
          @streams << stream
          @listener = Thread.new { listen } unless @listener&.alive?
        end
        write(stream, LISTENING)
      end

      private

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      # For ever: a database that was away is found again, and whoever may have missed something is told to look.
      def listen
        loop do
          @db.listen(Live::CHANNEL, timeout: HEARTBEAT, loop: ->(_connection) { beat }) do |_channel, _pid, payload|
            shop_id, topic = payload.split
            tell(topic) { |stream| stream.shop_id == shop_id }
          end
        rescue Sequel::Error
          sleep 1
          tell("quotes") { true }
        end
      end

      def beat
        @lock.synchronize { @streams.select { |stream| now - stream.since > LONGEST }.each { |stream| drop(stream) } }
        each_of { |stream| write(stream, ":\n\n") }
      end

      def tell(topic, &whom) = each_of(whom) { |stream| write(stream, "event: changed\ndata: #{topic}\n\n") }

      def each_of(whom = ->(_stream) { true }, &block) =
        @lock.synchronize { @streams.dup }.select { |stream| whom.call(stream) }.each(&block)

      # A reader that does not keep up is let go; it comes back by itself.
      def write(stream, text)
        drop_locked(stream) unless stream.socket.write_nonblock(text, exception: false).is_a?(Integer)
      rescue IOError, SystemCallError
        drop_locked(stream)
      end

      def drop_locked(stream) = @lock.synchronize { drop(stream) }

      def drop(stream)
        @streams.delete(stream)
        stream.socket.close
      rescue IOError, SystemCallError
        nil
      end
    end
  end
end
