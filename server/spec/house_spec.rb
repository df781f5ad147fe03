# frozen_string_literal: true

require_relative "spec_helper"

# What the shop owns: kept in house settings, opens and closes routes.
RSpec.describe NimbleServer::House do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:advisor) { Client.as("advisor@merrow.example") }

  def house(client = owner) = client.call(:get, "/api/house").last

  def owned(page = house) = page["equipment"].select { |row| row["owned"] }.map { |row| row["id"] }

  def keep(list, client: owner, revision: house["revision"]) = client.call(:put, "/api/house/equipment", { equipment: list, revision: revision })

  around do |example|
    before = owned
    example.run
    keep(before)
  end

  it "lists what the engines ask for, who asks, and what is here" do
    rows = house["equipment"].to_h { |row| [row["id"], row] }
    expect(rows["strap-and-block"]).to include("label" => "strap and block", "owned" => true, "engines" => ["UB35"])
    expect(rows["thin-wall-socket"]["engines"]).to eq(%w[OC30 QT14])
  end

  it "says every setting with its value and whether it is the shop's own" do
    rows = house["settings"].to_h { |row| [row["name"], row] }
    expect(rows.keys).to match_array(NimbleLedger::House::Settings::DECLARED.keys)
    expect(rows["quantile"]).to include("value" => 0.65, "own" => false)
    expect(rows["taxes"]["own"]).to be(true)
  end

  it "closes a route when the equipment goes, says what would open it, and opens it again" do
    page = advisor.start_quote("MQ 83 BUS")
    in_force = lambda do
      sheet = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last["sheet"]
      sheet["problem"] ? sheet["problem"]["details"].map { |detail| detail["equipment"] } : sheet["routes"][0]["options"].find { |option| option["in_force"] }["label"]
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
    statuses = Array.new(3) { |i| Thread.new { Client.as("owner@merrow.example").call(:put, "/api/house/equipment", { equipment: ["tool-#{i}"], revision: revision }).first } }.map(&:value)
    expect(statuses.sort).to eq([200, 409, 409])
  end

  it "refuses lists that are no lists" do
    ["two-post-lift", [1], ["x" * 81], ["a"] * 300, %w[a a]].each { |list| expect(keep(list).first).to eq(400), list.inspect[0, 40] }
  end

  it "keeps another shop's list apart" do
    stranger = Client.as("owner@hollow.example")
    theirs = owned(house(stranger))
    keep(owned - ["coil-puller"])
    expect(owned(house(stranger))).to eq(theirs)
    expect(theirs).not_to include("swivel-extension")
  end
end
