# frozen_string_literal: true

require "digest"

module NimbleServer
  module Features
    module Record
      # Walks every shop's record and holds every saved revision against it (bin/verify): the chain, the seal, what the
      # rows say, and whether the frozen request still gives the frozen cents.
      class Verification
        # What was found of one shop: its name, how much was looked at, the head, and what does not hold in words.
        Finding = Struct.new(:shop, :entries, :revisions, :head, :fault)

        # @param db [Sequel::Database] as the owner
        # @param keys [Keys]
        def initialize(db, keys)
          @db = db
          @chain = keys.chain
        end

        # @return [Array<Finding>]
        def run = @db[:shops].order(:name).map { |shop| look(shop) }

        # Whether a head printed on a paper stands in some shop's record.
        # @param seq [Integer]
        # @param hex [String] first digits of the mac
        # @return [String, nil] name of the shop
        def holder(seq, hex)
          rows =
            @db[:record_entries].where(seq: seq).where(Sequel.like(:mac, "#{@db[:record_entries].escape_like(hex)}%"))
          rows.join(:shops, id: :shop_id).get(Sequel[:shops][:name])
        end

        private

        def look(shop)
          links = links_of(shop)
          revisions = @db[:quote_revisions].where(shop_id: shop[:id]).order(:created_at, :id).all
          fault =
            chain_fault(links) || revisions.lazy.filter_map { |row| revision_fault(row, links) }.first ||
              Acts.new(@db, shop[:id], links).fault
          Finding.new(shop[:name], links.size, revisions.size, NimbleLedger::Record::Chain.head(links.last), fault)
        end

        def links_of(shop)
          @db[:record_entries]
            .where(shop_id: shop[:id])
            .order(:seq)
            .map { |row| NimbleLedger::Record::Chain::Link.new(row[:seq], row[:bytes].to_s, row[:mac], row[:key_id]) }
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

        def revision_fault(row, links)
          name = "revision #{row[:revision]} of quote #{@db[:quotes].where(id: row[:quote_id]).get(:number)}"
          seal = @db[:quote_seals].where(shop_id: row[:shop_id], revision_id: row[:id]).first or
            return "#{name} has no seal"
          return "#{name} is not what was sealed" unless Seal.new(@db, row).bytes == seal[:bytes].to_s.b
          return "the seal of #{name} was changed" unless Digest::SHA256.hexdigest(seal[:bytes]) == seal[:sha256]
          return "#{name} is not in the record" if sealed_since(links, row) && !recorded?(links, seal[:sha256])

          "#{name} no longer comes to its total" unless recomputes?(row)
        end

        # Revisions from before there was a record stand in none.
        def sealed_since(links, row)
          first = links.first or return false
          Time.iso8601(JSON.parse(first.bytes)["at"]) <= row[:created_at] + 1
        end

        def recorded?(links, digest) = links.any? { |link| link.bytes.include?(digest) }

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
