# frozen_string_literal: true

require "digest"

module NimbleServer
  module Features
    module Record
      # Walks every shop's record (bin/verify): the chain, the columns beside its bytes, every row that binds held
      # against its entry and every entry against its rows, every saved revision against its seal and its cents, and
      # the head that is kept outside the database. All of it in one read-only snapshot, beside a working shop.
      class Verification
        # What was found of one shop: its name, how much was looked at, the head, and what does not hold in words.
        Finding = Struct.new(:shop, :entries, :revisions, :head, :fault)

        # @param db [Sequel::Database] as the owner
        # @param keys [Keys]
        # @param heads [ChainHeads, Hash, nil] those kept outside the database
        def initialize(db, keys, heads: nil)
          @db = db
          @chain = keys.chain
          @heads = heads
        end

        # @return [Array<Finding>]
        def run
          known = @heads.to_h.dup
          @db.transaction(isolation: :repeatable, read_only: true) do
            found = @db[:shops].order(:name).all.map { |shop| look(shop, known.delete(shop[:id])) }
            found + known.map { |id, head| Finding.new("Shop #{id}", 0, 0, head.short, "all of it is missing") }
          end
        end

        # Whether a head printed on a paper stands in some shop's record.
        # @param seq [Integer]
        # @param hex [String] first digits of the mac
        # @return [String, nil] name of the shop
        def holder(seq, hex)
          rows =
            @db[:record_entries].where(seq: seq).where(Sequel.like(:mac, "#{@db[:record_entries].escape_like(hex)}%"))
          rows.join(:shops, id: :shop_id).get(Sequel[:shops][:name])
        end

        # One shop, in the transaction that is under way.
        # @param shop [Hash] row
        # @param head [ChainHeads::Head, nil]
        # @return [Finding]
        def look(shop, head)
          kept = entries(shop)
          links = kept.map(&:link)
          revisions = @db[:quote_revisions].where(shop_id: shop[:id]).order(:created_at, :id)
          fault = chain_fault(links) || column_fault(kept) || head_fault(kept, head) || rows_fault(shop, kept)
          fault ||= revisions.lazy.filter_map { |row| revision_fault(row) }.first
          Finding.new(shop[:name], kept.size, revisions.count, NimbleLedger::Record::Chain.head(links.last), fault)
        end

        private

        # One entry: what is kept, the columns beside it, and what its bytes say.
        Kept =
          Struct.new(:link, :columns, :said) do
            def seq = link.seq
            def rows = said["body"]["rows"] || {}
          end

        def entries(shop)
          @db[:record_entries]
            .where(shop_id: shop[:id])
            .order(:seq)
            .map do |row|
              link = NimbleLedger::Record::Chain::Link.new(row[:seq], row[:bytes].to_s, row[:mac], row[:key_id])
              Kept.new(link, row, JSON.parse(link.bytes))
            rescue JSON::ParserError
              Kept.new(link, row, { "body" => {} })
            end
        end

        WORDS = {
          "missing" => "is missing",
          "order" => "does not stand where it says",
          "key" => "is signed with a key that is not here",
          "mac" => "was changed, or one before it"
        }.freeze

        def chain_fault(links)
          found = @chain.fault(links) or return nil
          "entry #{found.seq} #{WORDS.fetch(found.code)}"
        end

        # What stands beside the bytes for the eye says the same as they do.
        def column_fault(kept)
          wrong =
            kept.find do |entry|
              entry.columns.values_at(:kind, :subject) != entry.said.values_at("kind", "subject") ||
                entry.columns[:at].getutc.strftime("%FT%T.%6NZ") != entry.said["at"]
            end
          wrong && "entry #{wrong.seq}: what stands beside it is not what it says"
        end

        def head_fault(kept, head)
          return nil if head.nil? || kept[head.seq - 1]&.link&.mac == head.mac
          return "entry #{kept.size + 1} is missing: the record had #{head.seq} entries" if kept.size < head.seq

          "entry #{head.seq} is not the one that stood there"
        end

        # The newest digest of every row that any entry tells of, and the entry that tells it.
        def witnessed(kept)
          kept.each_with_object(Hash.new { |all, table| all[table] = {} }) do |entry, all|
            entry.rows.each { |table, digests| digests.each { |key, digest| all[table][key] = [digest, entry.seq] } }
          end
        end

        def rows_fault(shop, kept)
          said = witnessed(kept)
          faults = Bindings::ALL.each_value.flat_map { |table| table_faults(table, shop, said[table.name.to_s]) }
          faults.min_by(&:first)&.last
        end

        # @return [Array<Array(Numeric, String)>] by the entry they contradict
        def table_faults(table, shop, said)
          held = Bindings.digests(@db, table, shop[:id])
          told = said.reject { |_key, (digest, _seq)| digest == Witness::GONE }
          wrong =
            told.filter_map do |key, (digest, seq)|
              next if held[key] == digest

              words = held.key?(key) ? "#{table.word} was changed" : "#{table.word} it tells of is missing"
              [seq, "entry #{seq}: #{words} (#{table.name} #{key})"]
            end
          return wrong if table.on_act

          unknown = held.keys.find { |key| !told.key?(key) }
          wrong << [Float::INFINITY, "#{table.word} #{unknown} is not in the record"] if unknown
          wrong
        end

        def revision_fault(row)
          name = "revision #{row[:revision]} of quote #{@db[:quotes].where(id: row[:quote_id]).get(:number)}"
          seal = @db[:quote_seals].where(shop_id: row[:shop_id], revision_id: row[:id]).first or
            return "#{name} has no seal"
          return "#{name} is not what was sealed" unless Seal.new(@db, row).bytes == seal[:bytes].to_s.b
          return "the seal of #{name} was changed" unless Digest::SHA256.hexdigest(seal[:bytes]) == seal[:sha256]

          "#{name} no longer comes to its total" unless recomputes?(row)
        end

        def recomputes?(row)
          @db[:quote_scopes]
            .where(shop_id: row[:shop_id], revision_id: row[:id])
            .all? do |scope|
              again = NimbleLedger::Estimate::Request.build(JSON.parse(JSON.generate(scope[:request]))).answer
              again["price"]["total_cents"] == scope[:total_cents]
            end
        end
      end
    end
  end
end
