# frozen_string_literal: true

require_relative "spec_helper"

# Bytes nobody would send by mistake: a clean 4xx in the one error form, with every security header, and no trace of
# Ruby.
RSpec.describe NimbleServer::PlainBytes do
  let(:advisor) { Client.as("advisor@merrow.example") }

  HEADERS = %w[content-security-policy x-content-type-options x-frame-options referrer-policy cache-control].freeze

  def clean(client, statuses = 400..499)
    response = client.last_response
    expect(statuses).to cover(response.status), "#{response.status} #{response.body[0, 200]}"
    expect(JSON.parse(response.body)["error"]["message"]).not_to match(/undefined|Error|\.rb|PG::|nil\b/)
    expect(response.headers.keys).to include(*HEADERS)
  end

  # Straight into the application, past the test library's own ideas of an address.
  def raw(env) =
    TestServer.app.call(
      Rack::MockRequest.env_for("http://127.0.0.1/", { "REMOTE_ADDR" => "127.0.0.1", :method => "GET" }).merge(env)
    )

  {
    "not UTF-8 in the path" => {
      "PATH_INFO" => "/api/engines/%FF%FE"
    },
    "NUL in the path" => {
      "PATH_INFO" => "/api/engines/%00"
    },
    "a line end in the path" => {
      "PATH_INFO" => "/api/engines/a%0Ab"
    },
    "raw bytes in the path" => {
      "PATH_INFO" => "/api/engines/\xFF".b
    },
    "not UTF-8 in the query" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search=%C3%28"
    },
    "NUL in the query" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search=a%00b"
    },
    "a deep query" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search#{"[a]" * 200}=1"
    },
    "a list for text" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search[]=1"
    },
    "a long query" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search=#{"a" * 9_000}"
    },
    "broken percent signs" => {
      "PATH_INFO" => "/api/quotes",
      "QUERY_STRING" => "search=%&x=%zz%FF"
    },
    "bytes in a header" => {
      "PATH_INFO" => "/api/quotes",
      "HTTP_ACCEPT_LANGUAGE" => "\xFF\xFE".b
    },
    "a control character in a header" => {
      "PATH_INFO" => "/api/quotes",
      "HTTP_IDEMPOTENCY_KEY" => "a\u0001"
    }
  }.each do |name, env|
    it "refuses #{name}" do
      status, headers, body = raw(env)
      text = body.respond_to?(:each) ? [].tap { |parts| body.each { |part| parts << part } }.join : body.join
      expect(status).to be_between(400, 499), text
      expect(JSON.parse(text)["error"]["code"]).to be_a(String)
      expect(headers.keys).to include(*HEADERS)
    end
  end

  it "refuses odd text wherever it is sent, with its place" do
    engine = advisor.call(:get, "/api/engines/SK18").last["profile"]
    {
      { plate: " ", description: "x", engine_code: "SK18" } => "/plate",
      { plate: "\u00a0\u200b", description: "x", engine_code: "SK18" } => "/plate",
      { plate: "A\u0000B", description: "x", engine_code: "SK18" } => "/plate",
      { plate: "AB 1", description: "two\nlines", engine_code: "SK18" } => "/description",
      { plate: "AB 1", description: "turned \u202e round", engine_code: "SK18" } => "/description"
    }.each do |body, path|
      expect(advisor.call(:post, "/api/vehicles", body).last["error"]["details"].first["path"]).to eq(path)
      clean(advisor)
    end
    {
      ->(hash) { hash["steps"][0]["label"] = "a\tb" } => "/steps/0/label",
      ->(hash) { hash["steps"][0]["remove"] = [1e-300, 1, 2] } => "/steps/0/remove/0",
      ->(hash) { hash["steps"][0]["remove"] = [0, 1, 1e300] } => "/steps/0/remove/2",
      ->(hash) { hash["name"] = "\u2028" } => "/name"
    }.each do |spoil, path|
      hash = JSON.parse(JSON.generate(engine)).tap(&spoil)
      expect(advisor.call(:post, "/api/engines/report", hash).last["error"]["details"].first["path"]).to eq(path)
      clean(advisor)
    end
    page = advisor.start_quote
    content = page["draft"]["content"].merge("condition" => { "wells" => { "1\u0000" => "wet" } })
    expect(
      advisor.call(:put, "/api/quotes/#{page["quote"]["id"]}/draft", { version: 1, content: content }).last["error"][
        "details"
      ].first[
        "path"
      ]
    ).to eq("/content/condition/wells")
    clean(advisor)
  end

  it "refuses numbers written to hurt, and reads whole ones however they are written" do
    page = advisor.start_quote
    path = "/api/quotes/#{page["quote"]["id"]}/draft"
    content = JSON.generate(page["draft"]["content"])
    %w[1e400 -1e400 1e999999 2.5 1e300 NaN Infinity].each do |number|
      advisor.call(:put, path, %({"version": #{number}, "content": #{content}}))
      clean(advisor)
    end
    expect(advisor.call(:put, path, %({"version": 1.0e0, "content": #{content}})).first).to eq(200)
  end

  it "takes no engine code that means another address" do
    owner = Client.as("owner@merrow.example")
    profile = owner.call(:get, "/api/engines/SK18").last["profile"]
    %w[report .. . a/.. x/export / new].each do |code|
      expect(
        owner.call(:post, "/api/engines", profile.merge("code" => code)).last["error"]["details"].first["path"]
      ).to eq("/code")
      clean(owner)
    end
  end

  it "has the security headers on every kind of answer" do
    throttled = Client.new.tap(&:refresh)
    throttled.env("REMOTE_ADDR", "203.0.113.99")
    stub_const("NimbleServer::Features::Accounts::SignInTries::FROM_ONE_ADDRESS", 0)
    expect(
      throttled.call(:post, "/api/account/login", { email: "advisor@merrow.example", password: "wrong" }).first
    ).to eq(429)
    expect(throttled.last_response.headers.keys).to include(*HEADERS)
    broken = NimbleServer::SecurityHeaders.new(NimbleServer::ErrorFallback.new(->(_env) { raise "odd" }))
    before, $stderr = $stderr, StringIO.new
    status, headers, = broken.call({})
    logged, $stderr = $stderr.string, before
    expect([status, headers.keys]).to match([500, include(*HEADERS)])
    expect(logged).not_to include("odd")
  end
end
