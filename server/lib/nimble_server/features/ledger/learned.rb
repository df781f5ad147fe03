# frozen_string_literal: true

require "open3"

module NimbleServer
  module Features
    module Ledger
      # What the ledger teaches, learned anew when it has moved: in a process of its own, so that no quote waits for it.
      # Until it is done the last of it is shown.
      class Learned
        COMMAND = File.join(ROOT, "bin/answer")
        @learning = {}
        @lock = Mutex.new

        class << self
          # One at a time for each shop of this process.
          def once(shop_id, &learn)
            @lock.synchronize { @learning[shop_id] = Thread.new(&learn) unless @learning[shop_id]&.alive? }
          end

          # @param history [String] JSON
          # @return [Hash]
          def answer(history)
            out, status = Open3.capture2({ "RUBYOPT" => nil }, "ruby", COMMAND, "-", stdin_data: history)
            unless status.success?
              raise Refusal.new(503, "not_learned", "The ledger could not be read just now. Try again.")
            end

            JSON.parse(out)
          end

          # Until what is being learned here is there.
          def wait(shop_id) = @lock.synchronize { @learning[shop_id] }&.join
        end

        # @param shop [Shop]
        # @param patient [Boolean] whether to wait until it is learned
        def initialize(shop, patient: false)
          @shop = shop
          @patient = patient
        end

        # @return [Hash] "answer" (formats.md, learned; nil before the first), "learning": whether a newer one is coming
        def to_h
          state = Book.new(@shop).state
          kept = stored
          return { "answer" => kept[:answer].to_h, "learning" => false } if kept && kept[:state] == state

          learn(state)
          kept = stored if @patient
          { "answer" => kept && kept[:answer].to_h, "learning" => !@patient }
        end

        private

        def stored = @shop[:ledger_learned].first

        def learn(state)
          history = JSON.generate(Book.new(@shop).history)
          return keep(state, Learned.answer(history)) if @patient

          db, id = @shop.db, @shop.id
          Learned.once(id) do
            answer = Learned.answer(history)
            Database.within_shop(db, id) { Learned.new(Shop.new(db, id)).send(:keep, state, answer) }
          end
        end

        def keep(state, answer)
          row = { shop_id: @shop.id, state: state, answer: Sequel.pg_jsonb(answer), learned_at: @shop.now }
          @shop.db[:ledger_learned].insert_conflict(target: :shop_id, update: row.except(:shop_id)).insert(row)
          Live.tell(@shop, "ledger")
        end
      end
    end
  end
end
