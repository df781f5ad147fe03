# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Quotes as an advisor works on them: start, autosaved working copy, save as a revision, find again.
      class Desk
        LIST_LIMIT = 50
        PANELS = %w[trouble beside newer-engine].freeze

        # @param effort [Proc] gives what one scope's page may compute
        def initialize(shop, effort: -> { NimbleLedger::Access::NodeBudget.new })
          @shop = shop
          @effort = effort
          @drafts = Drafts.new(shop)
          @revisions = Revisions.new(shop)
        end

        # @return [String] id of the new quote
        def start(vehicle_id)
          vehicle = Vehicles::Garage.new(@shop).find(vehicle_id)
          @shop.transaction do
            number = @shop.next_number("quote")
            engine = Library.newest_engine(@shop, vehicle[:engine_code])
            @shop.insert(
              :quotes,
              number: number,
              vehicle_id: vehicle_id,
              engine_profile_id: engine[:id],
              updated_at: @shop.now,
              search: Vehicles::Garage.search_text(vehicle, number)
            )
          end
        end

        # Newest first; every word must occur in number, plate, name, phone, description or engine code.
        def list(text)
          words = text.to_s.strip.downcase.split.first(6)
          rows = words.empty? ? @shop[:quotes].where(put_away_at: nil) : @shop[:quotes].where(id: found(words))
          cards(rows.order(Sequel.desc(:updated_at), :id).limit(LIST_LIMIT).all)
        end

        # @param rows [Array<Hash>] of quotes
        # @return [Array<Hash>] see the contract, QuoteCard
        def cards(rows)
          vehicles = vehicles_of(rows)
          stages = Stages.new(@shop, rows)
          rows.map { |row| Rows.card(row, vehicles[row[:vehicle_id]]).merge(stages.of(row).to_h) }
        end

        # Takes a quote nobody wants in sight off the lists; a search still finds it.
        # @return [Hash] see the contract, QuoteCard
        # @raise [Refusal] 404, 409 while it waits for an answer or is agreed to
        def put_away(id)
          @shop.transaction do
            quote = find(id)
            raise BOUND if quote[:status] == "authorized"

            Feature.publish(:putting_away, @shop, quote: quote)
            shelve(quote, @shop.now)
          end
        end

        # @return [Hash] see the contract, QuoteCard
        # @raise [Refusal] 404
        def bring_back(id) = shelve(find(id), nil)

        BOUND =
          Refusal.new(
            409,
            "bound",
            "A customer was told of this quote: call its job off, or close what waits for an answer, first."
          )

        # Everything the Quote page needs.
        def open(id)
          quote = find(id)
          page(quote, @drafts.of(quote))
        end

        # Moves a quote to the newest revision of its engine; what does not fit there is dropped from the working copy
        # and named.
        # Saved revisions keep theirs.
        def renew_engine(id)
          @shop.transaction do
            quote = @shop[:quotes].where(id: id).for_update.first or raise Refusal.not_found("quote")
            newest = Library.newest_engine(@shop, Library.heads(@shop).where(id: quote[:engine_profile_id]).get(:code))
            @shop[:quotes].where(id: id).update(engine_profile_id: newest[:id], updated_at: @shop.now)
          end
          quote = find(id)
          page(quote, @drafts.of(quote))
        end

        # A working copy that is stored: what is known of it at once, and what gives the rest of the page; that asks
        # nothing of the database.
        Stored = Struct.new(:at_once, :later)

        # Stores the working copy and prices it.
        # @return [Stored] together see the contract, Priced
        # @param base_revision [Integer, nil] set when the advisor keeps this copy on top of a newer revision
        # @raise [Refusal] 409 with both versions when another window has stored a newer one; 422 for a revision that is
        # not there
        def store_draft(id, version, content, base_revision = nil)
          quote = find(id)
          known_revision(quote, base_revision)
          pricing = price(quote, content)
          figures = { "balance" => pricing.balance, **terms(pricing) } # what cannot be priced is not stored
          draft = @drafts.store(quote, version, content, base_revision)
          Stored.new({ "draft" => Rows.draft(draft) }.merge(figures), -> { page_of(pricing) })
        end

        # What a panel shows beyond the page, of the working copy as it is stored: looking stores nothing.
        # @param panel [String] one of PANELS
        # @return [Hash] see the contract, PanelFigures
        def panel(id, panel)
          quote = find(id)
          draft = @drafts.of(quote)
          pricing = price(quote, fitted(quote, draft).first, compare_soaks: panel == "trouble")
          { "version" => draft[:version] }.merge(figures(panel, quote, draft, pricing))
        end

        def figures(panel, quote, draft, pricing)
          case panel
          when "beside"
            beside(pricing)
          when "newer-engine"
            { "newer" => NewerEngine.new(@shop, quote, draft, pricing).to_h }
          else
            pricing.sheet.slice("trouble")
          end
        end
        private :figures

        def beside(pricing) = { "beside" => pricing.side_by_side, "ahead" => pricing.ahead }
        private :beside

        # Freezes the working copy as the next revision, at the price that was shown. A version that was saved already
        # is not saved again, its revision comes back: unless prices, house or car have moved, so that it comes to
        # something else now.
        # @param priced_with [Hash] what the page shows the copy is priced with, see the contract, PricedWith
        # @raise [Refusal] 409 with both versions when somebody saved in between, 409 with both totals when the price is
        # no longer
        #   the one shown, 422 when there is nothing to save
        def save(id, version, priced_with)
          @shop.transaction do
            quote = @shop[:quotes].where(id: id).for_update.first or raise Refusal.not_found("quote")
            stored = @drafts.locked(quote)
            draft = stored || @drafts.of(quote)
            raise Conflicts.draft(draft, draft[:content], by: @shop.actor) unless draft[:version] == version

            saved = stored ? saved_from(quote, version) : @revisions.newest(quote)
            saved ? save_again(quote, draft, saved, priced_with) : freeze_draft(quote, draft, priced_with)
          end
        end

        # A saved revision as it was shown: frozen answers, nothing recomputed.
        def revision(id, number)
          quote = find(id)
          row = @revisions.of(quote).where(revision: number).first or raise Refusal.not_found("revision")
          scopes = @shop[:quote_scopes].where(revision_id: row[:id]).order(:position).all
          {
            "revision" => Rows.revision(row),
            "content" => row[:content].to_h,
            "rules" => row[:rules],
            "provisional" => scopes.any? { |s| s[:request].to_h.dig("engine", "provisional") },
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

        def shelve(quote, at)
          @shop[:quotes].where(id: quote[:id]).update(put_away_at: at)
          Live.tell(@shop, "quotes")
          cards([quote.merge(put_away_at: at)]).first
        end

        # Ids of the newest quotes every word occurs in, by the function that may use the index (migration 011).
        def found(words)
          patterns = words.map { |word| "%#{@shop.db[:quotes].escape_like(word)}%" }
          @shop
            .db
            .from(Sequel.function(:quotes_found, Sequel.pg_array(patterns, :text), LIST_LIMIT).as(:id))
            .select_map(:id)
        end

        # The revision this account has made of that version of its working copy, if any.
        def saved_from(quote, version)
          by = Sequel[:quote_revisions][:created_by]
          @revisions.of(quote).where(:draft_version => version, by => @shop.actor.account_id).first
        end

        # What was saved already: the same again, or what it comes to by now.
        def save_again(quote, draft, saved, priced_with)
          frozen = frozen(quote, draft, priced_with)
          return saved_row(saved, draft) if frozen.same_as?(saved)

          freeze_draft(quote, @drafts.anew(quote, draft), priced_with)
        end

        def freeze_draft(quote, draft, priced_with)
          unless draft[:base_revision] == quote[:latest_revision]
            raise Conflicts.revision(@revisions.newest(quote), draft)
          end

          revision = frozen(quote, draft, priced_with).store
          Live.tell(@shop, "quotes")
          saved_row(revision.merge(actor: @shop.actor.name), @drafts.rebase(quote, revision[:revision]))
        end

        # The working copy as it would be frozen, at the price that was shown.
        # @return [Revision]
        def frozen(quote, draft, priced_with)
          content, = fitted(quote, draft)
          pricing = price(quote, content, compare_soaks: true)
          raise Conflicts.price(priced_with, pricing) unless pricing.priced_with == priced_with

          Revision.new(@shop, quote, pricing, content, draft[:version])
        end

        def page(quote, draft)
          content, dropped = fitted(quote, draft)
          pricing = price(quote, content)
          {
            "quote" => Rows.quote(quote),
            "vehicle" => Vehicles::Garage.card(pricing.vehicle, @shop.now),
            "findings" => Vehicles::Findings.new(@shop).of(quote[:vehicle_id]),
            "fittings" => Vehicles::Fittings.new(@shop).of(pricing.vehicle),
            "engine" => Engines::EngineLibrary.row(pricing.engine_row, pricing.engine),
            "newest_engine_revision" => Library.newest_engine(@shop, pricing.engine_row[:code])[:revision],
            "dropped" => dropped,
            "draft" => Rows.draft(draft.merge(content: content)),
            "revisions" => @revisions.of(quote).order(:revision).all.map { |row| Rows.revision(row) },
            "moved_since" => moved_since(quote, draft, pricing)
          }.merge(page_of(pricing), terms(pricing))
        end

        # The newest revision, where this copy is what it froze and comes to something else by now.
        # @return [Integer, nil]
        def moved_since(quote, draft, pricing)
          newest = @revisions.newest(quote) or return
          return unless plain(newest[:content]) == plain(draft[:content])

          frozen = @shop[:quote_scopes].where(revision_id: newest[:id]).order(:position).select_map(:total_cents)
          frozen == pricing.priced_with["totals"].compact ? nil : newest[:revision]
        end

        def plain(content) = JSON.parse(JSON.generate(content))

        def price(quote, content, **rest) = Pricing.new(@shop, quote, content, effort: @effort, **rest)

        # A working copy without what the quote's engine revision does not have, and what that was: what is shown is
        # what is saved.
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

        def saved_row(revision, draft) = { "revision" => Rows.revision(revision), "draft" => Rows.draft(draft) }

        # What the figures rest on.
        def terms(pricing) = { "resolved" => pricing.resolved, "priced_with" => pricing.priced_with }

        def page_of(pricing) = { "sheet" => pricing.sheet, "others" => pricing.others }

        def vehicles_of(rows)
          ids = rows.map { |row| row[:vehicle_id] }.uniq
          @shop[:vehicles]
            .where(Sequel[:vehicles][:id] => ids)
            .left_join(:customers, shop_id: Sequel[:vehicles][:shop_id], id: Sequel[:vehicles][:customer_id])
            .select_all(:vehicles)
            .select_append(Sequel[:customers][:name].as(:customer_name))
            .as_hash(:id)
        end
      end
    end
  end
end
