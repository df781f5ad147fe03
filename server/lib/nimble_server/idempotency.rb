# frozen_string_literal: true

module NimbleServer
  # A write that may be sent twice is carried out once: the answer is kept with its key, in the same transaction.
  class Idempotency
    def initialize(shop, key, route)
      @shop = shop
      @key = key
      @route = route
    end

    # @return [Array(Integer, Object)] status and body, of this call or of the first one with this key
    # @raise [Refusal] 409 when the key was used for something else
    def once(status)
      @shop.transaction do
        @shop.db.get(Sequel.function(:pg_advisory_xact_lock, Sequel.function(:hashtext, "#{@shop.actor}:#{@key}")))
        earlier = row.first
        next replay(earlier) if earlier

        body = yield
        @shop.db[:idempotency_keys].insert(shop_id: @shop.id, account_id: @shop.actor, key: @key, route: @route, status: status,
                                           body: Sequel.pg_jsonb_wrap(body), created_at: @shop.now)
        [status, body]
      end
    end

    private

    def row = @shop[:idempotency_keys].where(account_id: @shop.actor, key: @key)

    def replay(earlier)
      raise Refusal.new(409, "idempotency_key", "This Idempotency-Key was used for another request.") unless earlier[:route] == @route

      [earlier[:status], earlier[:body]]
    end
  end
end
