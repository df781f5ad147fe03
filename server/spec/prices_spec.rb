# frozen_string_literal: true

require_relative "spec_helper"

# The price list: looked up, exported, changed by rows after a report, never half.
RSpec.describe NimbleServer::Features::Prices::PriceList do
  let(:owner) { Client.as("owner@merrow.example") }
  let(:advisor) { Client.as("advisor@merrow.example") }

  def prices(search = "", client = owner) = client.call(:get, "/api/prices?search=#{search}").last

  def part(number, client = owner) = prices(number, client)["parts"].find { |row| row["part"] == number }

  def report(csv, client: advisor) = client.call(:post, "/api/prices/report", { csv: csv })

  def keep(rows, client: owner, revision: prices["revision"], **headers) =
    client.call(:post, "/api/prices", rows.merge(revision: revision), headers.transform_keys(&:to_s))

  def row(number, cost, **rest) = { part: number, supplier: "Quayside Supply", cost: cost }.merge(rest)

  it "finds a part by anything on its row, with what it costs and sells at" do
    found = prices("v6+sideways")["parts"]
    expect(found.map { |row| row["part"] }).to include("COI-80409", "BOT-19126")
    # its markup band is the house's
    coil = part("COI-80409")
    expect(coil["price_cents"]).to eq(
      NimbleLedger::Price::Markup.selling_price(coil["cost_cents"], NimbleLedger::House::Settings.defaults["markup"])
    )
    expect(coil["offers"].first).to include("supplier", "on_hand", "lead_days")
  end

  it "exports what imports as no change at all, and back again" do
    csv = advisor.call(:get, "/api/prices/export").last
    status, body = report(csv)
    expect([status, body.slice("added", "changed", "rejected", "changes")]).to eq(
      [200, { "added" => 0, "changed" => 0, "rejected" => 0, "changes" => false }]
    )
    expect(body["same"]).to eq(CSV.parse(csv).size - 1)
    expect(csv.lines.first.strip).to eq("part,description,kind,unit,supplier,cost,on_hand,lead_days,list")
  end

  it "prices an open quote with a changed part at once, and leaves the saved one alone" do
    quote = advisor.start_quote("4-TRE-1M")
    id = quote["quote"]["id"]
    advisor.choose(quote, [5])
    saved = advisor.save(id).last["revision"]["total_cents"]
    before = part("COI-80409")
    status, body = keep({ rows: [row("COI-80409", "60.00")] })
    expect([status, body["rows"].map { |r| r["changes"] }]).to eq(
      [201, [["cost at Quayside Supply #{format("%.2f", before["cost_cents"] / 100.0)} → 60.00"]]]
    )
    page = advisor.call(:get, "/api/quotes/#{id}").last
    line = page["sheet"]["estimate"]["price"]["lines"].find { |l| l["part"] == "COI-80409" }
    expect(line["cents"]).to eq(10_400) # 20 × 2.0 + 40 × 1.6
    expect(advisor.call(:get, "/api/quotes/#{id}/revisions/1").last["scopes"][0]["total_cents"]).to eq(saved)
    keep({ rows: [row("COI-80409", format("%.2f", before["cost_cents"] / 100.0))] })
    expect(part("COI-80409")).to eq(before)
  end

  it "names the parts engines ask for without a price, and completes their quotes when one is set" do
    profile = owner.call(:get, "/api/engines/SK18").last["profile"]
    owner.call(
      :post,
      "/api/engines",
      profile.merge("code" => "PRC1", "plug" => profile["plug"].merge("part" => "PLG-PRC1"))
    )
    car =
      owner.call(
        :post,
        "/api/vehicles",
        { plate: "PRC 1", description: "Price car", engine_code: "PRC1", year: 2015 }
      ).last
    id = advisor.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last["quote"]["id"]
    advisor.choose(advisor.call(:get, "/api/quotes/#{id}").last, [1], works: ["plug"])
    price = -> { advisor.call(:get, "/api/quotes/#{id}").last["sheet"]["estimate"]["price"] }
    expect(price.call["incomplete"]).to be(true)
    expect(prices["missing"]).to include("part" => "PLG-PRC1", "description" => "", "engines" => ["PRC1"])
    keep({ rows: [row("PLG-PRC1", "7.00", description: "Spark plug, price test")] })
    expect(price.call["incomplete"]).to be_falsy
    expect(prices["missing"].map { |m| m["part"] }).not_to include("PLG-PRC1")
  end

  it "keeps the good rows, says why the others cannot be, and nothing of them" do
    revision = prices["revision"]
    csv = "part;supplier;cost\nZZ-201;Wharf;12,50\nZZ-202;Wharf;a lot\n;Wharf;1,00\n"
    status, body = report(csv)
    expect([status, body["added"], body["rejected"], body["rows"].map { |r| r["line"] }]).to eq([200, 1, 2, [2, 3, 4]])
    expect(prices["revision"]).to eq(revision)
    expect(keep({ csv: csv }).first).to eq(201)
    expect([part("ZZ-201")["cost_cents"], part("ZZ-202"), prices["revision"]]).to eq([1250, nil, revision + 1])
  end

  it "writes formulas so that no spreadsheet runs them, and reads them back as they were" do
    keep({ rows: [row("=CMD()", "1.00", description: "@sum(1)"), row("ZZ-210", "2.00", description: "'=quoted")] })
    csv = advisor.call(:get, "/api/prices/export").last
    cells = CSV.parse(csv).flatten.compact
    expect(cells).to include("'=CMD()", "'@sum(1)", "''=quoted")
    expect(cells.grep(/\A[=+@]/)).to eq([])
    expect(report(csv).last["changes"]).to be(false)
  end

  NO_LISTS = {
    "part,colour\nA,red\n" => "/csv/1",
    "supplier,cost\nA,1\n" => "/csv/1",
    "part,part\nA,B\n" => "/csv/1",
    "part,cost\n\"A,1\n" => "/csv/2",
    "" => "/csv"
  }.freeze

  NO_LISTS.each do |text, path|
    it "refuses #{text.inspect[0, 30]} with where it is" do
      status, body = report(text)
      expect([status, body["error"]["details"].first["path"]]).to match([400, start_with(path)])
    end
  end

  it "refuses what is no text, what is too long and what changes nothing, quickly and in words" do
    expect(owner.call(:post, "/api/prices/report", { csv: 5 }).first).to eq(400)
    expect(owner.call(:post, "/api/prices/report", { rows: [{ part: "A", price: "1" }] }).first).to eq(400)
    long = "part\n#{"A\n" * 20_001}"
    found = nil
    expect(processor_seconds { found = report(long) }).to be < 5
    expect([found[0], found[1]["error"]["code"]]).to eq([400, "too_many_rows"])
    status, body = keep({ rows: [{ part: "COI-80409" }] })
    expect([status, body["error"]["code"]]).to eq([400, "nothing_to_keep"])
    expect(keep({ rows: [row("COI-80409", "x")] }).last["error"]["message"]).to include("COI-80409 cost x is no amount")
  end

  it "takes two changes of the same list one after the other, and a retried one once" do
    revision = prices["revision"]
    expect(
      keep({ rows: [row("ZZ-220", "3.00")] }, :revision => revision, "Idempotency-Key" => "prices-once").first
    ).to eq(201)
    expect(
      keep({ rows: [row("ZZ-220", "3.00")] }, :revision => revision, "Idempotency-Key" => "prices-once").first
    ).to eq(201)
    expect(prices["revision"]).to eq(revision + 1)
    expect(keep({ rows: [row("ZZ-220", "4.00")] }, revision: revision).last["error"]["code"]).to eq("price_conflict")
    expect(part("ZZ-220")["cost_cents"]).to eq(300)
  end

  it "keeps another shop's list apart" do
    stranger = Client.as("owner@hollow.example")
    before = prices("", stranger)
    keep({ rows: [row("ZZ-230", "5.00")] })
    expect(prices("", stranger)).to eq(before)
  end

  it "takes the 20,000 rows it promises, says how far it is, and answers with a few of them" do
    rows = Array.new(20_000) { |i| "ZQ-#{i},Part #{i},Wharf,#{i % 90}.#{format("%02d", i % 100)}\n" }
    csv = ["part,description,supplier,cost\n", *rows].join
    id = SecureRandom.uuid
    status, report = owner.call(:post, "/api/prices/report", { csv: csv }, "X-Progress" => id)
    expect([status, report["added"], report["rejected"], report["rows"].size]).to eq([200, 20_000, 0, 200])
    expect(owner.call(:get, "/api/progress/#{id}").last["percent"]).to be >= 95
    expect(Client.as("advisor@merrow.example").call(:get, "/api/progress/#{id}").last["percent"]).to be_nil
    expect(owner.call(:post, "/api/prices/report", { csv: "#{csv}ZQ-x,one more,Wharf,1.00\n" }).first).to eq(400)
  end

  # Sixteen times the rows cost some sixteen times as much; where each looked at all others it would be 256 times. The
  # better of two tries: in a process that has run a thousand examples the memory is swept at any moment.
  it "takes time in the measure of the rows, not of their square" do
    spent =
      [1_000, 16_000].map do |count|
        rows = Array.new(count) { |i| "ZQ-#{i},Part #{i},Wharf,#{i % 90}.00\n" }
        csv = ["part,description,supplier,cost\n", *rows].join
        Array.new(2) { processor_seconds { owner.call(:post, "/api/prices/report", { csv: csv }) } }.min
      end
    expect(spent[1]).to be < spent[0] * 80
  end

  it "does not send back at length what it refuses" do
    long = "9" * 250
    report = owner.call(:post, "/api/prices/report", { rows: [{ part: "ZQ-1", supplier: "Wharf", cost: long }] }).last
    expect(report["rows"][0]["reason"]).to include("is no amount").and(satisfy { |reason| !reason.include?(long) })
  end
end
