# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # What the newest revision of its engine would change of a quote: in words, and in hours and money scope by scope.
      # Nothing is stored.
      class NewerEngine
        # @param pricing [Pricing] the working copy as the quote stands
        def initialize(shop, quote, draft, pricing)
          @shop = shop
          @quote = quote
          @draft = draft
          @pricing = pricing
          @newest = Library.newest_engine(shop, pricing.engine_row[:code])
        end

        # @return [Hash, nil] see the contract, PanelFigures; nil where the quote has the newest already
        def to_h
          return nil if @newest[:id] == @quote[:engine_profile_id]

          engine = Library.engine(@shop, @newest[:id])
          row = @shop[:engine_profiles].where(id: @newest[:id]).select(:created_by, :why).first
          {
            "revision" => @newest[:revision],
            "by" => row[:created_by] && @shop.db[:accounts].where(shop_id: @shop.id, id: row[:created_by]).get(:name),
            "why" => row[:why],
            "changes" => NimbleLedger::Library::Difference.new(@pricing.engine.source, engine.source).lines,
            "scopes" => scopes(engine)
          }
        end

        private

        def scopes(engine)
          content, = NimbleLedger::Quote::Content.fit(@draft[:content].to_h, engine)
          moved = Pricing.new(@shop, @quote.merge(engine_profile_id: @newest[:id]), content)
          @pricing.totals.zip(moved.totals).map { |before, after| compared(before, after) }
        end

        def compared(before, after)
          {
            "title" => before.title,
            "hours_before" => before.hours,
            "hours_after" => after&.hours,
            "cents_before" => before.cents,
            "cents_after" => after&.cents
          }
        end
      end
    end
  end
end
