# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # What the newest saved revision of a quote would offer: its scopes with total and limit.
      class Proposal
        # position; what was frozen; title; total and limit in cents; what was agreed to before, in cents
        Row =
          Struct.new(:position, :frozen, :title, :total_cents, :limit_cents, :agreed_before_cents) do
            def incomplete? = frozen[:answer].to_h.dig("price", "incomplete") == true
          end

        attr_reader :quote, :revision

        # @param quote [Hash] row
        def initialize(shop, quote)
          @shop = shop
          @quote = quote
          @revision = shop[:quote_revisions].where(quote_id: quote[:id], revision: quote[:latest_revision]).first
        end

        # @return [Boolean] whether anything was saved that could be offered
        def any? = !revision.nil?

        # Titles of scopes whose total lacks the price of a part: an offer is never less than it says.
        # @return [Array<String>]
        def incomplete = rows.select(&:incomplete?).map(&:title)

        # Where everything that was agreed to was taken back it would be an offer like the first.
        # @return [Hash, nil] the job it would be a supplement to
        def job = @job ||= AgreedJobs.of(@shop[:jobs]).where(quote_id: quote[:id]).first

        # When an offer made now lapses.
        # @return [Time]
        def expires_at = @shop.now + (house["quote_days"] * 86_400)

        # @return [Array<Row>]
        def rows
          @rows ||= @shop[:quote_scopes].where(revision_id: revision[:id]).order(:position).map { |scope| row(scope) }
        end

        # The offer it would be, for looking at: nothing is stored.
        # @return [Offer]
        def as_offer(recipient)
          values = {
            id: nil,
            recipient: recipient,
            language: Documents::Texts.of(@shop.profile[:locale]).language,
            job_id: job && job[:id],
            expires_at: expires_at
          }
          Offer.new(values, quote: quote, revision: revision, scopes: offered, questions: [])
        end

        private

        def house = @house ||= HouseRules::House.new(@shop).settings

        def row(scope)
          Row.new(
            scope[:position],
            scope,
            scope[:name].empty? ? scope[:page].to_h["title"].to_s : scope[:name],
            scope[:total_cents],
            limit(scope),
            job ? job[:agreed_cents] : 0
          )
        end

        # What trouble above the limit is asked with has a limit of its own: what already happened is in the price.
        def limit(scope)
          page = scope[:page].to_h
          own = content(scope)["limit_cents"]
          offered = NimbleLedger::Record::Limit.offered(scope[:answer].to_h, own ? {} : page, house)
          [own, offered].compact.max
        end

        def content(scope) = revision[:content].to_h["scopes"][scope[:position]]

        def offered
          standing = NimbleLedger::Record::Standing.new(expires_at: expires_at, now: @shop.now)
          rows.map { |row| OfferedScope.new(row.to_h, row.frozen, nil, standing) }
        end
      end
    end
  end
end
