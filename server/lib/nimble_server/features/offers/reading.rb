# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # Reads offers with all that belongs to them, as they stand at a moment.
      class Reading
        def initialize(shop)
          @shop = shop
        end

        # @return [Offer]
        # @raise [Refusal] 404
        def find(id)
          row = @shop[:offers].where(id: id).first or raise Refusal.not_found("offer")
          build(row)
        end

        # Of a quote, newest first.
        # @return [Array<Offer>]
        def of_quote(quote_id) =
          @shop[:offers].where(quote_id: quote_id).order(Sequel.desc(:created_at), :id).map { |row| build(row) }

        # @raise [Refusal] 409 while an offer of the quote waits for an answer
        def refuse_open(quote) = of_quote(quote[:id]).any?(&:open?) && raise(Quotes::Desk::BOUND)

        private

        def build(row)
          revision = @shop[:quote_revisions].where(id: row[:revision_id]).first
          Offer.new(
            row,
            quote: @shop[:quotes].where(id: row[:quote_id]).first,
            revision: revision,
            scopes: scopes(row),
            questions: @shop[:offer_questions].where(offer_id: row[:id]).order(:created_at, :id).all
          )
        end

        def scopes(row)
          frozen = @shop[:quote_scopes].where(revision_id: row[:revision_id]).as_hash(:id)
          answers = @shop[:offer_answers].where(offer_id: row[:id]).as_hash(:position)
          struck = @shop[:struck_answers].where(offer_id: row[:id], undone_at: nil).as_hash(:position)
          rows = @shop[:offer_scopes].where(offer_id: row[:id]).order(:position).all
          standings = standings(row, rows, answers.except(*struck.keys), frozen, over: struck.any?)
          rows.map do |one|
            at = one[:position]
            OfferedScope.new(one, frozen.fetch(one[:scope_id]), answers[at], standings[at], struck: struck[at])
          end
        end

        # @param counts [Hash{Integer=>Hash}] answers that count, by position
        # @param over [Boolean] a yes was struck
        # @return [Hash{Integer=>NimbleLedger::Record::Standing}] by position
        def standings(offer, rows, counts, frozen, over:)
          taken = rows.select { |one| counts.dig(one[:position], :answer) == "yes" }
          rows.to_h do |one|
            answer = counts[one[:position]]
            [one[:position], over ? over(offer, answer) : standing(offer, one, answer, taken, frozen)]
          end
        end

        # Where a yes was struck nothing of the offer can be answered any more: it is offered again.
        def over(offer, answer) =
          NimbleLedger::Record::Standing.new(
            expires_at: offer[:expires_at],
            now: @shop.now,
            answer: answer && answer[:answer],
            superseded: true
          )

        def standing(offer, row, answer, taken, frozen)
          targets = ->(one) { frozen.fetch(one[:scope_id])[:request].to_h["targets"] }
          elsewhere = taken.any? { |one| one != row && targets.call(one).intersect?(targets.call(row)) }
          NimbleLedger::Record::Standing.new(
            expires_at: offer[:expires_at],
            now: @shop.now,
            answer: answer && answer[:answer],
            superseded: !offer[:superseded_at].nil? || elsewhere
          )
        end
      end
    end
  end
end
