# frozen_string_literal: true

module NimbleServer
  # Counts that all web processes share: throttles and wrong sign-ins. They live in an unlogged table, which a crash
  # empties.
  # It is also the little of a cache store that rack-attack asks for.
  class Counters
    # @param db [Sequel::Database] of the role nimble_door
    def initialize(db, clock: Time)
      @db = db
      @clock = clock
    end

    # @param expires_in [Numeric] seconds until it starts again from nothing
    # @return [Integer] the count with this one
    def increment(key, amount, expires_in: 60)
      now = @clock.now
      fresh = Sequel[:counters][:until] > now
      @db[:counters]
        .returning(:count)
        .insert_conflict(
          target: :key,
          update: {
            count: Sequel.case([[fresh, Sequel[:counters][:count] + amount]], amount),
            until: Sequel.case([[fresh, Sequel[:counters][:until]]], now + expires_in)
          }
        )
        .insert(key: digest(key), count: amount, until: now + expires_in)
        .first[
        :count
      ].tap { sweep(now) }
    end

    # @return [Integer, nil]
    def read(key) = @db[:counters].where(key: digest(key)).where(Sequel[:counters][:until] > @clock.now).get(:count)

    def write(key, value, expires_in: 60)
      row = { count: value.to_i, until: @clock.now + expires_in }
      @db[:counters].insert_conflict(target: :key, update: row).insert(row.merge(key: digest(key)))
    end

    def delete(key) = @db[:counters].where(key: digest(key)).delete

    private

    # Keys hold addresses and mail; the table holds neither.
    def digest(key) = Digest::SHA256.hexdigest("#{ENV.fetch("SESSION_SECRET")}:#{key}")[0, 40]

    # Now and then what ran out goes.
    def sweep(now)
      @calls = (@calls || 0) + 1
      @db[:counters].where(Sequel[:counters][:until] < now - 3_600).delete if (@calls % 200).zero?
    end
  end
end
