# frozen_string_literal: true

require_relative "spec_helper"

# What was saved stands in the shop's record; whoever changes it, even as the owner of the database, is found.
RSpec.describe NimbleServer::Features::Record::Verification do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @client = Client.new(@app).tap { |client| client.sign_in("advisor@merrow.example") }
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  let(:shop_id) { @db[:shops].where(slug: "merrow-quay").get(:id) }
  let(:entries) { @db[:record_entries].where(shop_id: shop_id) }

  def verified =
    described_class.new(@db, NimbleServer::Features::Record::Keys.current).run.to_h { |row| [row.shop, row] }

  def ours = verified.fetch("Merrow Quay Garage")

  def save(cylinders)
    page = @client.start_quote
    shown = @client.choose(page, cylinders).last
    @client.save(page["quote"]["id"], shown)
    page["quote"]
  end

  # As somebody who owns the database and switches its triggers off; put back afterwards.
  def tampered
    found = nil
    @db.transaction(rollback: :always) do
      @db.run("SET LOCAL session_replication_role = replica")
      yield
      found = ours.fault
    end
    found
  end

  it "holds for the demo's shops and what is saved after, one entry for each revision" do
    saved = entries.where(kind: "revision-saved")
    before = saved.count
    quote = save([5])
    last = entries.order(:seq).last
    expect([saved.count, last[:subject], last[:kind]]).to eq(
      [before + 1, "quote #{quote["number"]}, revision 1", "revision-saved"]
    )
    body = JSON.parse(last[:bytes])
    expect(body["actor"]).to include("kind" => "account", "name" => "Jory Pellam")
    expect(body["body"]["sha256"]).to eq(@db[:quote_seals].order(:created_at).last[:sha256])
    expect(ours.fault).to be_nil
    expect([ours.entries, ours.revisions]).to eq([entries.count, @db[:quote_revisions].where(shop_id: shop_id).count])
    expect(verified.values.map(&:fault)).to all(be_nil)
  end

  it "numbers entries without gaps when several save at once" do
    quotes = Array.new(4) { @client.start_quote }
    shown = quotes.map { |page| @client.choose(page, [2]).last }
    threads =
      quotes
        .zip(shown)
        .map do |page, priced|
          Thread.new do
            client = Client.new(@app).tap { |one| one.sign_in("advisor@merrow.example") }
            client.save(page["quote"]["id"], priced)
          end
        end
    expect(threads.map { |thread| thread.value.first }).to all(eq(201))
    expect(entries.order(:seq).select_map(:seq)).to eq((1..entries.count).to_a)
    expect(ours.fault).to be_nil
  end

  it "names the first thing that does not hold" do
    save([1])
    id = @db[:quote_revisions].where(shop_id: shop_id).order(:created_at).last[:id]
    bytes = entries.where(seq: 2).get(:bytes).to_s
    expect(bytes).to include("Jory Pellam")
    expect(tampered { entries.where(seq: 2).update(bytes: Sequel.blob(bytes.sub("Jory", "Rory"))) }).to eq(
      "entry 2 was changed, or one before it"
    )
    expect(tampered { entries.where(seq: 2).delete }).to eq("entry 2 is missing")
    expect(tampered { @db[:quote_scopes].where(revision_id: id).update(total_cents: 1) }).to match(
      /entry \d+: the saved quote was changed/
    )
    expect(tampered { @db[:quote_seals].where(revision_id: id).update(sha256: "0" * 64) }).to match(
      /entry \d+: the seal was changed/
    )
    expect(tampered { entries.where(seq: entries.max(:seq)).delete }).to match(/is not in the record|was changed/)
    expect(tampered { entries.where(seq: 3).update(subject: "quote 9") }).to eq(
      "entry 3: what stands beside it is not what it says"
    )
    expect(ours.fault).to be_nil
  end

  it "knows the head that a paper carries, and no other" do
    quote = save([3])
    pdf = @client.call(:get, "/api/quotes/#{quote["id"]}/print.pdf").last
    seq, hex = PDF::Inspector::Text.analyze(pdf).strings.join(" ").match(/record (\d+) (\h{12})/).captures
    found = described_class.new(@db, NimbleServer::Features::Record::Keys.current)
    expect(found.holder(seq.to_i, hex)).to eq("Merrow Quay Garage")
    expect(found.holder(seq.to_i, "000000000000")).to be_nil
    expect(found.holder(seq.to_i, "%")).to be_nil
  end

  it "is only ever added to by the web process" do
    web = NimbleServer::Database.connect(@cluster.url("nimble_web"), connections: 1)
    NimbleServer::Database.within_shop(web, shop_id) do
      expect { web[:record_entries].update(mac: "x") }.to raise_error(Sequel::DatabaseError, /permission denied/)
      expect { web[:record_entries].delete }.to raise_error(Sequel::DatabaseError, /permission denied/)
    end
    web.disconnect
  end
end
