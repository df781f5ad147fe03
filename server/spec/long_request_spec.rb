# frozen_string_literal: true

require_relative "spec_helper"

# What takes long is worked off beside the web process, as it would have been inside it.
RSpec.describe NimbleServer::LongRequest do
  before(:context) do
    @web, door = Cluster::SERVING.map { |role| NimbleServer::Database.connect(TestServer.cluster.url(role)) }
    TestServer.app
    @runner = described_class::Runner.new(@web, NimbleServer::Application.api(@web, door: door))
    @owner = Client.as("owner@merrow.example")
  end

  let(:db) { TestServer.db }
  let(:requests) { db[:long_requests] }

  # As a web process of bin/start, with a runner that takes what it hands on.
  def beside(runner: @runner)
    stub_const("#{described_class}::Runner::LARGEST_KB", Float::INFINITY) # this process holds all of the specs
    allow(described_class).to receive(:handed_on?).and_return(true)
    allow(described_class::Run).to receive(:enqueue) do |shop_id, id, **|
      Thread.new { runner.work_off(shop_id, id) if stored?(id) }
    end
    yield
  end

  # Once the transaction that put it there has ended.
  def stored?(id)
    Patience.until { requests.where(id: id).any? }
  end

  it "answers what the request itself would have answered, bytes and refusals alike, and keeps nothing" do
    before = [requests.count, db[:long_request_parts].count]
    csv = { text: "finished;engine\n2026-05-04;GV28\nnever;GV28\n" }
    page = @owner.start_quote
    @owner.save(page["quote"]["id"], @owner.choose(page, [5]).last)
    asked = [
      [:post, "/api/ledger/past/report", csv],
      [:post, "/api/ledger/past/report", { text: "" }],
      [:post, "/api/library/report", { archive: "AAAA" }],
      [:get, "/api/garage/export"],
      [:get, "/api/quotes/#{SecureRandom.uuid}/print.pdf"],
      [:get, "/api/ledger/export"]
    ]
    inside = asked.map { |one| @owner.call(*one) }
    outside = beside { asked.map { |one| @owner.call(*one) } }
    expect(outside.map(&:first)).to eq(inside.map(&:first))
    expect(outside).to eq(inside)
    pdf = beside { @owner.get("/api/quotes/#{page["quote"]["id"]}/print.pdf") }
    expect([pdf.status, pdf.headers["content-type"], pdf.body[0, 5]]).to eq([200, "application/pdf", "%PDF-"])
    expect([requests.count, db[:long_request_parts].count]).to eq(before)
  end

  it "hands an answer out in parts" do
    stub_const("#{described_class}::PART", 1_000)
    body = beside { @owner.get("/api/ledger/export").body }
    expect(body.bytesize).to be > 20_000
    expect(JSON.parse(body)["jobs"].size).to eq(@owner.call(:get, "/api/ledger/export").last["jobs"].size)
  end

  it "gives up what nobody waits for" do
    started = Queue.new
    runner = Class.new { define_method(:work_off) { |_shop, id| started << id } }
    gone =
      beside(runner: runner.new) do
        allow_any_instance_of(NimbleServer::Patience).to receive(:gone?) { started.size.positive? }
        @owner.call(:get, "/api/garage/export")
      end
    expect(gone).to match([503, include("error" => include("code" => "abandoned"))])
    expect(requests.where(id: started.pop).get(:state)).to eq("cancelled")
  end

  it "says so when whoever worked on it fell" do
    runner =
      Class.new do
        define_method(:initialize) { |rows| @rows = rows }
        define_method(:work_off) { |_shop, id| @rows.where(id: id).update(state: "failed") }
      end
    answer = beside(runner: runner.new(requests)) { @owner.call(:get, "/api/garage/export") }
    expect(answer).to match([503, include("error" => include("code" => "broke_off"))])
  end
end
