# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A job that was handed over, as other features are told of it (`handed_over`).
      #   job:          [Hash] row
      #   revision:     [Integer] of its card
      #   work:         [NimbleLedger::Job] as it was agreed
      #   state:        [Hash] the card's fold
      #   actuals:      [Hash] see Standings#actuals
      #   so_far_cents: [Integer, nil] what it came to; nil where it cannot be said in money
      FinishedJob =
        Struct.new(:job, :revision, :work, :state, :actuals, :so_far_cents, keyword_init: true) do
          # @param card [Cards::Card]
          # @param fold [NimbleLedger::Card::Fold]
          def self.of(shop, card, fold)
            standings = Standings.new(shop)
            new(
              job: card.job,
              revision: card.revision,
              work: card.work,
              state: fold.state,
              actuals: standings.actuals(card, fold),
              so_far_cents: standings.standing(card, fold).so_far_cents
            )
          end
        end
    end
  end
end
