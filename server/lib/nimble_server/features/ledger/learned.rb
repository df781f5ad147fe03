# frozen_string_literal: true

require "open3"

module NimbleServer
  module Features
    module Ledger
      # What the ledger teaches, learned anew when it has moved: asked for where it moves, worked out in the background
      # (LearnJob) by a process of its own, so that no quote waits for it. Until it is done the last of it is shown.
      class Learned
        # It is tried again.
        class NotLearned < StandardError
        end

        COMMAND = File.join(ROOT, "bin/learn")

        # @param shop [Shop]
        def initialize(shop)
          @shop = shop
        end

        # @return [Hash, nil] "answer", "lesson", "steps", "protocols" (NimbleLedger::Ledger::History#learn); nil before
        #   the first
        def last = stored && stored[:learned]&.to_h

        # @return [String, nil] the state of the ledger it was learned from
        def state = stored && stored[:state]

        # @return [Float, nil] the share that is done of what is being learned; nil where nothing has moved since
        def progress = state == now ? nil : (stored && stored[:progress]) || 0.0

        # Has it learned anew if it moved and nobody has asked for that yet.
        def ask
          now = self.now
          return if state == now

          row = { shop_id: @shop.id, asked: now, progress: 0.0 }
          fresh =
            @shop.db[:ledger_learned]
              .insert_conflict(
                target: :shop_id,
                update: row.except(:shop_id),
                update_where: Sequel.lit("ledger_learned.asked IS DISTINCT FROM ?", now)
              )
              .returning(:shop_id)
              .insert(row)
          Background.on(@shop.db) { LearnJob.enqueue(@shop.id) } if fresh.any?
          @stored = nil
        end

        # Learns, here and now; what is taken by itself is taken.
        def learn
          state = now
          return if self.state == state

          keep(state, answer(JSON.generate(history)))
          Lessons.new(@shop).learned
        end

        # @return [String] what it would be learned from now
        def now = "#{Posting.new(@shop).state} #{@shop.newest(:house_settings)}"

        private

        def stored = @stored ||= @shop[:ledger_learned].first

        # As this shop estimates: learned with its own figures.
        def history = Posting.new(@shop).history.merge("house" => HouseRules::House.new(@shop).settings.to_h)

        # @param history [String] JSON
        # @return [Hash]
        def answer(history)
          Open3.popen3({ "RUBYOPT" => nil }, "ruby", COMMAND, "-") do |input, output, said, child|
            writing = Thread.new { hand_in(input, history) }
            reading = Thread.new { output.read }
            said.each_line { |line| told(line) }
            writing.join
            raise NotLearned, "bin/learn ended with #{child.value.exitstatus}" unless child.value.success?

            JSON.parse(reading.value)
          end
        end

        # A child that has ended reads no more: how it ended says why.
        def hand_in(input, history)
          input.write(history)
        rescue Errno::EPIPE
          nil
        ensure
          input.close
        end

        def told(line)
          @shop[:ledger_learned].update(progress: Float(line))
          Live.tell(@shop, "ledger")
        rescue ArgumentError
          nil # something else that Ruby had to say
        end

        def keep(state, learned)
          row = {
            shop_id: @shop.id,
            state: state,
            learned: Sequel.pg_jsonb(learned),
            learned_at: @shop.now,
            progress: nil
          }
          @shop.db[:ledger_learned].insert_conflict(target: :shop_id, update: row.except(:shop_id)).insert(row)
          @stored = nil
          Live.tell(@shop, "ledger")
        end
      end
    end
  end
end
