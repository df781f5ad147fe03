# frozen_string_literal: true

require_relative "spec_helper"

# What a quote is priced with is asked for at once, and is what each of its parts says is the newest.
RSpec.describe NimbleServer::Shop do
  let(:db) { TestServer.db }
  let(:rows) { db[:shops].select_hash(:slug, :id) }
  let(:shop) { described_class.new(db, rows["merrow-quay"]) }

  def newest = [shop.newest(:price_lists), shop.newest(:house_settings)]

  # What happens here stays here.
  around { |example| db.transaction(rollback: :always) { example.run } }

  it "is the newest price list and house settings, and the lesson last taken" do
    lesson = shop[:ledger_lessons].order(Sequel.desc(:number)).get(:in_force)
    expect(shop.in_force.to_a).to eq([*newest, lesson])
    expect(shop.profile).to eq(db[:shops].where(id: shop.id).first)
  end

  it "is the next one as soon as there is one, and never another shop's" do
    before = shop.in_force
    newer = shop.insert(:house_settings, revision: 10_000, settings: Sequel.pg_jsonb({}))
    expect(shop.in_force.to_a).to eq([before.prices, newer, before.lesson])

    others = rows.values.reject { |id| id == shop.id }.map { |id| described_class.new(db, id).in_force.to_a.compact }
    expect(others).to all(satisfy { |ids| (ids & shop.in_force.to_a).empty? })
    expect(rows.size).to be > 1
  end

  it "is read once for each quote that is priced: a house that changes meanwhile changes the next one" do
    quote = db[:quotes].where(shop_id: shop.id).exclude(latest_revision: 0).order(:number).first
    content = shop[:quote_revisions].where(quote_id: quote[:id]).order(Sequel.desc(:revision)).get(:content).to_h
    priced = ->(one) { one.priced_with.values_at("house", "prices") }
    first = NimbleServer::Features::Quotes::Pricing.new(shop, quote, content)
    expect(priced.call(first)).to eq(newest.reverse)

    stored = shop[:house_settings].where(id: newest.last).get(:settings).to_h
    cheaper = stored.merge("settings" => stored["settings"].to_h.merge("rate_cents" => 99))
    shop.insert(:house_settings, revision: 10_000, settings: Sequel.pg_jsonb(cheaper))
    second = NimbleServer::Features::Quotes::Pricing.new(shop, quote, content)
    expect(priced.call(second)).to eq(newest.reverse)
    expect(priced.call(first)).not_to eq(priced.call(second))
    totals = [first, second].map { |pricing| pricing.priced_with["totals"].first }
    expect(totals.last).to be < totals.first
  end
end
