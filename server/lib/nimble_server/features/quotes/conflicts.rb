# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # What is refused because something else happened meanwhile: both sides are sent, so that nothing typed is lost.
      module Conflicts
        # @param by [Actor] whose other window it was
        def self.draft(current, yours, by:)
          Refusal.new(
            409,
            "draft_conflict",
            "This quote was changed in another window. Both versions are here: choose one, nothing is lost.",
            extra: {
              "yours" => yours.to_h,
              "theirs" => current[:content].to_h,
              "theirs_version" => current[:version],
              "theirs_by" => by.name,
              "theirs_at" => current[:updated_at].iso8601
            }
          )
        end

        # @param newest [Hash] the revision saved meanwhile, with its actor's name
        def self.revision(newest, draft)
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
        def self.price(shown, pricing)
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
      end
    end
  end
end
