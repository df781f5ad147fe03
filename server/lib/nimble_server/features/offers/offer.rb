# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # An offer as it stands now: the revision that was offered, its scopes with their answers, its questions.
      class Offer
        attr_reader :row, :revision, :quote, :scopes, :questions

        # @param rows [Rows] of this offer
        def initialize(row, quote:, revision:, scopes:, questions:)
          @row = row
          @quote = quote
          @revision = revision
          @scopes = scopes
          @questions = questions
        end

        def id = row[:id]
        def supplement? = !row[:job_id].nil?

        # @return [String] one of NimbleLedger::Record::Standing::STATES
        def state = NimbleLedger::Record::Standing.of_all(scopes.map(&:state))

        def open? = scopes.any?(&:open?)

        # Whether what was said to it was taken back: nothing follows from it any more.
        def struck? = scopes.any?(&:struck)
        def revoked? = !row[:link_revoked_at].nil?

        # @raise [Refusal] 404 for a position that was not offered
        def scope(position) =
          scopes.find { |scope| scope.position == position } || raise(Refusal.not_found("scope in this offer"))

        # What an act on it is recorded under.
        def subject(scope = nil) =
          [
            "quote #{quote[:number]}, revision #{revision[:revision]}",
            scope && "scope #{scope.position + 1}"
          ].compact.join(", ")

        # What was agreed to, if anything.
        # @return [OfferedScope, nil]
        def agreed = scopes.find { |scope| scope.state == "authorized" }
      end
    end
  end
end
