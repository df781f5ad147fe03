# frozen_string_literal: true

require_relative "spec_helper"
require "zip"

# All a shop owns, as open files it can take along.
RSpec.describe NimbleServer::Features::Everything::Archive do
  # Never in it: what only the running server needs, and who may sign in from where.
  KEPT_BACK = %i[
    idempotency_keys
    account_active_session_keys
    account_known_addresses
    record_touched
    long_requests
    long_request_parts
  ].freeze

  before(:context) do
    @owner = Client.as("owner@merrow.example")
    @files = {}
    Zip::InputStream.open(StringIO.new(@owner.get("/api/everything").body)) do |zip|
      while (entry = zip.get_next_entry)
        @files[entry.name] = zip.read.to_s.dup.force_encoding("UTF-8")
      end
    end
    @shop = TestServer.db[:shops].where(slug: "merrow-quay").get(:id)
  end

  def lines(table) = @files.fetch("tables/#{table}.ndjson").lines.map { |line| JSON.parse(line) }

  it "holds every row of every table the shop has" do
    tables = TestServer.db.tables.select { |table| TestServer.db.schema(table).any? { |name, _| name == :shop_id } }
    written = @files.keys.filter_map { |name| name[%r{\Atables/(.*)\.ndjson\z}, 1]&.to_sym }
    expect(written).to match_array(tables - KEPT_BACK)
    written.each do |table|
      expect([table, lines(table).size]).to eq([table, TestServer.db[table].where(shop_id: @shop).count])
      expect(lines(table).map { |row| row["shop_id"] }.uniq - [@shop]).to eq([]), table.to_s
    end
  end

  it "has no password, no key of a link and nothing of another shop" do
    expect(lines("accounts").first.keys).to include("email", "role")
    expect(lines("accounts").first.keys).not_to include("password_hash")
    expect(lines("offers").flat_map(&:keys).uniq).not_to include("token_digest")
    others =
      TestServer.db[:customers].exclude(shop_id: @shop).select_map(:name) - lines("customers").map { |r| r["name"] }
    expect(others).not_to be_empty
    expect(@files.values.join).not_to include(*others)
  end

  it "reads back: engines and prices are documents of their formats, cars a list that changes nothing" do
    engines = @files.select { |name, _| name.start_with?("engines/") }
    expect(engines.size).to eq(TestServer.db[:engine_profiles].where(shop_id: @shop).select(:code).distinct.count)
    history = JSON.parse(@files["history.json"])
    expect(NimbleLedger::Ledger::History::SHAPE.faults(history)).to eq([])
    expect(history["jobs"].size).to eq(TestServer.db[:ledger_entries].where(shop_id: @shop, against: nil).count)
    engines.each_value { |text| NimbleLedger::Profile::Engine.build(JSON.parse(text)) }
    expect(NimbleLedger::Parts::Catalog.build(JSON.parse(@files["prices.catalog.json"]))).to be_a(
      NimbleLedger::Parts::Catalog
    )
    report = @owner.call(:post, "/api/garage/report", { csv: @files["garage.csv"] }).last
    expect(report.values_at("added", "changed", "rejected")).to eq([0, 0, 0])
  end

  it "holds the record as it was chained" do
    last = lines("record_entries").max_by { |row| row["seq"] }
    bytes = last["bytes"].unpack1("m")
    expect(JSON.parse(bytes)["seq"]).to eq(last["seq"])
    expect(JSON.parse(@files["about.json"])["record"]).to start_with("#{last["seq"]} ")
  end
end
