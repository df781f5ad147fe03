# frozen_string_literal: true

require_relative "spec_helper"
require "csv"

# A car over the years: who owns it, what its odometer showed, what was fitted to it, and customers who are one person.
RSpec.describe NimbleServer::Features::Vehicles::Car do
  before(:context) { @advisor = Client.as("advisor@merrow.example") }

  def added(owner: "Newt Quillan", phone: "555 0170", km: 100_000)
    given = {
      plate: "CAR #{SecureRandom.hex(3)}",
      description: "Pellwick Breve",
      engine_code: "SK18",
      year: 2019,
      odometer_km: km,
      customer: {
        name: owner,
        phone: phone
      }
    }
    @advisor.call(:post, "/api/vehicles", given).last["id"]
  end

  def call(verb, id, path = "", body = nil) = @advisor.call(verb, "/api/vehicles/#{id}#{path}", body)
  def page(id) = call(:get, id).last

  it "changes hands: its quotes are found by the new owner, and who had it stays known" do
    id = added
    quote = @advisor.call(:post, "/api/quotes", { vehicle_id: id }).last["quote"]
    status, changed = call(:put, id, "", { owner: { name: "Wren Tolliver", phone: "555 0136" } })
    expect([status, changed["vehicle"]["customer"]]).to eq([200, "Wren Tolliver"])
    expect(changed["former_owners"].map { |row| row["name"] }).to eq(["Newt Quillan"])
    found = @advisor.call(:get, "/api/quotes?search=tolliver").last["quotes"].map { |row| row["id"] }
    expect(found).to include(quote["id"])
    expect(call(:put, id, "", { owner: nil }).last["vehicle"]["customer"]).to be_nil
  end

  it "is one car however its plate is written" do
    new = { description: "Breve", engine_code: "SK18" }
    ["4 TRE 1M", "4tre-1m"].each do |plate|
      status, body = @advisor.call(:post, "/api/vehicles", new.merge(plate: plate))
      expect([status, body["error"]["message"]]).to eq([409, "A vehicle with the plate 4-TRE-1M is already here."])
    end
    status, = call(:put, @advisor.vehicle("4-TRE-1M")["id"], "", { plate: "4 TRE 1M" })
    expect(status).to eq(200)
    call(:put, @advisor.vehicle("4 TRE 1M")["id"], "", { plate: "4-TRE-1M" })
  end

  it "is put right where plate, model or year were wrong, and is of no year still to come" do
    id = added
    plate = "PUT #{SecureRandom.hex(3)}".upcase
    _, changed = call(:put, id, "", { plate: plate, description: "Pellwick Breve estate", year: 2020 })
    expect(changed["vehicle"].values_at("plate", "description", "year")).to eq([plate, "Pellwick Breve estate", 2020])
    future = Time.now.year + 2
    status, body = call(:put, id, "", { year: future })
    expect([status, body["error"]["details"]]).to eq([422, [{ "path" => "/year", "message" => "is still to come" }]])
    new = { plate: "NEW #{SecureRandom.hex(3)}", description: "Breve", engine_code: "SK18", year: future }
    expect(@advisor.call(:post, "/api/vehicles", new).first).to eq(422)
    expect(@advisor.call(:post, "/api/vehicles", new.merge(year: future - 1)).first).to eq(201)
    mine = @advisor.call(:get, "/api/vehicles?search=#{Rack::Utils.escape(new[:plate])}").last["vehicles"].first
    quote = @advisor.call(:post, "/api/quotes", { vehicle_id: mine["id"] })
    expect([quote.first, quote.last["resolved"]["history"]["plugs_changed_years"]]).to eq([201, 0])
  end

  it "keeps every reading, and takes a lower one for a reason only, however it comes" do
    id = added
    status, body = call(:post, id, "/readings", { km: 90_000 })
    expect([status, body["error"]["code"], body["error"]["details"].first["path"]]).to eq([422, "odometer_fell", "/km"])
    expect(call(:post, id, "/readings", { km: 90_000, reason: "another instrument" }).first).to eq(200)
    expect(call(:put, id, "/history", { odometer_km: 80_000 }).last["error"]["details"].first["path"]).to eq(
      "/odometer_km"
    )
    expect(call(:put, id, "/history", { odometer_km: 91_000 }).first).to eq(200)
    expect(page(id)["readings"].map { |row| row.values_at("km", "reason") }).to eq(
      [[91_000, ""], [90_000, "another instrument"], [100_000, ""]]
    )
  end

  it "prices what we fitted ourselves at nothing while our warranty lasts, in the quote and in what is frozen of it" do
    id = added
    quote = @advisor.call(:post, "/api/quotes", { vehicle_id: id }).last["quote"]
    content = { scopes: [{ cylinders: [2], works: %w[coil], extras: [] }], active: 0 }
    version = 1
    price = -> do
      given = { version: version, content: content }
      answer = @advisor.call(:put, "/api/quotes/#{quote["id"]}/draft", given).last
      version = answer["draft"]["version"]
      answer
    end
    before = price.call
    expect(before["sheet"]["warranty"]).to be_nil
    call(:post, id, "/fittings", { work: "coil", cylinders: [2], km: 99_000, on: Date.today.iso8601, ours: true })
    owed = price.call["sheet"]
    expect([owed["estimate"]["price"]["total_cents"], owed["warranty"]["labels"].size]).to eq([0, 1])
    expect(@advisor.save(quote["id"]).first).to eq(201)
    frozen = @advisor.call(:get, "/api/quotes/#{quote["id"]}/revisions/1").last["scopes"].first
    expect([frozen["answer"]["price"]["total_cents"], frozen["page"]["warranty"]["labels"].size]).to eq([0, 1])
    content[:scopes].first[:charged] = true
    expect(price.call["sheet"]["estimate"]["price"]).to eq(before["sheet"]["estimate"]["price"])
  end

  it "checks the maker's number" do
    id = added
    expect(call(:put, id, "", { maker_number: "1111 1111 1111 1111 1" }).last["maker_number"]).to eq("1" * 17)
    status, body = call(:put, id, "", { maker_number: "11111111211111111" })
    expect([status, body["error"]["details"].first]).to match([422, include("path" => "/maker_number")])
    expect(page(id)["maker_number"]).to eq("1" * 17)
    expect(call(:put, id, "", { maker_number: "" }).last["maker_number"]).to be_nil
  end

  it "remembers what was fitted to which cylinder, by whom, and until when it is under warranty; the quote knows" do
    id = added
    month = (Date.today << 2).iso8601
    given = { work: "coil", cylinders: [3, 4], km: 98_000, on: month, ours: true }
    fitted = call(:post, id, "/fittings", given).last["fittings"]
    expect(fitted.map { |row| row.values_at("work", "cylinder", "ours") }).to eq([["coil", 3, true], ["coil", 4, true]])
    expect(fitted.first["warranty"]).to eq(
      "holds" => true,
      "until" => (Date.iso8601(month) >> 12).iso8601,
      "until_km" => 118_000
    )
    call(:post, id, "/fittings", { work: "plug", cylinders: [1], on: month, ours: false, by: "a shop in town" })
    quote = @advisor.call(:post, "/api/quotes", { vehicle_id: id }).last
    expect(quote["fittings"].size).to eq(3)
    expect(call(:post, id, "/fittings/#{fitted.first["id"]}/withdrawal").last["fittings"].size).to eq(2)
    call(:post, id, "/readings", { km: 118_001 })
    held = page(id)["fittings"].map { |row| row["warranty"] && row["warranty"]["holds"] }
    expect(held).to match_array([false, nil])
    status, body = call(:post, id, "/fittings", given.merge(cylinders: [9]))
    expect([status, body["error"]["details"].first["path"]]).to eq([422, "/cylinders/0"])
    expect(call(:post, id, "/fittings", given.merge(on: "2099-01-01")).last["error"]["code"]).to eq("invalid_day")
  end

  it "makes two entries for one person one, with all their cars, and says so in the record" do
    name = "Senara #{SecureRandom.hex(3)}"
    kept, double = ["555 0171", nil].map { |phone| page(added(owner: name, phone: phone))["vehicle"]["customer_id"] }
    # the same name and number is the same person from the start
    expect(page(added(owner: name, phone: "555 0171"))["vehicle"]["customer_id"]).to eq(kept)
    @advisor.call(:put, "/api/customers/#{double}", { name: name, wishes: "call before noon" })
    expect(@advisor.call(:get, "/api/customers/#{kept}").last["doubles"].map { |row| row["id"] }).to include(double)
    merged = @advisor.call(:post, "/api/customers/#{kept}/merge", { double: double }).last
    expect(merged["vehicles"].size).to eq(3)
    expect(merged["customer"]["wishes"]).to eq("call before noon")
    expect(@advisor.call(:get, "/api/customers/#{double}").first).to eq(404)
    people = @advisor.call(:get, "/api/find?search=#{name.split.last}").last["people"]
    expect(people.map { |row| row["id"] }).to eq([kept])
    act = TestServer.db[:record_entries].order(Sequel.desc(:at)).where(kind: "customers-merged").first
    expect(act[:subject]).to eq("customer #{name}")
  end

  describe "the garage as a file" do
    let(:owner) { Client.as("owner@merrow.example") }

    def report(text) = @advisor.call(:post, "/api/garage/report", { csv: text })
    def cell(text, plate, name) = CSV.parse(text, headers: true).find { |row| row["plate"] == plate }[name]

    it "goes out and comes in again without changing anything" do
      text = @advisor.call(:get, "/api/garage/export").last
      expect(cell(text, "4-TRE-1M", "name")).to eq("Ines Calloway")
      expect(report(text).last.values_at("added", "changed", "rejected")).to eq([0, 0, 0])
      status, body = owner.call(:post, "/api/garage", { csv: text })
      expect([status, body["error"]["message"]]).to eq([400, "No row of the garage list changes anything."])
    end

    it "shows what rows would do, and does it after a yes; what cannot be taken says why, by its line" do
      plate = "GAR #{SecureRandom.hex(3)}".upcase
      text = <<~CSV
        plate;description;engine;year;odometer_km;name;phone;wishes
        #{plate};Pellwick Breve;SK18;2019;10000;=Newt;555 0177;call before noon
        4-TRE-1M;;;;;;;by mail only
        NONE 1;x;XX99;;;;;
        NONE 2;x;SK18;19;;;;
        8-LIB-8M;;;;5;;;
        #{plate};twice;SK18;;;;;
      CSV
      found = report(text).last
      expect(found.values_at("added", "changed", "rejected")).to eq([1, 1, 4])
      expect(found["rows"].first(4).to_h { |row| [row["line"], row["reason"]] }).to eq(
        4 => "the library has no engine XX99",
        5 => "year is no year of a car",
        6 => "odometer_km is below the last reading",
        7 => "stands twice in this file"
      )
      expect(@advisor.vehicle(plate)).to be_nil
      expect(owner.call(:post, "/api/garage", { csv: text }).first).to eq(201)
      expect(@advisor.vehicle(plate)).to include("customer" => "=Newt", "odometer_km" => 10_000, "year" => 2019)
      out = @advisor.call(:get, "/api/garage/export").last
      expect([cell(out, plate, "name"), cell(out, "4-TRE-1M", "wishes")]).to eq(["'=Newt", "by mail only"])
    end

    it "refuses a file that is no table of ours, with the line" do
      expect(report("plate,color\n1,red").last["error"]).to include("code" => "invalid_csv")
      expect(report("name\nInes").last["error"]["message"]).to include("has no column plate")
      expect(report("plate\n\"4").last["error"]["details"].first["path"]).to eq("/csv/2")
    end
  end
end
