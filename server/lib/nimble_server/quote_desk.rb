# frozen_string_literal: true

module NimbleServer
  # Quotes as an advisor works on them: start, autosaved working copy, save as a revision, find again.
  class QuoteDesk
    LIST_LIMIT = 50
    PANELS = %w[trouble beside].freeze

    # @param effort [Proc] gives what one scope's page may compute
    def initialize(shop, effort: -> { NimbleLedger::Access::Effort.new })
      @shop = shop
      @effort = effort
    end

    # @return [String] id of the new quote
    def start(vehicle_id)
      vehicle = Garage.new(@shop).find(vehicle_id)
      @shop.transaction do
        number = @shop.next_number("quote")
        engine = Library.newest_engine(@shop, vehicle[:engine_code])
        @shop.insert(
          :quotes,
          number: number,
          vehicle_id: vehicle_id,
          engine_profile_id: engine[:id],
          updated_at: @shop.now,
          search: Garage.search_text(vehicle, number)
        )
      end
    end

    # Newest first; every word must occur in number, plate, name, phone, description or engine code.
    def list(text)
      words = text.to_s.strip.downcase.split.first(6)
      rows = words.reduce(@shop[:quotes]) { |set, word| set.where(Sequel.like(:search, "%#{set.escape_like(word)}%")) }
      rows = rows.order(Sequel.desc(:updated_at), :id).limit(LIST_LIMIT).all
      vehicles = vehicles_of(rows)
      rows.map { |row| card(row, vehicles[row[:vehicle_id]]) }
    end

    # Everything the Quote page needs.
    def open(id)
      quote = find(id)
      page(quote, draft_of(quote))
    end

    # Moves a quote to the newest revision of its engine; what does not fit there is dropped from the working copy and
    # named.
    # Saved revisions keep theirs.
    def renew_engine(id)
      @shop.transaction do
        quote = @shop[:quotes].where(id: id).for_update.first or raise Refusal.not_found("quote")
        newest = Library.newest_engine(@shop, Library.heads(@shop).where(id: quote[:engine_profile_id]).get(:code))
        @shop[:quotes].where(id: id).update(engine_profile_id: newest[:id], updated_at: @shop.now)
      end
      quote = find(id)
      page(quote, draft_of(quote))
    end

    # Stores the working copy and prices it.
    # @param base_revision [Integer, nil] set when the advisor keeps this copy on top of a newer revision
    # @raise [Refusal] 409 with both versions when another window has stored a newer one; 422 for a revision that is not
    # there
    def store_draft(id, version, content, base_revision = nil)
      quote = find(id)
      known_revision(quote, base_revision)
      answer = priced(price(quote, content)) # what cannot be priced is not stored
      draft =
        @shop.transaction do
          current = drafts(quote).for_update.first || insert_draft(quote)
          raise draft_conflict(current, content) unless current[:version] == version

          drafts(quote)
            .returning
            .update(
              version: version + 1,
              content: Sequel.pg_jsonb(content),
              updated_at: @shop.now,
              base_revision: base_revision || current[:base_revision]
            )
            .first
        end
      { "draft" => draft_row(draft) }.merge(answer)
    end

    # What a panel shows beyond the page, of the working copy as it is stored: looking stores nothing.
    # @param panel [String] one of PANELS
    # @return [Hash] see the contract, PanelFigures
    def panel(id, panel)
      quote = find(id)
      draft = draft_of(quote)
      pricing = price(quote, fitted(quote, draft).first, compare_soaks: panel == "trouble")
      figures = panel == "beside" ? { "beside" => pricing.side_by_side } : pricing.sheet.slice("trouble")
      { "version" => draft[:version] }.merge(figures)
    end

    # Freezes the working copy as the next revision, at the price that was shown. A version that was saved already is
    # not saved again: its revision comes back.
    # @param priced_with [Hash] what the page shows the copy is priced with, see the contract, PricedWith
    # @raise [Refusal] 409 with both versions when somebody saved in between, 409 with both totals when the price is no
    # longer
    #   the one shown, 422 when there is nothing to save
    def save(id, version, priced_with)
      quote = find(id)
      @shop.transaction do
        quote = @shop[:quotes].where(id: quote[:id]).for_update.first
        draft = drafts(quote).for_update.first or
          raise Refusal.new(422, "nothing_to_save", "Nothing has been changed since the last save.")
        raise draft_conflict(draft, draft[:content]) unless draft[:version] == version

        saved =
          revisions(quote).where(:draft_version => version, Sequel[:quote_revisions][:created_by] => @shop.actor).first
        next saved_row(saved, draft) if saved
        raise revision_conflict(quote, draft) unless draft[:base_revision] == quote[:latest_revision]

        content, = fitted(quote, draft)
        pricing = price(quote, content, compare_soaks: true)
        raise price_change(priced_with, pricing) unless pricing.priced_with == priced_with

        revision = QuoteRevision.new(@shop, quote, pricing, content, version).store
        drafts(quote).update(base_revision: revision[:revision], updated_at: @shop.now)
        saved_row(revision.merge(actor: actor_name(@shop.actor)), drafts(quote).first)
      end
    end

    # A saved revision as it was shown: frozen answers, nothing recomputed.
    def revision(id, number)
      quote = find(id)
      row = revisions(quote).where(revision: number).first or raise Refusal.not_found("revision")
      scopes = @shop[:quote_scopes].where(revision_id: row[:id]).order(:position).all
      {
        "revision" => revision_row(row),
        "content" => row[:content].to_h,
        "rules" => row[:rules],
        "scopes" =>
          scopes.map do |s|
            {
              "name" => s[:name],
              "request" => s[:request].to_h,
              "answer" => s[:answer].to_h,
              "page" => s[:page].to_h,
              "total_cents" => s[:total_cents]
            }
          end
      }
    end

    def find(id) = @shop[:quotes].where(id: id).first || raise(Refusal.not_found("quote"))

    private

    def page(quote, draft)
      content, dropped = fitted(quote, draft)
      pricing = price(quote, content)
      {
        "quote" => quote_row(quote),
        "vehicle" => Garage.card(pricing.vehicle, @shop.now),
        "engine" => Features::Engines.row(pricing.engine_row, pricing.engine),
        "newest_engine_revision" => Library.newest_engine(@shop, pricing.engine_row[:code])[:revision],
        "dropped" => dropped,
        "draft" => draft_row(draft.merge(content: content)),
        "revisions" => revisions(quote).order(:revision).all.map { |row| revision_row(row) }
      }.merge(priced(pricing))
    end

    def price(quote, content, **rest) = QuotePricing.new(@shop, quote, content, effort: @effort, **rest)

    # A working copy without what the quote's engine revision does not have, and what that was: what is shown is what is
    # saved.
    # @return [Array(Hash, Array<String>)]
    def fitted(quote, draft) =
      NimbleLedger::Quote::Content.fit(draft[:content].to_h, Library.engine(@shop, quote[:engine_profile_id]))

    def known_revision(quote, number)
      return if number.nil? || number.between?(0, quote[:latest_revision])

      raise Refusal.new(
              422,
              "unknown_revision",
              "This quote has no revision #{number}: it was not saved that often.",
              details: [{ "path" => "/base_revision", "message" => "is above #{quote[:latest_revision]}" }]
            )
    end

    def saved_row(revision, draft) = { "revision" => revision_row(revision), "draft" => draft_row(draft) }

    def priced(pricing)
      {
        "sheet" => pricing.sheet,
        "others" => pricing.others,
        "resolved" => pricing.resolved,
        "priced_with" => pricing.priced_with
      }
    end

    def drafts(quote) = @shop[:quote_drafts].where(quote_id: quote[:id], account_id: @shop.actor)

    # The user's working copy, or what a fresh one would hold; looking at a quote stores nothing.
    def draft_of(quote) = drafts(quote).first || fresh_draft(quote)

    def fresh_draft(quote)
      newest = revisions(quote).where(revision: quote[:latest_revision]).first
      {
        shop_id: @shop.id,
        quote_id: quote[:id],
        account_id: @shop.actor,
        version: 1,
        base_revision: quote[:latest_revision],
        content: newest ? newest[:content] : NimbleLedger::Quote::Content.start,
        updated_at: @shop.now
      }
    end

    def insert_draft(quote)
      row = fresh_draft(quote)
      @shop.db[:quote_drafts].insert_conflict.insert(row.merge(content: Sequel.pg_jsonb(row[:content].to_h)))
      drafts(quote).for_update.first
    end

    def revisions(quote)
      @shop[:quote_revisions]
        .where(quote_id: quote[:id])
        .left_join(:accounts, id: Sequel[:quote_revisions][:created_by])
        .select_all(:quote_revisions)
        .select_append(Sequel[:accounts][:name].as(:actor))
    end

    def draft_conflict(current, yours)
      Refusal.new(
        409,
        "draft_conflict",
        "This quote was changed in another window. Both versions are here: choose one, nothing is lost.",
        extra: {
          "yours" => yours.to_h,
          "theirs" => current[:content].to_h,
          "theirs_version" => current[:version],
          "theirs_by" => actor_name(@shop.actor),
          "theirs_at" => current[:updated_at].iso8601
        }
      )
    end

    def revision_conflict(quote, draft)
      newest = revisions(quote).where(revision: quote[:latest_revision]).first
      Refusal.new(
        409,
        "revision_conflict",
        "#{newest[:actor]} saved revision #{newest[:revision]} while you were working. Both versions are here: " \
          "choose one, nothing is lost.",
        extra: {
          "yours" => draft[:content].to_h,
          "theirs" => newest[:content].to_h,
          "theirs_revision" => newest[:revision],
          "theirs_by" => newest[:actor],
          "theirs_at" => newest[:created_at].iso8601
        }
      )
    end

    # Codes of what is not as it was shown; the page chooses the words.
    def price_change(shown, pricing)
      now = pricing.priced_with
      shown ||= {}
      changed = %w[engine prices house].reject { |key| shown[key] == now[key] }
      changed << "car" if changed.empty?
      active = pricing.content.active
      Refusal.new(
        409,
        "price_change",
        "The price is no longer the one you were shown. Nothing was saved; look at it again.",
        extra: {
          "changed" => changed,
          "shown_cents" => (shown["totals"] || [])[active],
          "now_cents" => now["totals"][active]
        }
      )
    end

    def actor_name(id) = @shop.db[:accounts].where(id: id, shop_id: @shop.id).get(:name)

    def vehicles_of(rows)
      ids = rows.map { |row| row[:vehicle_id] }.uniq
      @shop[:vehicles]
        .where(Sequel[:vehicles][:id] => ids)
        .left_join(:customers, shop_id: Sequel[:vehicles][:shop_id], id: Sequel[:vehicles][:customer_id])
        .select_all(:vehicles)
        .select_append(Sequel[:customers][:name].as(:customer_name))
        .as_hash(:id)
    end

    def card(row, vehicle)
      quote_row(row).merge(
        "plate" => vehicle[:plate],
        "description" => vehicle[:description],
        "engine_code" => vehicle[:engine_code],
        "customer" => vehicle[:customer_name]
      )
    end

    def quote_row(row)
      {
        "id" => row[:id],
        "number" => row[:number],
        "status" => row[:status],
        "latest_revision" => row[:latest_revision],
        "total_cents" => row[:total_cents],
        "currency" => row[:currency],
        "summary" => row[:summary],
        "updated_at" => row[:updated_at].iso8601
      }
    end

    def draft_row(draft)
      {
        "version" => draft[:version],
        "base_revision" => draft[:base_revision],
        "content" => draft[:content].to_h,
        "updated_at" => draft[:updated_at].iso8601
      }
    end

    def revision_row(row)
      {
        "revision" => row[:revision],
        "created_at" => row[:created_at].iso8601,
        "by" => row[:actor],
        "total_cents" => row[:total_cents],
        "currency" => row[:currency]
      }
    end
  end
end
