# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # One scope of an offer with everything that was frozen of it, what was answered, and where it stands.
      class OfferedScope
        attr_reader :row, :answer, :struck

        # @param row [Hash] of offer_scopes
        # @param frozen [Hash] of quote_scopes
        # @param answer [Hash, nil] of offer_answers
        # @param standing [NimbleLedger::Record::Standing]
        # @param struck [Hash, nil] of struck_answers: the answer counts no more
        def initialize(row, frozen, answer, standing, struck: nil)
          @row = row
          @frozen = frozen
          @answer = answer
          @standing = standing
          @struck = struck
        end

        def position = row[:position]
        def title = row[:title]
        def total_cents = row[:total_cents]
        def limit_cents = row[:limit_cents]

        # What was agreed to before this supplement; 0 for a first offer.
        def before_cents = row[:agreed_before_cents]

        def state = @standing.state
        def open? = @standing.open?

        # Frozen documents of the revision.
        def request = @frozen[:request].to_h
        def estimate = @frozen[:answer].to_h
        def page = @frozen[:page].to_h
        def name = @frozen[:name]
      end
    end
  end
end
