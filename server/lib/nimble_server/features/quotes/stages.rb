# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # How far each of some quotes has come, and what was done with it last: from a draft to a car that was handed
      # over.
      class Stages
        # What can still happen comes last: whatever is true further down speaks for the quote.
        NAMES = %w[draft saved waiting seen lapsed declined agreed in-bay done handed-over called-off].freeze

        # name: one of NAMES; at: when it came so far; reason: why not, where somebody said so; job_id; put_away.
        Stage =
          Struct.new(:name, :at, :reason, :job_id, :put_away, keyword_init: true) do
            # @return [Hash] see the contract, QuoteCard
            def to_h =
              {
                "stage" => name,
                "stage_at" => at.iso8601,
                "reason" => reason.to_s.empty? ? nil : reason,
                "job_id" => job_id,
                "put_away" => put_away
              }
          end

        # @param rows [Array<Hash>] of quotes
        def initialize(shop, rows)
          @shop = shop
          ids = rows.map { |row| row[:id] }
          @jobs = shop[:jobs].where(quote_id: ids).as_hash(:quote_id)
          @offers = shop[:offers].where(quote_id: ids).order(:created_at, :id).as_hash(:quote_id)
          @noes = noes
          @called_off = called_off
        end

        # @param quote [Hash] row
        # @return [Stage]
        def of(quote)
          job = @jobs[quote[:id]]
          stage = job && !struck?(job) ? of_job(job) : of_offer(quote, @offers[quote[:id]])
          stage.put_away = !quote[:put_away_at].nil?
          stage.job_id = job && job[:id]
          stage
        end

        private

        # The last no to each of the newest offers.
        def noes =
          @shop[:offer_answers]
            .where(offer_id: @offers.values.map { |offer| offer[:id] }, answer: "no")
            .order(:created_at)
            .as_hash(:offer_id)

        def called_off =
          @shop[:called_off_jobs].where(job_id: @jobs.values.map { |job| job[:id] }, undone_at: nil).as_hash(:job_id)

        # Whether nothing is agreed to any more because the yes was a mistake: it is a quote like others again.
        def struck?(job) = @called_off.dig(job[:id], :struck)

        def of_job(job)
          called_off = @called_off[job[:id]]
          return Stage.new(name: "called-off", at: job[:called_off_at], reason: called_off[:reason]) if called_off

          at = { "handed-over" => :handed_over_at, "done" => :finished_at, "in-bay" => :started_at }
          name, column = at.find { |_name, moment| job[moment] } || ["agreed", :created_at]
          Stage.new(name: name, at: job[column])
        end

        def of_offer(quote, offer)
          return saved(quote) unless offer && %w[sent declined expired].include?(quote[:status])

          no = @noes[offer[:id]]
          return Stage.new(name: "declined", at: no[:created_at], reason: no[:reason]) if no
          return Stage.new(name: "lapsed", at: offer[:expires_at]) if offer[:expires_at] <= @shop.now

          Stage.new(name: offer[:seen_at] ? "seen" : "waiting", at: offer[:seen_at] || offer[:created_at])
        end

        def saved(quote) =
          Stage.new(name: quote[:latest_revision].positive? ? "saved" : "draft", at: quote[:updated_at])
      end
    end
  end
end
