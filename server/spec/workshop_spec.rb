# frozen_string_literal: true

require_relative "spec_helper"
require "zip"

# Entering engines over HTTP: drafts, acts, sketches, patterns, comparisons, whole libraries.
RSpec.describe NimbleServer::Features::Workshop do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:advisor) { Client.as("advisor@merrow.example") }

  BARE = { arrangement: "vee", mounting: "sideways", cylinders: 6, ignition: "coil-on-plug" }.freeze

  def begin_bare(code) = owner.call(:post, "/api/workshop", { code: code, name: "Bare", bare: BARE }).last
  def act(profile, **act) = advisor.call(:post, "/api/workshop/acts", { profile: profile, act: act }).last["profile"]
  def store(client, code, version, profile) =
    client.call(:put, "/api/workshop/#{code}", { version: version, profile: profile })

  def archive(files)
    buffer =
      Zip::OutputStream.write_buffer { |zip| files.each { |name, text| [zip.put_next_entry(name), zip.write(text)] } }
    [buffer.string].pack("m0")
  end

  it "draws an engine from nothing, keeps it as typed, and makes it a revision with a why" do
    draft = begin_bare("DRAWN-1")
    expect(draft.values_at("version", "base_revision", "began")).to eq([1, nil, "bare"])
    profile = act(draft["profile"], do: "add", label: "Upper manifold", cylinders: [1, 3, 5])
    stored = store(advisor, "DRAWN-1", 1, profile).last
    expect(stored["version"]).to eq(2)
    expect(stored["look"]["tries"].map { |row| row["what"] }).to include("deepest-bank")
    expect(stored["look"]["over"]).to include("step" => "upper-manifold", "cylinders" => [1, 3, 5])

    broken = Marshal.load(Marshal.dump(profile))
    broken["steps"][0]["remove"] = [9, 5, 1]
    faulty = store(advisor, "DRAWN-1", 2, broken).last
    expect(faulty["look"]["faults"].first["path"]).to eq("/steps/0/remove")
    expect(faulty["look"]["page"]).to be_nil
    kept = owner.call(:post, "/api/workshop/DRAWN-1/revisions", { version: 3, why: "first" })
    expect([kept.first, kept.last.dig("error", "code")]).to eq([400, "invalid_profile"])

    store(advisor, "DRAWN-1", 3, profile)
    expect(owner.call(:post, "/api/workshop/DRAWN-1/revisions", { version: 4, why: "drawn at the car" }).first).to eq(
      201
    )
    page = advisor.call(:get, "/api/engines/DRAWN-1").last
    expect(page["profile"]).to eq(profile)
    expect(page["revisions"].first.values_at("revision", "why")).to eq([1, "drawn at the car"])
    expect(advisor.call(:get, "/api/workshop/DRAWN-1").first).to eq(404)
  end

  it "shows two who draw one engine each other's version, and loses neither" do
    draft = begin_bare("DRAWN-2")
    mine = act(draft["profile"], do: "add", label: "Mine", cylinders: [1])
    theirs = act(draft["profile"], do: "add", label: "Theirs", cylinders: [2])
    expect(store(owner, "DRAWN-2", 1, theirs).first).to eq(200)
    status, refused = store(advisor, "DRAWN-2", 1, mine)
    expect([status, refused["error"]["code"], refused["theirs_version"]]).to eq([409, "draft_conflict", 2])
    expect(refused["profile"]).to eq(theirs)
    expect(store(advisor, "DRAWN-2", 2, mine).first).to eq(200)
  end

  it "goes on with an engine's newest revision, and does not keep a draft of an older one" do
    made = owner.call(:get, "/api/engines/SK18").last["profile"].merge("code" => "DRAWN-3")
    owner.call(:post, "/api/engines", made)
    draft = owner.call(:post, "/api/workshop", { code: "DRAWN-3" }).last
    expect(draft["profile"]).to eq(made)
    expect(draft["base_revision"]).to eq(1)
    owner.call(:post, "/api/engines", made.merge("notes" => "imported meanwhile"))
    status, refused = owner.call(:post, "/api/workshop/DRAWN-3/revisions", { version: 1, why: "" })
    expect([status, refused["error"]["code"]]).to eq([409, "engine_changed"])
    expect(owner.call(:delete, "/api/workshop/DRAWN-3").last["drafts"].map { |row| row["code"] }).not_to include(
      "DRAWN-3"
    )
  end

  it "begins with a pattern or another engine, under a code nobody uses" do
    pattern = advisor.call(:get, "/api/patterns").last["patterns"].first
    expect(pattern["name"]).not_to eq(owner.call(:get, "/api/engines/#{pattern["code"]}").last["name"])
    begun = advisor.call(:post, "/api/workshop", { code: "DRAWN-4", name: "Ours", pattern: pattern["code"] }).last
    expect(begun["look"]["origins"].values_at("typed", "pattern")).to match([0, be_positive])
    taken = advisor.call(:post, "/api/workshop", { code: "JIV6", name: "x", engine: "SK18" })
    expect([taken.first, taken.last["error"]["details"][0]["path"]]).to eq([409, "/code"])
    again = advisor.call(:post, "/api/workshop", { code: "DRAWN-4", name: "Ours", pattern: pattern["code"] }).last
    expect(again["version"]).to eq(1)
  end

  it "sketches an engine that quotes at once and says that it is provisional, until it is drawn properly" do
    sketch = { **BARE, layers: [{ label: "Upper manifold", cylinders: [1, 3, 5] }], moves: ["throttle"], plug: {} }
    status, made = advisor.call(:post, "/api/sketches", sketch)
    expect([status, made["code"]]).to match([201, /\ASKETCH-\d+\z/])
    car = {
      plate: "ZZ-SKE-#{rand(10..99)}",
      description: "Van",
      engine_code: made["code"],
      year: nil,
      odometer_km: nil
    }
    id = advisor.call(:post, "/api/vehicles", car.merge(customer: nil)).last["id"]
    quote = advisor.call(:post, "/api/quotes", { vehicle_id: id }).last
    expect(quote["engine"]["provisional"]).to be(true)
    draft = owner.call(:post, "/api/workshop", { code: made["code"] }).last
    sure = draft["profile"].except("provisional", "house_overrides")
    store(owner, made["code"], 1, sure)
    owner.call(:post, "/api/workshop/#{made["code"]}/revisions", { version: 2, why: "measured" })
    open = advisor.call(:get, "/api/quotes/#{quote["quote"]["id"]}").last
    expect(open["newest_engine_revision"]).to eq(2)
    renewed = advisor.call(:post, "/api/quotes/#{quote["quote"]["id"]}/engine").last
    expect(renewed["engine"]["provisional"]).to be(false)
  end

  it "says what a newer profile would change of a quote before it is taken" do
    made = owner.call(:get, "/api/engines/SK18").last["profile"].merge("code" => "DRAWN-5")
    owner.call(:post, "/api/engines", made)
    car = { plate: "ZZ-NEW-#{rand(10..99)}", description: "Van", engine_code: "DRAWN-5", year: nil, odometer_km: nil }
    id = advisor.call(:post, "/api/vehicles", car.merge(customer: nil)).last["id"]
    start = advisor.call(:post, "/api/quotes", { vehicle_id: id }).last
    advisor.choose(start, [1, 2])
    slower = Marshal.load(Marshal.dump(made))
    slower["steps"][0]["remove"] = [30, 60, 90]
    owner.call(:post, "/api/engines", slower)
    offer = advisor.call(:get, "/api/quotes/#{start["quote"]["id"]}/panels/newer-engine").last["newer"]
    expect(offer["revision"]).to eq(2)
    expect(offer["scopes"].first["hours_after"]).to be > offer["scopes"].first["hours_before"]
    expect(offer["scopes"].first["cents_after"]).to be > offer["scopes"].first["cents_before"]
    expect(offer["changes"].first).to include(": off ")
  end

  it "lays two profiles side by side" do
    rows = advisor.call(:get, "/api/comparisons?a=JIV6&b=KUJ6").last
    expect(rows["sides"].map { |side| side["code"] }).to eq(%w[JIV6 KUJ6])
    both = rows["rows"].select { |row| row["left"] && row["right"] }
    expect(both.map { |row| row["label"] }).to include("Engine cover")
    begin_bare("SIDE-1")
    beside = advisor.call(:get, "/api/comparisons?a=JIV6&b=SIDE-1&b_revision=draft").last
    expect(beside["sides"].map { |side| side["revision"] }).to eq([1, nil])
    expect(beside["changes"]).to include("Engine cover is gone.")
    same = advisor.call(:get, "/api/comparisons?a=JIV6&b=JIV6").last
    expect(same["rows"].all? { |row| row["left"] == row["right"] } && same["changes"].empty?).to be(true)
  end

  describe "a whole library in one archive" do
    def report(files) = owner.call(:post, "/api/library/report", { archive: archive(files) })

    it "goes out and in without loss" do
      bytes = advisor.call(:get, "/api/library").last
      there = advisor.call(:get, "/api/engines").last["engines"].size
      rows = owner.call(:post, "/api/library/report", { archive: [bytes].pack("m0") }).last["rows"]
      expect(rows.size).to eq(there)
      expect(rows.map { |row| [row["same"], row["fault"]] }.uniq).to eq([[true, nil]])
    end

    it "says row by row what would become of it, and takes only what was chosen" do
      profile = owner.call(:get, "/api/engines/SK18").last["profile"]
      files = {
        "a/../../sk18.engine.json" => JSON.generate(profile.merge("notes" => "changed")),
        "bad.json" => "{",
        "odd.json" => JSON.generate(profile.merge("steps" => "none")),
        "readme.txt" => "not read"
      }
      rows = report(files).last["rows"]
      expect(rows.map { |row| row["fault"].nil? }).to eq([true, false, false])
      expect(rows.first["changes"]).to eq(["notes #{profile["notes"][0, 67]}… → changed"])
      choice = [{ file: rows.first["file"], do: "take", code: "ARCHIVED-1" }]
      kept = owner.call(:post, "/api/library", { archive: archive(files), rows: choice }).last["kept"]
      expect(kept).to eq([{ "code" => "ARCHIVED-1", "revision" => 1 }])
      expect(owner.call(:get, "/api/engines/SK18").last["profile"]).to eq(profile)
    end

    it "refuses hostile ones quickly: bombs, nests, too many files, no archive at all" do
      bomb = { "bomb.json" => "0" * 60_000_000 }
      nest = { "nest.json" => "[" * 50_000 }
      many = (1..401).to_h { |i| ["#{i}.json", "{}"] }
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      expect(report(bomb).last["rows"].first["fault"]).to include("larger than")
      expect(report(nest).last["rows"].first["fault"]).to eq("is not JSON")
      [archive(many), ["no archive"].pack("m0")].each do |bytes|
        expect(owner.call(:post, "/api/library/report", { archive: bytes }).last.dig("error", "code")).to eq(
          "invalid_archive"
        )
      end
      expect(owner.call(:post, "/api/library/report", { archive: "~~" }).first).to eq(400)
      expect(Process.clock_gettime(Process::CLOCK_MONOTONIC) - began).to be < 20
    end
  end
end
