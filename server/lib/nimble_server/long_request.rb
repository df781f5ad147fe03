# frozen_string_literal: true

module NimbleServer
  # A request that may take long (a report, an import, an archive, a paper), worked off beside the web process so that
  # it never bends others: put into the database, taken by a process of its own (LongRequest::Runner,
  # server/long_requests.rb), its answer fetched in parts. When the client is gone, it is cancelled.
  #
  #   LongRequest.new(shop, env, queue: "papers").answer  #=> [200, headers, body]
  class LongRequest
    # What is worked off by which process: papers are short and wait for no import.
    QUEUES = %w[papers long].freeze
    KEPT_SECONDS = 3600
    PART = 1_000_000 # bytes
    FIRST_LOOK = 0.02 # seconds; then ever later
    LAST_LOOK = 0.25
    CARRIED = %w[HTTP_IDEMPOTENCY_KEY HTTP_X_PROGRESS HTTP_ACCEPT_LANGUAGE].freeze

    # Whether this process hands long requests on (bin/start sets it where it runs somebody to take them).
    def self.handed_on? = ENV["LONG_REQUESTS"] == "beside"

    # @param shop [Shop]
    # @param env [Hash] of the request, admitted and checked
    # @param queue [String] one of QUEUES
    def initialize(shop, env, queue:)
      @shop = shop
      @env = env
      @queue = queue
      @id = SecureRandom.uuid
      @patience = Patience.new(env)
    end

    # Waits until it is done.
    # @return [Array(Integer, Hash, #each)]
    # @raise [Patience::Abandoned] when the client is gone; the work is cancelled
    # @raise [Refusal] 503 when whoever worked on it fell
    def answer
      store
      row = wait
      raise fell unless row[:state] == "done"

      [row[:status], row[:answer_headers].to_h, Parts.new(@shop, @id, row[:parts])]
    rescue Patience::Abandoned
      rows.where(state: %w[waiting working]).update(state: "cancelled")
      raise
    end

    private

    def rows = @shop[:long_requests].where(id: @id)

    # How far it is, without the body that was sent.
    def state = rows.select(:state, :status, :answer_headers, :parts)

    def store
      forget_old
      @shop.db.transaction do
        @shop.db[:long_requests].insert(
          shop_id: @shop.id,
          id: @id,
          account: Sequel.pg_jsonb(@env["nimble.account"].transform_keys(&:to_s)),
          verb: @env["REQUEST_METHOD"],
          path: @env["PATH_INFO"],
          query: @env["QUERY_STRING"].to_s,
          body: JSON.generate(@env["nimble.body"]),
          headers: Sequel.pg_jsonb(@env.slice(*CARRIED)),
          created_at: @shop.now
        )
        Background.on(@shop.db) { Run.enqueue(@shop.id, @id, job_options: { queue: @queue }) }
      end
    end

    # Answers nobody has fetched.
    def forget_old = @shop[:long_requests].where { created_at < Time.now - KEPT_SECONDS }.delete

    def wait
      pause = FIRST_LOOK
      loop do
        row = state.first or raise fell
        return row if %w[done failed].include?(row[:state])

        @patience.look
        sleep pause
        pause = [pause * 1.5, LAST_LOOK].min
      end
    end

    def fell =
      Refusal.new(503, "broke_off", "This broke off on the way. Look whether it was done before you try again.")

    # The bytes of an answer, one part at a time, gone once they are read.
    class Parts
      def initialize(shop, id, count)
        @shop = shop
        @id = id
        @count = count
      end

      def each
        @count.times { |number| yield(part(number)) }
      ensure
        Database.within_shop(@shop.db, @shop.id) { @shop[:long_requests].where(id: @id).delete }
      end

      private

      def part(number)
        Database.within_shop(@shop.db, @shop.id) do
          @shop[:long_request_parts].where(request_id: @id, number: number).get(:bytes).to_s
        end
      end
    end

    # Takes one from the database and works it off.
    class Run < Que::Job
      self.maximum_retry_count = 1

      # @param shop_id [String]
      # @param id [String] of the request
      def run(shop_id, id) = Runner.current.work_off(shop_id, id)
    end

    # The process that works them off: the API once more, without a door in front.
    class Runner
      LARGEST_KB = 350_000 # of memory; a process that grew beyond is ended and started again

      class << self
        # @return [Runner] of this process
        attr_accessor :current
      end

      # @param db [Sequel::Database] of the role nimble_web
      # @param api [Class] the API over it
      def initialize(db, api)
        @db = db
        @api = api
      end

      def work_off(shop_id, id)
        rows = Shop.new(@db, shop_id)[:long_requests].where(id: id)
        row = inside(shop_id) { take(rows) }
        finish(rows, row) if row
        Thread.main.raise(SystemExit) if memory > LARGEST_KB
      end

      private

      def inside(shop_id, &block) = Database.within_shop(@db, shop_id, &block)

      # @return [Hash, nil] nil for one that was cancelled, or that a process fell over before
      def take(rows)
        row = rows.where(state: "waiting").returning.update(state: "working").first
        rows.where(state: "working").update(state: "failed") unless row
        row
      end

      # What was asked, as the API takes it; given up when it was cancelled.
      def env_of(row, rows)
        {
          **Rack::MockRequest.env_for("#{row[:path]}?#{row[:query]}", method: row[:verb]),
          **row[:headers].to_h,
          "nimble.account" => account(row),
          "nimble.body" => JSON.parse(row[:body]),
          "nimble.beside" => true,
          "nimble.gone" => -> { rows.get(:state) != "working" }
        }
      end

      def account(row) = row[:account].to_h.transform_keys(&:to_sym)

      def finish(rows, row)
        status, headers, body = @api.call(env_of(row, rows))
        inside(row[:shop_id]) do
          rows.where(state: "working").update(
            parts: store(row, body),
            state: "done",
            status: status,
            answer_headers: Sequel.pg_jsonb(headers.slice("content-type", "content-disposition"))
          )
        end
      rescue StandardError => e
        ErrorFallback.log(e)
        inside(row[:shop_id]) { rows.update(state: "failed") }
      end

      # @return [Integer] how many parts it came to
      def store(row, body)
        count = 0
        buffer = String.new(encoding: Encoding::BINARY)
        body.each do |chunk|
          buffer << chunk.b
          count = part(row, count, buffer.slice!(0, PART)) while buffer.bytesize >= PART
        end
        buffer.empty? && count.positive? ? count : part(row, count, buffer)
      ensure
        body.close if body.respond_to?(:close)
      end

      def part(row, number, bytes)
        @db[:long_request_parts].insert(
          shop_id: row[:shop_id],
          request_id: row[:id],
          number: number,
          bytes: Sequel.blob(bytes)
        )
        number + 1
      end

      def memory = File.read("/proc/self/status")[/VmRSS:\s+(\d+)/, 1].to_i
    end
  end
end
