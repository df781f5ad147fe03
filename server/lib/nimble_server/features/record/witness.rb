# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # The rows that this transaction has touched, by their digests, as they go into the record with the act that
      # touched them (Bindings).
      class Witness
        GONE = "" # what stands for a row that was taken away

        def initialize(shop)
          @shop = shop
        end

        # Takes the notes of this transaction, and of tables that are witnessed by an act what that act names.
        # @param named [Hash{Symbol=>Array<String>}] table to keys
        # @return [Hash{String=>Hash{String=>String}}] table to key to digest, GONE for what is no longer there
        def take(named = {})
          keys = notes.to_h { |relation, rows| [relation.to_sym, rows.map(&:last)] }
          named.each { |relation, more| keys[relation] = keys.fetch(relation, []) | more }
          keys.sort.to_h { |relation, list| [relation.to_s, digests(relation, list)] }
        end

        private

        # Those of other transactions are not looked at: they are not ours to sign.
        def notes
          @shop[:record_touched]
            .where(xact: Sequel.lit("pg_current_xact_id()::text::bigint"))
            .returning(:relation, :key)
            .delete
            .map(&:values)
            .group_by(&:first)
        end

        def digests(relation, keys)
          found = Bindings.digests(@shop.db, Bindings::ALL.fetch(relation), @shop.id, keys: keys)
          keys.sort.to_h { |key| [key, found.fetch(key, GONE)] }
        end
      end
    end
  end
end
