# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # The unsaved working copies: one per quote and account, with a version. Looking at a quote stores none.
      class Drafts
        def initialize(shop)
          @shop = shop
          @revisions = Revisions.new(shop)
        end

        # @return [Hash] the account's working copy, or what a fresh one would hold
        def of(quote) = rows(quote).first || fresh(quote)

        # @return [Hash, nil] the stored one, locked until the transaction ends
        def locked(quote) = rows(quote).for_update.first

        # @param base_revision [Integer, nil] set when this copy is kept on top of a newer revision
        # @raise [Refusal] 409 when another window has stored a newer one
        def store(quote, version, content, base_revision)
          copy = { content: content, base_revision: base_revision }.compact
          next_version(quote, version, copy) || first_version(quote, version, copy)
        end

        # The same copy at its next version, kept where it was not: what it comes to has changed, nothing in it has.
        def anew(quote, draft)
          store(quote, draft[:version], draft[:content].to_h, nil)
        end

        # The copy stands on a revision it has become.
        def rebase(quote, number) = rows(quote).returning.update(base_revision: number, updated_at: @shop.now).first

        private

        # @return [Hash, nil] nil where the copy that is kept is not of this version
        def next_version(quote, version, copy)
          values = copy.merge(version: version + 1, content: Sequel.pg_jsonb(copy[:content]), updated_at: @shop.now)
          rows(quote).where(version: version).returning.update(values).first
        end

        # A copy that was not kept before; 409 for one that is at another version.
        def first_version(quote, version, copy)
          @shop.transaction do
            current = locked(quote) || insert(quote)
            next_version(quote, version, copy) || raise(Conflicts.draft(current, copy[:content], by: @shop.actor))
          end
        end

        def rows(quote) = @shop[:quote_drafts].where(quote_id: quote[:id], account_id: @shop.actor.account_id)

        def fresh(quote)
          newest = @revisions.newest(quote)
          {
            shop_id: @shop.id,
            quote_id: quote[:id],
            account_id: @shop.actor.account_id,
            version: 1,
            base_revision: quote[:latest_revision],
            content: newest ? newest[:content] : NimbleLedger::Quote::Content.start,
            updated_at: @shop.now
          }
        end

        def insert(quote)
          row = fresh(quote)
          @shop.db[:quote_drafts].insert_conflict.insert(row.merge(content: Sequel.pg_jsonb(row[:content].to_h)))
          locked(quote)
        end
      end
    end
  end
end
