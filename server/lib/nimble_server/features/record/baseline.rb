# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # Shops from before rows were witnessed: everything of theirs that binds is listed in the record, signed, once.
      # From then on nothing is exempt.
      class Baseline
        KIND = "rows-listed"

        # @param db [Sequel::Database] as the owner
        # @param keys [Keys]
        def initialize(db, keys: Keys.current, clock: Time)
          @db = db
          @keys = keys
          @clock = clock
        end

        # @param known [#to_h] heads kept outside the database: a shop that has one there was listed before
        # @return [Array<String>] names of the shops that were listed now
        def take(known = {})
          due =
            @db[:shops].exclude(id: known.to_h.keys).exclude(
              id: @db[:record_entries].where(witnessing).select(:shop_id)
            )
          due.order(:name).map { |shop| list(shop) }
        end

        private

        # Entries that tell of rows: their bytes are JSON, "rows" stands in their body.
        def witnessing = Sequel.lit("position('\"rows\":{'::bytea IN bytes) > 0 OR kind = ?", KIND)

        def list(row)
          shop = Shop.new(@db, row[:id], actor: Actor.system("upgrade"), clock: @clock)
          @db.transaction { ActLog.new(shop, keys: @keys).list(KIND, "what was here before", rows(row[:id])) }
          row[:name]
        end

        def rows(shop_id)
          tables = Bindings::ALL.values.reject(&:on_act)
          tables
            .to_h { |table| [table.name.to_s, Bindings.digests(@db, table, shop_id).sort.to_h] }
            .reject { |_name, all| all.empty? }
        end
      end
    end
  end
end
