# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Marks made on a card, handed in by devices in any order and as often as they like: each is kept once, as it was
      # made. What they come to is the core's fold over all of them.
      class Marks
        def initialize(shop)
          @shop = shop
        end

        # @param job [Hash] row
        # @return [Array<NimbleLedger::Card::Event>]
        def of(job) =
          @shop[:job_marks]
            .where(job_id: job[:id])
            .select_map(:mark)
            .map { |mark| NimbleLedger::Card::Event.new(mark.to_h) }

        # @return [NimbleLedger::Card::Fold]
        def fold(job) = NimbleLedger::Card::Fold.new(of(job))

        # @param card [Cards::Card]
        # @param device [String] whose marks they are
        # @param given [Array<Hash>]
        # @return [MarkIntake] with what was taken and refused, and the card's fold after it
        def hand_in(card, device, given)
          @shop.transaction do
            @shop.alone("job:#{card.job[:id]}")
            intake = MarkIntake.new(@shop, card, of(card.job))
            given.each_with_index { |mark, i| intake.take(mark, path: "/marks/#{i}") }
            intake.store(device)
            Feature.publish(:finished, @shop, quote_id: card.job[:quote_id]) if intake.finishes?
            Live.tell(@shop, "jobs")
            intake
          end
        end
      end
    end
  end
end
