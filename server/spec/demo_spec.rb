# frozen_string_literal: true

require_relative "spec_helper"

# The demo shop is what a newcomer sees first: it must be whole.
RSpec.describe NimbleServer::Demo do
  let(:db) { TestServer.db }
  let(:shop_id) { db[:shops].where(slug: "merrow-quay").get(:id) }

  it "has about thirty cars, at least one for every engine, with histories known and unknown" do
    plates =
      JSON.parse(File.read(File.join(described_class::FOLDER, "shop.json")))["shops"][0]["vehicles"].map do |car|
        car["plate"]
      end
    cars = db[:vehicles].where(shop_id: shop_id, plate: plates).all
    expect(cars.size).to be >= 30
    engines =
      Dir[File.join(NimbleServer::ROOT, "demo/engines/*.engine.json")].map do |path|
        File.basename(path, ".engine.json").upcase
      end
    expect(cars.map { |car| car[:engine_code] }.uniq).to match_array(engines)
    expect(cars.count { |car| car[:plugs_changed_km].nil? }).to be_between(5, 20)
    expect(cars.map { |car| car[:condition].to_h["corrosion"] }.uniq).to include("light", "heavy", nil)
  end

  it "has quotes already, saved and not, some days old, that recompute to the cent" do
    quotes = db[:quotes].where(shop_id: shop_id).order(:number).limit(10).all
    expect(quotes.map { |quote| quote[:latest_revision] }).to eq(([1] * 9) + [0])
    expect(quotes.first[:created_at]).to be < Time.now - (8 * 86_400)
    db[:quote_scopes]
      .where(
        shop_id: shop_id,
        revision_id: db[:quote_revisions].where(quote_id: quotes.map { |quote| quote[:id] }).select(:id)
      )
      .each do |scope|
        again = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(scope[:request].to_h))
        expect(again.price.total_cents).to eq(scope[:total_cents])
      end
  end

  it "can be quoted on every car without a price missing" do
    client = Client.as("advisor@merrow.example")
    client.call(:get, "/api/vehicles").last["vehicles"]
      .reject { |car| car["plate"].match?(/\A(EV|NW|ZZ)/) }
      .each do |car|
        page = client.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last
        numbers = page["sheet"]["reach"]["cylinders"].map { |cylinder| cylinder["number"] }
        _status, priced = client.choose(page, numbers, works: page["sheet"]["offers"]["works"].first(2))
        price = priced["sheet"]["estimate"]["price"]
        expect(price["incomplete"]).to be_nil, "#{car["plate"]}: #{price["missing"]}"
        expect(price["total_cents"]).to eq(price["lines"].sum { |line| line["cents"] })
      end
  end
end
