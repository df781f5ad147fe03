# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # A shop's record: acts are added at its end when the transaction that does them ends, with the digests of the
      # rows it touched, and never touched again.
      #
      #   ActLog.new(shop).append("revision-saved", "quote 1001, revision 1", { "total_cents" => 67_028 })
      class ActLog
        CHANNEL = "nimble_record" # tells who keeps heads outside the database (bin/support/heads_keeper.rb)
        ROWS_AT_ONCE = 500 # an entry holds so many digests at most

        # An act that waits for its transaction's end.
        Act = Struct.new(:kind, :subject, :body, :witnessed)

        def initialize(shop, keys: nil)
          @shop = shop
          @keys = keys
        end

        # @param body [Hash] text, whole numbers, booleans, lists and objects
        # @param witnessed [Hash{Symbol=>Array<String>}] keys of rows that are witnessed by acts (Bindings, on_act)
        # @raise [NimbleLedger::Record::Entry::Refused] for anything else, when the transaction ends
        def append(kind, subject, body, witnessed: {})
          @shop.transaction { @shop.acts << Act.new(kind, subject, body, witnessed) }
        end

        # What Shop#transaction calls before it ends: the acts in their order, the last one with what was touched; what
        # was touched without an act stands by itself.
        # @param acts [Array<Act>]
        def settle(acts)
          rows = Witness.new(@shop).take(named(acts))
          return if acts.empty? && rows.empty?

          acts = [Act.new("changed", rows.keys.join(", "), {}, {})] if acts.empty?
          parts = in_parts(rows)
          at_the_end do
            acts[..-2].each { |act| store(act, {}) }
            store(acts.last, parts.shift || {})
            parts.each { |part| store(Act.new("changed", acts.last.subject, {}, {}), part) }
          end
        end

        # Takes everything that binds and stands in no entry yet into the record, in entries of one kind: of a shop
        # from before rows were witnessed.
        # @param rows [Hash{String=>Hash{String=>String}}]
        def list(kind, subject, rows)
          parts = in_parts(rows)
          parts = [{}] if parts.empty?
          at_the_end do
            parts.each_with_index do |part, i|
              store(Act.new(kind, subject, { "part" => i + 1, "of" => parts.size }, {}), part)
            end
          end
        end

        # The end of the chain in short, as it is printed on paper: "412 9c1f0a77b3de".
        def head
          row = newest
          NimbleLedger::Record::Chain.head(row && link(row))
        end

        private

        # Nobody else adds meanwhile; whoever keeps heads outside is told.
        def at_the_end
          @shop.alone("record")
          @last = newest
          yield
          @shop.db.notify(CHANNEL, payload: @shop.id)
        end

        # Keys of rows that are witnessed by acts.
        def named(acts) = acts.map(&:witnessed).reduce({}) { |all, one| all.merge(one) { |_name, a, b| a | b } }

        def keys = @keys ||= Keys.current

        def newest = @shop[:record_entries].order(Sequel.desc(:seq)).first

        def link(row) = NimbleLedger::Record::Chain::Link.new(row[:seq], row[:bytes], row[:mac], row[:key_id])

        def in_parts(rows)
          rows
            .flat_map { |table, digests| digests.map { |key, digest| { table => { key => digest } } } }
            .each_slice(ROWS_AT_ONCE)
            .map { |slice| slice.reduce({}) { |part, one| part.merge(one) { |_table, a, b| a.merge(b) } } }
        end

        def store(act, rows)
          at = @shop.now
          seq = @last ? @last[:seq] + 1 : 1
          bytes = entry(act, rows, seq, at).bytes
          mac = keys.chain.mac(keys.newest, @last ? @last[:mac] : NimbleLedger::Record::Chain::START, bytes)
          @shop.db[:record_entries].insert(
            shop_id: @shop.id,
            seq: seq,
            at: at,
            kind: act.kind,
            subject: act.subject,
            bytes: Sequel.blob(bytes),
            mac: mac,
            key_id: keys.newest
          )
          @last = { seq: seq, mac: mac }
        end

        def entry(act, rows, seq, at)
          NimbleLedger::Record::Entry.new(
            seq: seq,
            at: at.getutc.strftime("%FT%T.%6NZ"),
            actor: @shop.actor.to_h.compact.to_h { |name, value| [name.to_s, value.to_s] },
            kind: act.kind,
            subject: act.subject,
            body: rows.empty? ? act.body : act.body.merge("rows" => rows)
          )
        end
      end
    end
  end
end
