# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # A shop's record: acts are added at its end, inside the transaction that does them, and never touched again.
      #
      #   Book.new(shop).append("revision-saved", "quote 1001, revision 1", { "total_cents" => 67_028 })
      class Book
        def initialize(shop, keys: Keys.current)
          @shop = shop
          @keys = keys
        end

        # @param body [Hash] text, whole numbers, booleans, lists and objects
        # @raise [NimbleLedger::Record::Entry::Refused] for anything else
        def append(kind, subject, body)
          @shop.alone("record")
          last = newest
          entry =
            NimbleLedger::Record::Entry.new(
              seq: last ? last[:seq] + 1 : 1,
              at: @shop.now.getutc.strftime("%FT%T.%6NZ"),
              actor: @shop.actor.to_h.compact.to_h { |name, value| [name.to_s, value.to_s] },
              kind: kind,
              subject: subject,
              body: body
            )
          store(entry, last, kind, subject)
        end

        # The end of the chain in short, as it is printed on paper: "412 9c1f0a77b3de".
        def head
          row = newest
          NimbleLedger::Record::Chain.head(row && link(row))
        end

        private

        def newest = @shop[:record_entries].order(Sequel.desc(:seq)).first

        def link(row) = NimbleLedger::Record::Chain::Link.new(row[:seq], row[:bytes], row[:mac], row[:key_id])

        def store(entry, last, kind, subject)
          bytes = entry.bytes
          @shop.db[:record_entries].insert(
            shop_id: @shop.id,
            seq: entry.seq,
            at: @shop.now,
            kind: kind,
            subject: subject,
            bytes: Sequel.blob(bytes),
            mac: @keys.chain.mac(@keys.newest, last ? last[:mac] : NimbleLedger::Record::Chain::START, bytes),
            key_id: @keys.newest
          )
        end
      end
    end
  end
end
