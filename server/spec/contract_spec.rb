# frozen_string_literal: true

require_relative "spec_helper"

# Answers against the contract, and requests that do not fit it.
RSpec.describe NimbleServer::ContractCheck do
  let(:definition) { @definition ||= OpenapiFirst.load(NimbleServer::ContractCheck::SPEC) }
  let(:client) { Client.as("advisor@merrow.example") }

  def fits
    response = client.last_response
    checked =
      definition.validate_response(
        client.last_request,
        Rack::Response[response.status, response.headers, [response.body]]
      )
    expect(checked.error&.message).to be_nil
    response.status
  end

  it "every kind of answer fits what the contract promises" do
    page = client.start_quote
    expect(fits).to eq(201)
    id = page["quote"]["id"]
    client.choose(page, [1, 2])
    expect(fits).to eq(200)
    client.choose(page, [3], version: 1)
    expect(fits).to eq(409)
    client.save(id)
    expect(client.last_response.status).to eq(201)
    client.call(:get, "/api/quotes/#{id}")
    client.save(id)
    expect(fits).to eq(201)
    [
      "/api/quotes/#{id}",
      "/api/quotes/#{id}/revisions/1",
      "/api/quotes",
      "/api/vehicles",
      "/api/engines",
      "/api/engines/KUJ6",
      "/api/session",
      "/api/ping"
    ].each do |path|
      client.call(:get, path)
      expect(fits).to eq(200), path
    end
    client.call(:get, "/api/quotes/#{SecureRandom.uuid}")
    expect(fits).to eq(404)
  end

  it "answers for every engine fit, with routes, trouble and a job that cannot be planned" do
    JSON.parse(File.read(File.join(NimbleServer::Demo::FOLDER, "shop.json")))["shops"][0]["vehicles"]
      .uniq { |car| car["engine"] }
      .each do |car|
        page = client.start_quote(car["plate"])
        expect(fits).to eq(201), car["engine"]
        numbers = page["sheet"]["reach"]["cylinders"].map { |cylinder| cylinder["number"] }
        client.choose(page, numbers.first(3), works: page["sheet"]["offers"]["works"].first(2))
        expect(fits).to eq(200), car["engine"]
        client.call(:get, "/api/quotes/#{page["quote"]["id"]}/panels/trouble")
        expect(fits).to eq(200), car["engine"]
        client.call(:get, "/api/engines/#{car["engine"]}?work=coil")
        expect(fits).to eq(200), car["engine"]
      end
    %w[/api/engines?search=v6 /api/house /api/engines/IXO6/export].each do |path|
      expect(client.call(:get, path).then { fits }).to eq(200), path
    end
    profile = client.call(:get, "/api/engines/IXO6").last["profile"]
    client.call(:post, "/api/engines/report", profile.merge("notes" => "other"))
    expect(fits).to eq(200)
    client.call(:post, "/api/engines/report", profile.merge("steps" => 7))
    expect(fits).to eq(400)
    client.call(
      :post,
      "/api/estimates",
      { format: "nimble-ledger.estimate-request", version: 1, engine: profile, targets: ["plug-5"] }
    )
    expect(fits).to eq(422)
  end

  it "computes the same over HTTP as the command" do
    engine = client.call(:get, "/api/engines/JIV6").last
    request = { format: "nimble-ledger.estimate-request", version: 1, targets: %w[plug-5 coil-5], equipment: [] }
    status, by_id = client.call(:post, "/api/estimates", request.merge(engine: engine["id"]))
    inline = client.call(:post, "/api/estimates", request.merge(engine: engine["profile"])).last
    core =
      NimbleLedger::Estimate::Answer.new(
        NimbleLedger::Estimate::Request.build(JSON.parse(JSON.generate(request.merge(engine: engine["profile"]))))
      ).to_h
    expect(status).to eq(200)
    expect([by_id, inline]).to all(eq(JSON.parse(JSON.generate(core))))
  end

  BAD = {
    "not JSON" => ["{\"version\": ", 400, "invalid_json"],
    "not UTF-8" => ["{\"vehicle_id\": \"\xFF\"}", 400, "invalid_encoding"],
    "too deep" => ["#{"[" * 5000}#{"]" * 5000}", 400, "too_deep"],
    "too large" => ["\"#{"x" * 4_100_000}\"", 413, "too_large"],
    "a list" => ["[]", 400, "invalid_body"],
    "an unknown key" => ["{\"vehicle_id\": \"a\", \"speed\": 1}", 400, "invalid_body"],
    "a number for text" => ["{\"vehicle_id\": 7}", 400, "invalid_body"],
    "NaN" => ["{\"vehicle_id\": NaN}", 400, "invalid_json"]
  }.freeze

  BAD.each do |name, (text, status, code)|
    it "refuses #{name} quickly, in the error form, without a trace of Ruby" do
      before = TestServer.db[:quotes].count
      found, body = nil
      expect(processor_seconds { found, body = client.call(:post, "/api/quotes", text) }).to be < 5
      expect([found, body["error"]["code"]]).to eq([status, code])
      expect(body["error"]["message"]).not_to match(/undefined|Error|\.rb|nil/)
      expect(TestServer.db[:quotes].count).to eq(before)
    end
  end

  it "answers unknown addresses and impossible plans in the same form" do
    expect(client.call(:get, "/api/nothing").last["error"]["code"]).to eq("not_found")
    engine = client.call(:get, "/api/engines/SK18").last["profile"]
    engine["steps"][0]["needs"] = ["cover-puller"]
    status, body =
      client.call(
        :post,
        "/api/estimates",
        { format: "nimble-ledger.estimate-request", version: 1, engine: engine, targets: ["plug-1"] }
      )
    expect([status, body["error"]["code"], body["error"]["details"].first["equipment"]]).to eq(
      [422, "impossible_plan", ["cover-puller"]]
    )
  end
end
