# frozen_string_literal: true

require_relative "spec_helper"

# Finding the fault over HTTP: taken in, tested, kept, with what the bay marked.
RSpec.describe NimbleServer::Features::Trace::Desk do
  let(:advisor) { Client.as("advisor@merrow.example") }
  let(:bay) { Client.as("bay@merrow.example") }

  def started(plate = "4-TRE-1M") = advisor.start_quote(plate)["quote"]["id"]
  def trace(id, client = advisor) = client.call(:get, "/api/quotes/#{id}/trace").last
  def keep(id, version, content, client = advisor) =
    client.call(:put, "/api/quotes/#{id}/trace", { version: version, content: content })

  def lead(sheet) = sheet["hypotheses"].first

  it "begins with nothing known, and follows what is typed to the cheapest way to know" do
    id = started
    page = trace(id)
    expect(page.values_at("version", "content")).to eq([0, { "complaint" => "", "others" => "", "evidence" => [] }])
    expect(page["sheet"]["shares"].map { |row| row["share"] }.uniq.size).to eq(1)
    content = { complaint: "Shakes when I pull away", lamp: "blinking", codes: [{ code: "P0303" }], evidence: [] }
    status, kept = keep(id, 0, content)
    expect([status, kept["version"]]).to eq([200, 1])
    expect(kept["sheet"]["cautions"].first).to include("do not drive")
    expect(kept["sheet"]["shares"].max_by { |row| row["share"] }["cylinder"]).to eq(3)
    expect(kept["sheet"]["worth"]["guess"]["cents"]).to be_positive
    best = kept["sheet"]["tests"].first
    done = best.slice("test", "cylinder", "with").merge("outcome" => kept["sheet"]["outcomes"][best["test"]].last)
    after = keep(id, 1, content.merge(evidence: [done])).last
    expect(after["sheet"]["evidence"].last).to include(done)
    expect(trace(id)["content"]["complaint"]).to eq("Shakes when I pull away")
  end

  it "shows two who write to it each other's version, and stores nothing that cannot be" do
    id = started
    keep(id, 0, { complaint: "theirs" }, bay)
    status, refused = keep(id, 0, { complaint: "mine" })
    expect([status, refused["error"]["code"], refused["trace"]["complaint"]]).to eq([409, "trace_conflict", "theirs"])
    bad = { evidence: [{ test: "swap-coil", cylinder: 3, with: 2, outcome: "perhaps" }] }
    status, error = keep(id, 1, bad)
    expect([status, error["error"]["details"].first["path"]]).to eq([400, "/evidence/0/outcome"])
    expect(trace(id)["version"]).to eq(1)
  end

  it "counts what the bay has marked: codes read, plugs looked at, layers off" do
    start = advisor.start_quote("2-NET-8H")
    id = start["quote"]["id"]
    number = start["sheet"]["reach"]["cylinders"].first["number"]
    advisor.choose(start, [number])
    revision = advisor.save(id).last["revision"]["revision"]
    given = { revision: revision, channel: "phone", recipient: "Ines" }
    offer = advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    yes = { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][0]["limit_cents"] }
    advisor.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
    job = advisor.call(:get, "/api/jobs").last["jobs"].find { |row| row["quote_id"] == id }
    card = bay.call(:get, "/api/jobs/#{job["id"]}").last
    off = card["sheet"]["pieces"].find { |piece| piece["id"].end_with?(":remove") }
    plug = card["sheet"]["plugs"].first
    at = ->(n) { (Time.now.utc + n).iso8601(3) }
    marks = [
      { id: "tr-1", at: at[0], kind: "start" },
      { id: "tr-2", at: at[1], kind: "off", piece: off["id"] },
      { id: "tr-3", at: at[2], kind: "codes", codes: [{ code: "P0301", status: "stored" }], lamp: "steady" },
      { id: "tr-4", at: at[3], kind: "read", plug: plug["key"], conditions: ["wet-fuel"] }
    ]
    expect(bay.call(:post, "/api/jobs/#{job["id"]}/marks", { device: "t", marks: marks }).last["refused"]).to eq([])
    page = trace(id, bay)
    expect(page["bay"]).to include(
      "codes" => [{ "code" => "P0301", "status" => "stored" }],
      "open" => [off["ref"]],
      "evidence" => [{ "test" => "read-plug", "cylinder" => number, "outcome" => "wet" }]
    )
    expect(page["sheet"]["evidence"].map { |row| row["test"] }.compact).to eq(["read-plug"])
    goes_out(id, job)
  end

  # The card knows what to find out next, and what was exchanged.
  def goes_out(id, job)
    told = -> { bay.call(:get, "/api/jobs/#{job["id"]}").last["trace"] }
    expect(told.call).to be_nil
    swap = { test: "swap-plug", cylinder: 1, with: 2, outcome: "stayed" }
    expect(keep(id, 0, { complaint: "It shakes", evidence: [swap] }).first).to eq(200)
    expect(told.call).to include("complaint" => "It shakes", "moved" => [moved(1, 2), moved(2, 1)])
    expect(told.call["next"]["test"]).not_to eq("swap-plug")
  end

  def moved(from, now) = { "kind" => "plug", "from" => [from], "now" => [now] }

  it "says that the scan tool does not answer, and loses nothing" do
    id = started
    status, error = advisor.call(:post, "/api/quotes/#{id}/trace/codes")
    expect([status, error["error"]["code"]]).to eq([503, "scan_tool_away"])
  end
end
