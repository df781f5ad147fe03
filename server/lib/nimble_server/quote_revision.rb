# frozen_string_literal: true

module NimbleServer
  # Freezes a quote's content: revision, scopes with request and answer, lines. Append-only.
  class QuoteRevision
    def initialize(shop, quote, content)
      @shop = shop
      @quote = quote
      @content = content
      @pricing = QuotePricing.new(shop, quote, content)
    end

    # Runs inside the caller's transaction.
    # @return [Hash] the stored revision row
    # @raise [Refusal] 422 when no scope holds anything
    def store
      scopes = @pricing.priced_scopes
      raise Refusal.new(422, "nothing_to_save", "Choose at least one cylinder or one piece of work before saving.") if scopes.empty?

      row = revision_values(scopes)
      id = @shop.insert(:quote_revisions, row)
      scopes.each { |index, scope, sheet, request| store_scope(id, index, scope, sheet, request) }
      @shop[:quotes].where(id: @quote[:id]).update(latest_revision: row[:revision], total_cents: row[:total_cents], currency: row[:currency],
                                                   summary: summary(scopes), updated_at: @shop.now)
      @shop[:quote_revisions].where(id: id).first
    end

    private

    def revision_values(scopes)
      house = @pricing.house
      shown = scopes.find { |index, *| index == @content["active"] } || scopes.first
      { quote_id: @quote[:id], revision: @quote[:latest_revision] + 1, rules: NimbleLedger::Estimate::Answer::RULES,
        engine_profile_id: @pricing.engine_row[:id], price_list_id: @pricing.price_list_id, house_settings_id: house.id,
        content: Sequel.pg_jsonb(@content), currency: house.settings["currency"], currency_exponent: house.settings["currency_exponent"],
        total_cents: shown[2].answer.price.total_cents }
    end

    def store_scope(revision_id, index, scope, sheet, request)
      answer = sheet.answer
      id = @shop.insert(:quote_scopes, revision_id: revision_id, position: index, name: scope["name"].to_s, request: Sequel.pg_jsonb(request),
                                       answer: Sequel.pg_jsonb(answer.to_h), page: Sequel.pg_jsonb(sheet.shown), quoted_tenths: answer.quoted_tenths, total_cents: answer.price.total_cents)
      answer.price.list.each_with_index do |line, i|
        @shop.insert(:quote_lines, scope_id: id, position: i, kind: line.kind, label: line.label, part: line.part, quantity: line.quantity,
                                   unit_cents: line.unit_cents, cents: line.cents)
      end
    end

    def summary(scopes)
      scopes.map { |_index, scope, sheet, _request| scope["name"].to_s.empty? ? sheet.title : scope["name"] }.join(" / ")
    end
  end
end
