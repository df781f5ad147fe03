# frozen_string_literal: true

require_relative "spec_helper"

# The engine library over HTTP: find, look, export, import as a new revision, and quotes that keep theirs.
RSpec.describe NimbleServer::Features::Engines::EngineLibrary do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:advisor) { Client.as("advisor@merrow.example") }
  let(:db) { TestServer.db }

  def profile(code = "SK18") = owner.call(:get, "/api/engines/#{code}").last["profile"]

  # A profile of its own, so that specs do not stand in one another's way.
  def own(code) = profile.merge("code" => code)

  def codes(text) =
    advisor.call(:get, "/api/engines?search=#{Rack::Utils.escape(text)}").last["engines"].map do |engine|
      engine["code"]
    end

  def revisions(code) = db[:engine_profiles].where(code: code).select_order_map(:revision)

  describe "finding an engine" do
    {
      "a code" => ["ixo6", ["IXO6"]],
      "a kind" => ["sideways v6", %w[FM27 JIV6 IXO6]],
      "a number of cylinders" => ["8 cylinders", ["YUX8"]],
      "an ignition" => ["distributor", ["UGZ4"]],
      "a part number" => ["COI-50931", ["FM27"]],
      "a layer" => ["valve bracket", ["WK20"]],
      "a plate" => ["4-TRE-1M", ["JIV6"]],
      "a car" => ["gannet", ["ZUW2"]],
      "words of different things" => ["inline turbo", ["QT14"]]
    }.each { |name, (text, expected)| it("by #{name}") { expect(codes(text)).to include(*expected) } }

    it "answers an empty list for what nobody has, and wildcards are only letters" do
      expect([codes("rotary"), codes("%"), codes("_")]).to eq([[], [], []])
    end

    it "says the hours of plugs from the easiest to the hardest, and how many cars have it" do
      row = advisor.call(:get, "/api/engines?search=OC30").last["engines"].first
      expect(row).to include(
        "easiest" => {
          "cylinder" => 1,
          "hours" => 0.9
        },
        "hardest" => {
          "cylinder" => 6,
          "hours" => 1.9
        },
        "all_plugs" => 2.7,
        "vehicles" => 2
      )
    end

    it "shows another shop's figures by its own equipment" do
      bare = Client.as("owner@hollow.example").call(:get, "/api/engines?search=IXO6").last["engines"].first
      expect([bare["all_plugs"], bare["easiest"], bare["vehicles"]]).to eq(
        [nil, { "cylinder" => 2, "hours" => 0.7 }, 1]
      )
    end
  end

  describe "export and import" do
    it "round trip without loss, for every engine" do
      Dir[File.join(NimbleServer::ROOT, "demo/engines/*.engine.json")].sort.each do |path|
        code = File.basename(path, ".engine.json").upcase
        exported = owner.call(:get, "/api/engines/#{code}/export?revision=1").last
        expect(owner.last_response.headers["content-disposition"]).to eq(
          "attachment; filename=\"#{code.downcase}.engine.json\""
        )
        expect(exported).to eq(JSON.parse(File.read(path)))
        expect(owner.call(:post, "/api/engines/report", exported).last).to include("same" => true, "changes" => [])
      end
    end

    it "a new code comes in as revision 1, a known one as the next; what changes is said before it is stored" do
      mine = own("NEW1")
      status, report = advisor.call(:post, "/api/engines/report", mine)
      expect([status, report["known"], report["revision"], revisions("NEW1")]).to eq([200, false, 1, []])
      expect(owner.call(:post, "/api/engines", mine).first).to eq(201)
      changed = mine.merge("plug" => mine["plug"].merge("torque_nm" => 21))
      expect(advisor.call(:post, "/api/engines/report", changed).last).to include(
        "known" => true,
        "revision" => 2,
        "changes" => ["plug: torque nm 23 → 21"]
      )
      expect(owner.call(:post, "/api/engines", changed).last["revision"]).to eq(2)
      page = owner.call(:get, "/api/engines/NEW1").last
      expect([page["revision"], page["revisions"].map { |row| [row["revision"], row["by"]] }]).to eq(
        [2, [[2, "Tamsin Orrell"], [1, "Tamsin Orrell"]]]
      )
      expect(owner.call(:get, "/api/engines/NEW1?revision=1").last["profile"]["plug"]["torque_nm"]).to eq(23)
      expect(owner.call(:get, "/api/engines/NEW1?revision=7").first).to eq(404)
    end

    it "stores nothing when the file is the newest revision already, and says so" do
      owner.call(:post, "/api/engines", own("NEW2"))
      status, body = owner.call(:post, "/api/engines", own("NEW2").to_a.reverse.to_h)
      expect([status, body["error"]["code"], revisions("NEW2")]).to eq([409, "same_profile", [1]])
    end

    it "a retried import is carried out once" do
      2.times do
        expect(owner.call(:post, "/api/engines", own("NEW3"), { "Idempotency-Key" => "import-3" }).first).to eq(201)
      end
      expect(revisions("NEW3")).to eq([1])
    end

    it "imports at the same time take one revision each, none twice" do
      clients = Array.new(4) { Client.as("owner@merrow.example") }
      bodies = Array.new(4) { |i| own("NEW4").merge("notes" => "variant #{i}") }
      statuses =
        clients
          .zip(bodies)
          .map { |client, body| Thread.new { client.call(:post, "/api/engines", body).first } }
          .map(&:value)
      expect(statuses).to all(eq(201))
      expect(revisions("NEW4")).to eq([1, 2, 3, 4])
    end

    it "warns of steps nothing reaches and of parts without a price, and still imports" do
      odd = own("NEW5")
      odd["steps"] << { "id" => "loose", "label" => "Loose", "remove" => [1, 1, 1], "refit" => [1, 1, 1] }
      odd["plug"]["part"] = "PLG-9999"
      report = advisor.call(:post, "/api/engines/report", odd).last
      expect(report["warnings"]).to eq([{ "path" => "/steps/6", "message" => "no target ever goes through loose" }])
      expect(report["unpriced"]).to eq(["PLG-9999"])
      expect(owner.call(:post, "/api/engines", odd).first).to eq(201)
    end
  end

  # [what is sent, status, code, path of a detail]
  describe "hostile files" do
    make = {
      "a dangling reference" => [
        ->(p) { p["steps"][1]["after"] = ["ghost"] },
        400,
        "invalid_profile",
        "/steps/1/after/0"
      ],
      "a circle" => [->(p) { p["steps"][0]["after"] = ["coil-1"] }, 400, "invalid_profile", "/steps/1/after/0"],
      "low above likely" => [->(p) { p["steps"][0]["remove"] = [9, 1, 2] }, 400, "invalid_profile", "/steps/0/remove"],
      "a string for minutes" => [
        ->(p) { p["steps"][0]["remove"] = %w[1 2 3] },
        400,
        "invalid_profile",
        "/steps/0/remove/0"
      ],
      "an unknown key" => [->(p) { p["steps"][0]["speed"] = 1 }, 400, "invalid_profile", "/steps/0/speed"],
      "a number beyond reason" => [
        ->(p) { p["plug"]["interval_km"] = 1e300 },
        400,
        "invalid_profile",
        "/plug/interval_km"
      ],
      "a control character" => [->(p) { p["name"] = "Inline\u0001four" }, 400, "invalid_profile", "/name"],
      "the character 0" => [->(p) { p["name"] = "Inline\u0000four" }, 400, "invalid_encoding", "/name"],
      "a long name" => [->(p) { p["name"] = "x" * 100_000 }, 400, "invalid_profile", "/name"],
      "another format" => [->(p) { p["format"] = "nimble-ledger.catalog" }, 400, "invalid_profile", "/format"],
      "too many steps" => [
        ->(p) do
          p["steps"] = Array.new(81) do |i|
            { "id" => "s#{i}", "label" => "s", "remove" => [1, 1, 1], "refit" => [1, 1, 1] }
          end
        end,
        400,
        "invalid_profile",
        "/steps"
      ],
      "keys that look like program" => [
        ->(p) { p["__proto__"] = { "role" => "owner" } },
        400,
        "invalid_profile",
        "/__proto__"
      ]
    }

    it "script text in labels is only text" do
      body = profile.tap { |p| p["steps"][0]["label"] = "<script>alert(1)</script>" }
      status, report = advisor.call(:post, "/api/engines/report", body)
      expect([status, report["error"]]).to eq([200, nil])
      expect(JSON.generate(report["changes"])).to include("<script>alert(1)</script>")
    end

    make.each do |name, (change, status, code, path)|
      it "#{name}: #{status}, plainly and at once" do
        body = profile.tap(&change)
        found, answer = nil
        expect(processor_seconds { found, answer = advisor.call(:post, "/api/engines/report", body) }).to be < 2
        expect([found, answer.dig("error", "code")]).to eq([status, code])
        expect(answer["error"]["details"].map { |detail| detail["path"] }).to include(path)
        expect(JSON.generate(answer)).not_to match(/NoMethod|undefined|\.rb:/)
      end
    end

    it "a million steps, a deep nest, a large file, broken text: refused before they are looked into" do
      step = "{\"id\":\"s\",\"label\":\"s\",\"remove\":[1,1,1],\"refit\":[1,1,1]},"
      {
        "{\"steps\":[#{step * 60_000}0]}" => 400,
        "{\"steps\":[#{step * 1_000_000}0]}" => 413,
        "{\"steps\":#{"[" * 20_000}#{"]" * 20_000}}" => 400,
        "{\"name\":\"\xC3\x28\"}" => 400,
        "{\"name\":" => 400,
        "" => 400
      }.each do |text, status|
        found, answer = nil
        expect(processor_seconds { found, answer = advisor.call(:post, "/api/engines/report", text) }).to be < 5
        expect(found).to eq(status), text[0, 40]
        expect(answer["error"]["message"]).not_to match(/undefined|nil|\.rb/)
      end
    end

    it "nothing of them is kept" do
      before = db[:engine_profiles].count
      owner.call(:post, "/api/engines", profile.tap { |p| p["steps"][1]["after"] = ["ghost"] })
      expect(db[:engine_profiles].count).to eq(before)
    end

    it "a code with odd letters is found, shown and exported under a safe name" do
      odd = own("A/B é.1")
      expect(owner.call(:post, "/api/engines", odd).first).to eq(201)
      address = "/api/engines/#{Rack::Utils.escape_path("A/B é.1").gsub("/", "%2F")}"
      expect(owner.call(:get, address).first).to eq(200)
      owner.call(:get, "#{address}/export")
      expect(owner.last_response.headers["content-disposition"]).to eq("attachment; filename=\"a-b-.1.engine.json\"")
    end
  end

  describe "quotes and revisions" do
    # A car with an engine of its own, a quote on it, and a second revision of the engine.
    def quote_on(code, cylinders)
      owner.call(:post, "/api/engines", own(code))
      car =
        advisor.call(
          :post,
          "/api/vehicles",
          { plate: "EV #{code}", description: "Pellwick Breve", engine_code: code, year: 2015 }
        ).last
      page = advisor.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last
      [page, advisor.choose(page, cylinders).last]
    end

    def again(page) = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}").last

    it "a quote keeps the revision it was started with, to the cent, until it is moved" do
      page, priced = quote_on("REV1", [1, 2])
      total = priced["sheet"]["estimate"]["price"]["total_cents"]
      slower = own("REV1").tap { |p| p["steps"][0]["remove"] = [30, 40, 60] }
      owner.call(:post, "/api/engines", slower)
      later = again(page)
      expect(
        [
          later["engine"]["revision"],
          later["newest_engine_revision"],
          later["sheet"]["estimate"]["price"]["total_cents"]
        ]
      ).to eq([1, 2, total])
      status, moved = advisor.call(:post, "/api/quotes/#{page["quote"]["id"]}/engine")
      expect([status, moved["engine"]["revision"], moved["dropped"]]).to eq([200, 2, []])
      expect(moved["sheet"]["estimate"]["price"]["total_cents"]).to be > total
    end

    it "a move drops what the new revision does not have, names it, and never shuts the quote" do
      page, = quote_on("REV2", [1, 4])
      content = page["draft"]["content"]
      content =
        content.merge(
          "scopes" => [
            content["scopes"][0].merge(
              "cylinders" => [1, 4],
              "works" => ["plug"],
              "extras" => ["throttle-clean"],
              "pins" => {
                "ways" => {
                  "plug-4" => "from-above"
                }
              }
            )
          ]
        )
      expect(
        advisor.call(:put, "/api/quotes/#{page["quote"]["id"]}/draft", { version: 2, content: content }).first
      ).to eq(200)
      three =
        own("REV2").tap do |p|
          p["cylinders"].pop
          p["coils"].pop
          p["steps"].reject! { |step| step["id"] == "coil-4" }
          gone = %w[throttle-clean cover-gasket]
          p["targets"].reject! { |target| target["cylinder"] == 4 || gone.include?(target["id"]) }
        end
      expect(owner.call(:post, "/api/engines", three).first).to eq(201)
      moved = advisor.call(:post, "/api/quotes/#{page["quote"]["id"]}/engine").last
      expect(moved["dropped"]).to eq(["cylinder 4", "throttle-clean", "the pinned routes"])
      expect(moved["draft"]["content"]["scopes"][0]["cylinders"]).to eq([1])
      expect(advisor.choose(moved, [1, 2], version: moved["draft"]["version"]).first).to eq(200)
    end

    it "a saved revision still shows and recomputes what it was made with after the engine has moved on" do
      page, priced = quote_on("REV3", [3])
      advisor.save(page["quote"]["id"], priced)
      owner.call(:post, "/api/engines", own("REV3").merge("name" => "Renamed"))
      advisor.call(:post, "/api/quotes/#{page["quote"]["id"]}/engine")
      frozen = advisor.call(:get, "/api/quotes/#{page["quote"]["id"]}/revisions/1").last["scopes"].first
      expect(frozen["request"]["engine"]["name"]).to eq("Inline four")
      recomputed = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(frozen["request"])).to_h
      expect(JSON.parse(JSON.generate(recomputed))).to eq(frozen["answer"])
    end

    it "a new quote starts with the newest revision" do
      quote_on("REV4", [1])
      owner.call(:post, "/api/engines", own("REV4").merge("notes" => "second"))
      car = advisor.call(:get, "/api/vehicles?search=REV4").last["vehicles"].first
      expect(advisor.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last["engine"]["revision"]).to eq(2)
    end
  end
end
