# frozen_string_literal: true

require_relative "spec_helper"

# What the shop owns: kept in house settings, opens and closes routes.
RSpec.describe NimbleServer::Features::HouseRules::House do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:advisor) { Client.as("advisor@merrow.example") }

  def house(client = owner) = client.call(:get, "/api/house").last

  def owned(page = house) = page["equipment"].select { |row| row["owned"] }.map { |row| row["id"] }

  def keep(list, client: owner, revision: house["revision"]) =
    client.call(:put, "/api/house/equipment", { equipment: list, revision: revision })

  around do |example|
    before = owned
    example.run
    keep(before)
  end

  it "lists what the engines ask for, who asks, and what is here" do
    rows = house["equipment"].to_h { |row| [row["id"], row] }
    expect(rows["strap-and-block"]).to include("label" => "strap and block", "owned" => true, "engines" => ["IXO6"])
    expect(rows["thin-wall-socket"].slice("label", "engines")).to eq(
      "label" => "thin-wall socket",
      "engines" => %w[OC30 OJU3 QT14]
    )
    expect(rows["scan-tool"]["engines"]).to include("KUJ6") # asked for by closing work
  end

  it "says every setting with its value and whether it is the shop's own" do
    rows = house["settings"].to_h { |row| [row["name"], row] }
    expect(rows.keys).to match_array(NimbleLedger::House::Settings::DECLARED.keys)
    expect(rows["quantile"]).to include("value" => 0.65, "own" => false)
    expect(rows["taxes"]["own"]).to be(true)
  end

  it "closes a route when the equipment goes, says what would open it, and opens it again" do
    page = advisor.start_quote("8-BUS-3M")
    in_force =
      lambda do
        sheet = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["sheet"]
        if sheet["problem"]
          sheet["problem"]["details"].map { |detail| detail["equipment"] }
        else
          sheet["routes"][0]["options"].find { |option| option["in_force"] }["label"]
        end
      end
    advisor.choose(page, [1, 3, 5])
    all = owned
    expect(in_force.call).to eq("Engine tilted")
    expect(keep(all - ["strap-and-block"]).first).to eq(200)
    expect(in_force.call).to eq("From beneath")
    keep(all - %w[strap-and-block two-post-lift])
    expect(in_force.call).to include(["strap-and-block"], ["two-post-lift"])
    keep(all)
    expect(in_force.call).to eq("Engine tilted")
  end

  it "lets only the owner change it" do
    status, body = keep([], client: advisor)
    expect([status, body["error"]["code"]]).to eq([403, "role"])
  end

  it "tells whoever comes second, and changes nothing" do
    stale = house["revision"]
    keep(owned + ["engine-support-bar"])
    status, body = keep([], revision: stale)
    expect([status, body["error"]["code"]]).to eq([409, "house_conflict"])
    expect(owned).to include("engine-support-bar")
  end

  it "takes two owners at the same time one after the other" do
    revision = house["revision"]
    statuses =
      Array
        .new(3) do |i|
          Thread.new do
            Client
              .as("owner@merrow.example")
              .call(:put, "/api/house/equipment", { equipment: ["tool-#{i}"], revision: revision })
              .first
          end
        end
        .map(&:value)
    expect(statuses.sort).to eq([200, 409, 409])
  end

  it "refuses lists that are no lists" do
    ["two-post-lift", [1], ["x" * 81], ["a"] * 300, %w[a a]].each do |list|
      expect(keep(list).first).to eq(400), list.inspect[0, 40]
    end
  end

  it "keeps another shop's list apart" do
    stranger = Client.as("owner@hollow.example")
    theirs = owned(house(stranger))
    keep(owned - ["coil-puller"])
    expect(owned(house(stranger))).to eq(theirs)
    expect(theirs).not_to include("swivel-extension")
  end

  describe "figures" do
    def figure(name, page = house) = page["settings"].find { |row| row["name"] == name }

    def set(figures, client: owner, revision: house(client)["revision"], shipped: [])
      client.call(:put, "/api/house/settings", { settings: figures, shipped: shipped, revision: revision })
    end

    after { set({}, shipped: %w[rate_cents minimum_hours markup opening_hours]) }

    it "prices open quotes with the new rate, leaves saved revisions alone, goes back to the shipped figure" do
      page = advisor.start_quote("4-TRE-1M")
      id = page["quote"]["id"]
      advisor.choose(page, [5])
      saved = advisor.save(id).last["revision"]["total_cents"]
      total = -> { advisor.call(:get, "/api/quotes/#{id}").last["sheet"]["estimate"]["price"]["total_cents"] }
      expect(total.call).to eq(saved)
      status, body = set({ "rate_cents" => 16_000 })
      expect([status, figure("rate_cents", body).slice("value", "own", "shipped")]).to eq(
        [200, { "value" => 16_000, "own" => true, "shipped" => 14_500 }]
      )
      # 2.8 hours at 15.00 more, and 6 % of that as shop supplies
      expect(total.call).to eq(saved + 4_200 + 252)
      expect(advisor.call(:get, "/api/quotes/#{id}/revisions/1").last["scopes"][0]["total_cents"]).to eq(saved)
      expect(figure("rate_cents", set({}, shipped: ["rate_cents"]).last)).to include("value" => 14_500, "own" => false)
      expect(total.call).to eq(saved)
    end

    it "keeps what was set before, and equipment, when another figure is set" do
      before = owned
      set({ "rate_cents" => 15_100 })
      set({ "minimum_hours" => 0.8 })
      expect([figure("rate_cents")["value"], figure("minimum_hours")["value"], figure("taxes")["own"], owned]).to eq(
        [15_100, 0.8, true, before]
      )
    end

    it "says which shape each figure has, so that whoever edits it need not know" do
      expect(figure("rate_cents")["schema"]).to include("type" => "integer", "x-unit" => "cents", "minimum" => 0)
      expect(figure("kit_rule")["schema"]).to eq("enum" => %w[whole used-parts])
      expect(figure("currency_exponent")["caution"]).to include("every price")
    end

    it "refuses what does not fit with its path, and keeps nothing of it" do
      revision = house["revision"]
      closed = %w[mon tue wed thu fri sat sun].to_h { |day| [day, nil] }
      {
        { "rate_cents" => "145" } => "/settings/rate_cents",
        { "rate_cents" => -1 } => "/settings/rate_cents",
        { "rate_dollars" => 1 } => "/settings",
        { "extraction_minutes" => [60, 30, 20] } => "/settings/extraction_minutes",
        { "increment_hours" => 0.15 } => "/settings/increment_hours",
        { "markup" => [{ "up_to_cents" => 500, "factor" => 2 }] } => "/settings/markup",
        { "opening_hours" => closed } => "/settings/opening_hours",
        { "opening_hours" => closed.merge("tue" => %w[17:00 08:00]) } => "/settings/opening_hours/tue",
        { "rate_cents" => 15_000, "quantile" => 1.5 } => "/settings/quantile"
      }.each do |figures, path|
        status, body = set(figures)
        expect([status, body["error"]["details"].map { |detail| detail["path"] }]).to match(
          [400, include(start_with(path))]
        ),
        "#{figures}: #{body}"
      end
      expect([house["revision"], figure("rate_cents")["value"]]).to eq([revision, 14_500])
    end

    it "lets only the owner set them, and tells whoever comes second" do
      expect(set({ "rate_cents" => 1 }, client: advisor).last["error"]["code"]).to eq("role")
      stale = house["revision"]
      set({ "rate_cents" => 15_000 })
      expect(set({ "rate_cents" => 16_000 }, revision: stale).last["error"]["code"]).to eq("house_conflict")
      expect(figure("rate_cents")["value"]).to eq(15_000)
    end

    it "leaves another shop's figures alone" do
      stranger = Client.as("owner@hollow.example")
      before = figure("rate_cents", house(stranger))
      set({ "rate_cents" => 15_500 })
      expect(figure("rate_cents", house(stranger))).to eq(before)
    end
  end
end
