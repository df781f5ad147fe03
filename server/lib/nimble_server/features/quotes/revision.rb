# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Freezes a priced quote: revision, scopes with request and answer, lines, and the seal on all of it. Append-only.
      class Revision
        # @param pricing [Pricing] as it was shown
        # @param content [Hash] the working copy it prices
        # @param draft_version [Integer] which version of the working copy is frozen
        def initialize(shop, quote, pricing, content, draft_version)
          @shop = shop
          @quote = quote
          @pricing = pricing
          @content = content
          @draft_version = draft_version
        end

        # Runs inside the caller's transaction.
        # @return [Hash] the stored revision row
        # @raise [Refusal] 422 when no scope holds anything
        def store
          scopes = @pricing.priced_scopes
          if scopes.empty?
            raise Refusal.new(
                    422,
                    "nothing_to_save",
                    "Choose at least one cylinder or one piece of work before saving."
                  )
          end

          row = revision_values(scopes)
          id = @shop.insert(:quote_revisions, row)
          scopes.each { |priced| store_scope(id, priced) }
          @shop[:quotes].where(id: @quote[:id]).update(
            latest_revision: row[:revision],
            total_cents: row[:total_cents],
            currency: row[:currency],
            summary: summary(scopes),
            updated_at: @shop.now
          )
          stored = @shop[:quote_revisions].where(id: id).first
          record(stored, scopes, Seal.new(@shop.db, stored).put_on(at: @shop.now))
          stored
        end

        # Whether a revision that is stored froze just this.
        # @param row [Hash]
        def same_as?(row)
          stored = @shop[:quote_scopes].where(revision_id: row[:id]).order(:position).select_map(%i[position answer])
          now = @pricing.priced_scopes.map { |priced| [priced.index, shown(priced)] }
          stored.map { |position, answer| [position, plain(answer.to_h)] } == now
        end

        private

        # The answer as it is shown.
        def shown(priced) =
          plain(NimbleLedger::Estimate::Answer.new(priced.sheet.answer, assumed_variants: assumed).to_h)

        # The act as the shop's record keeps it, with what was set by hand.
        def record(stored, scopes, digest)
          Record::ActLog.new(@shop).append(
            "revision-saved",
            "quote #{@quote[:number]}, revision #{stored[:revision]}",
            {
              "sha256" => digest,
              "currency" => stored[:currency],
              "total_cents" => stored[:total_cents],
              "scopes" => scopes.map { |priced| offered(priced) }
            }
          )
        end

        def offered(priced)
          answer = priced.sheet.answer
          {
            "title" => priced.scope["name"].to_s.empty? ? priced.sheet.title : priced.scope["name"],
            "quoted_tenths" => answer.quoted_tenths,
            "tenths_by_hand" => answer.override_tenths,
            "discount_cents" => priced.scope.dig("discount", "cents").to_i,
            "total_cents" => answer.price.total_cents
          }
        end

        def revision_values(scopes)
          house = @pricing.house
          shown = scopes.find { |priced| priced.index == @pricing.content.active } || scopes.first
          {
            quote_id: @quote[:id],
            revision: @quote[:latest_revision] + 1,
            rules: NimbleLedger::Rules::NEWEST.number,
            engine_profile_id: @pricing.engine_row[:id],
            price_list_id: @pricing.price_list_id,
            house_settings_id: house.id,
            content: Sequel.pg_jsonb(@content),
            currency: house.settings["currency"],
            currency_exponent: house.settings["currency_exponent"],
            total_cents: shown.sheet.answer.price.total_cents,
            draft_version: @draft_version
          }
        end

        # What the months after bring with it, where the customer is to be told; a price that lacks a part cannot say.
        def months_after(priced)
          ahead = @pricing.ahead
          row = ahead && ahead["shown"] && ahead["rows"].find { |one| one["index"] == priced.index }
          return {} if !row || row["incomplete"]

          { "ahead" => { "months" => ahead["months"], **row.slice("no_comeback", "total_cents") } }
        end

        def store_scope(revision_id, priced)
          answer = priced.sheet.answer
          shown = shown(priced)
          refuse_another(priced, shown)
          id =
            @shop.insert(
              :quote_scopes,
              revision_id: revision_id,
              position: priced.index,
              name: priced.scope["name"].to_s,
              request: Sequel.pg_jsonb(priced.request),
              answer: Sequel.pg_jsonb(shown),
              page: Sequel.pg_jsonb({ **priced.sheet.shown, **months_after(priced) }),
              quoted_tenths: answer.quoted_tenths,
              total_cents: answer.price.total_cents
            )
          store_lines(id, answer.price.list)
        end

        def store_lines(scope_id, lines)
          lines.each_with_index do |line, i|
            values = line.to_h.slice(:kind, :label, :part, :quantity, :unit_cents, :cents)
            @shop.insert(:quote_lines, scope_id: scope_id, position: i, **values)
          end
        end

        # What was shown is frozen; the frozen request must give the same, or nobody could check it later.
        def refuse_another(priced, shown)
          again = plain(NimbleLedger::Estimate::Request.build(priced.request).answer)
          differing = (shown.keys | again.keys).reject { |key| key == "warnings" || shown[key] == again[key] }
          return if differing.empty?

          raise Refusal.new(
                  500,
                  "not_repeatable",
                  "Computed again, this quote comes to something else (#{differing.join(", ")}). It is not saved; " \
                    "please report it."
                )
        end

        # Questions about the car that nobody answered, with what was taken.
        def assumed = @pricing.questions.select { |one| one["assumed"] }.to_h { |one| one.values_at("id", "answer") }

        def plain(answer) = JSON.parse(JSON.generate(answer))

        def summary(scopes)
          scopes
            .map { |priced| priced.scope["name"].to_s.empty? ? priced.sheet.title : priced.scope["name"] }
            .join(" / ")
        end
      end
    end
  end
end
