# frozen_string_literal: true

require_relative "spec_helper"

# The outbox and the process that carries it: each message leaves once, however often that process is stopped.
RSpec.describe NimbleServer::Features::Outbox::Post do
  before(:context) do
    @advisor = Client.as("advisor@merrow.example")
    page = @advisor.start_quote
    @id = page["quote"]["id"]
    @advisor.save(@id, @advisor.choose(page, [5]).last)
    @post_db = NimbleServer::Database.connect(TestServer.cluster.url("nimble_post"), connections: 2)
  end

  after(:context) { @post_db.disconnect }

  let(:db) { TestServer.db }
  let(:clock) { Struct.new(:ahead) { def now = Time.now + ahead }.new(0) }
  let(:carrier) { NimbleServer::StandIns::Carrier.new(@post_db, delay: 0) }
  let(:post) { described_class.new(@post_db, carrier, clock: clock) }

  before { db[:messages].where(state: %w[queued sending]).update(state: "delivered") }

  def message(address, channel: "text")
    given = { revision: 1, channel: channel, recipient: "Ines Calloway", address: address, supersede: true }
    offer = @advisor.call(:post, "/api/quotes/#{@id}/offers", given).last["offers"].first
    -> { db[:messages].where(offer_id: offer["id"]).first }
  end

  it "carries what waits, with the link in it, and tells the Counter" do
    row = message("555 0101")
    texts = []
    spied = ->(carry, *rest) { carry.call(*rest.tap { texts << rest.last }) }
    allow(carrier).to receive(:carry).and_wrap_original(&spied)
    expect(post.carry_one).to be(true)
    expect(row.call).to include(state: "delivered", tries: 1)
    expect(texts.first).to match(%r{https?://\S+/y/[\w-]{43} \(until})
    expect(post.carry_one).to be(false)
  end

  it "tries again some times, then leaves it to somebody; once more when asked" do
    row = message("555 0199")
    3.times do
      post.carry_one
      clock.ahead += 60
    end
    expect(row.call).to include(state: "failed", tries: 3, problem: "The line was busy.")
    offer = row.call[:offer_id]
    shown = @advisor.call(:get, "/api/counter").last["undelivered"].find { |one| one["offer_id"] == offer }
    expect(shown).to include("state" => "failed", "address" => "555 0199")
    expect(@advisor.call(:post, "/api/offers/#{offer}/retry").first).to eq(200)
    expect(row.call).to include(state: "queued", tries: 0)
  end

  it "gets through at the second try, and says what comes back" do
    row = message("555 0198")
    post.carry_one
    expect(row.call).to include(state: "queued", tries: 1)
    clock.ahead += 60
    post.carry_one
    expect(row.call[:state]).to eq("delivered")
    gone = message("nobody@bees.invalid", channel: "mail")
    post.carry_one
    expect(gone.call).to include(state: "bounced", problem: "Nobody is at nobody@bees.invalid.")
  end

  it "takes up what was being carried when it was stopped, and sends nothing twice" do
    row = message("555 0101")
    # stopped after the carrier had it, before it was noted
    db[:messages].where(id: row.call[:id]).update(state: "sending", tries: 1, updated_at: Time.now)
    db[:carried].insert(message_id: row.call[:id], at: Time.now)
    expect(post.carry_one).to be(false)
    clock.ahead = 60
    expect(post.carry_one).to be(true)
    expect(row.call[:state]).to eq("delivered")
    expect(db[:carried].where(message_id: row.call[:id]).count).to eq(1)
  end

  it "takes nobody's name for the place of the link: values are put in once" do
    given = { revision: 1, channel: "text", recipient: "{link} {total} {{x}}", address: "555 0101", supersede: true }
    offer = @advisor.call(:post, "/api/quotes/#{@id}/offers", given).last["offers"].first
    texts = []
    spied = ->(carry, *rest) { carry.call(*rest.tap { texts << rest.last }) }
    allow(carrier).to receive(:carry).and_wrap_original(&spied)
    expect(post.carry_one).to be(true)
    expect(texts.first).to start_with("{link} {total} {{x}}, your quote").and match(%r{here: https?://\S+/y/[\w-]{43}})
    expect(db[:messages].where(offer_id: offer["id"]).get(:state)).to eq("delivered")
  end

  it "fails the one message that cannot be carried, whatever is wrong with it, and goes on with the next" do
    row = message("555 0101")
    allow(carrier).to receive(:carry).and_raise(ArgumentError, "cannot be told")
    3.times do
      expect(post.carry_one).to be(true)
      clock.ahead += 60
    end
    expect(row.call).to include(state: "failed", tries: 3, problem: described_class::UNKNOWN)
    expect(post.carry_one).to be(false)
  end

  it "gives up a message whose carrier's process fell each time" do
    row = message("555 0101")
    db[:messages].where(id: row.call[:id]).update(state: "sending", tries: 3, updated_at: Time.now - 60)
    expect(carrier).not_to receive(:carry)
    expect(post.carry_one).to be(true)
    expect(row.call).to include(state: "failed", problem: described_class::LEFT)
  end

  it "is taken by one of two processes" do
    message("555 0101")
    taken = Array.new(2) { Thread.new { described_class.new(@post_db, carrier, clock: clock).carry_one } }.map(&:value)
    expect(taken).to contain_exactly(true, false)
  end

  it "sees messages and nothing else" do
    %i[offers quotes customers accounts].each do |table|
      expect { @post_db[table].first }.to raise_error(Sequel::DatabaseError, /permission denied/)
    end
  end
end
