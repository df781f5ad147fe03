# frozen_string_literal: true

require "digest"

module NimbleServer
  # A write that may be sent twice is carried out once: the answer is kept with its key, in the same transaction. The
  # same key with another body is refused, not answered with what was not asked.
  class Idempotency
    KEPT_DAYS = 7

    # @param body [Hash] what was sent
    def initialize(shop, key, route, body)
      @shop = shop
      @key = key
      @route = route
      @digest = Digest::SHA256.hexdigest(NimbleLedger::Record::Canonical.json(body))
    end

    # @return [Array(Integer, Object)] status and body, of this call or of the first one with this key
    # @raise [Refusal] 409 when the key was used for something else
    def once(status)
      @shop.transaction do
        @shop.alone("key:#{@shop.actor.key}:#{@key}")
        earlier = row.first
        next replay(earlier) if earlier

        body = yield
        forget_old
        @shop.db[:idempotency_keys].insert(
          shop_id: @shop.id,
          account_id: @shop.actor.account_id,
          key: @key,
          route: @route,
          digest: @digest,
          status: status,
          body: Sequel.pg_jsonb_wrap(body),
          created_at: @shop.now
        )
        [status, body]
      end
    end

    private

    def row = @shop[:idempotency_keys].where(account_id: @shop.actor.account_id, key: @key)

    # A few of the shop's oldest keys, whenever a new one comes.
    def forget_old
      aged =
        @shop[:idempotency_keys]
          .where { created_at < Time.now - (KEPT_DAYS * 86_400) }
          .select(:account_id, :key)
          .limit(20)
      @shop[:idempotency_keys].where(%i[account_id key] => aged).delete
    end

    def replay(earlier)
      unless earlier[:route] == @route && [@digest, ""].include?(earlier[:digest])
        raise Refusal.new(
                409,
                "idempotency_key",
                "This Idempotency-Key was used for another request: nothing was done."
              )
      end

      [earlier[:status], earlier[:body]]
    end
  end
end
