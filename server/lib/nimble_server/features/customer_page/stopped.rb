# frozen_string_literal: true

module NimbleServer
  module Features
    module CustomerPage
      # What the customer reads where trouble took the job above what was agreed: what happened, what is done so far,
      # the pictures they may see. The ways on stand below it as scopes.
      class Stopped
        # @param offer [Offers::Offer]
        # @return [Stopped, nil] nil for an offer that is not about trouble
        def self.of(shop, offer, texts)
          scopes = offer.revision[:content].to_h["scopes"]
          return nil unless offer.supplement? && scopes.any? { |scope| scope["way"] }

          new(shop, offer, scopes.first["trouble"].to_a, texts)
        end

        # @param trouble [Array<Hash>] kind, of
        def initialize(shop, offer, trouble, texts)
          @shop = shop
          @offer = offer
          @trouble = trouble
          @texts = texts
        end

        # @return [Array<String>]
        def happened = @trouble.group_by { |row| key(row) }.flat_map { |key, rows| said(key, rows) }.uniq

        # What is done, in plain words; empty where nothing is.
        # @return [Array<String>]
        def done = words ? words.done_so_far : []

        # @return [Array<Jobs::HandOverWords::Found>] with pictures the customer may see
        def pictures = words ? words.found.select(&:picture) : []

        private

        def key(row) = row["kind"] == "broken" && engine.plug("construction") == "multi-piece" ? "shell" : row["kind"]

        # Those alike in one sentence.
        def said(key, rows)
          if key == "mishap"
            return rows.map { |row| @texts.say("page.stop.mishap", what: row["of"].split(" ", 2).last) }
          end

          numbers = rows.flat_map { |row| engine.target(row["of"])&.cylinders.to_a }.uniq.sort
          [@texts.say("page.stop.#{key}", count: numbers.size, list: @texts.list(numbers.map(&:to_s)))]
        end

        def engine = @engine ||= Library.engine(@shop, @offer.revision[:engine_profile_id])

        def words
          return @words if defined?(@words)

          job = @shop[:jobs].where(id: @offer.row[:job_id]).first
          @words = job && Jobs::HandOverWords.new(@shop, job, @texts)
        end
      end
    end
  end
end
