# frozen_string_literal: true

require_relative "spec_helper"
require "tmpdir"
require_relative "support/pictures"

# Whoever owns the database and switches its triggers off, but has no key: whatever they change, take away, add or
# swap of what binds somebody is found and named.
RSpec.describe NimbleServer::Features::Record::Bindings do
  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @shop_id = @db[:shops].where(slug: "merrow-quay").get(:id)
    fill
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  # Rows of every kind, made as the shop makes them.
  def fill
    owner = signed_in("owner@merrow.example")
    advisor = signed_in("advisor@merrow.example")
    2.times { |i| owner.call(:post, "/api/people/invitations", { email: "new#{i}@merrow.example", role: "advisor" }) }
    change_cars(advisor)
    settled_question(advisor)
    handed_over(advisor)
    billed(advisor)
    promised(advisor)
    called_off(advisor)
    owner.call(:post, "/api/ledger/lessons", { act: "automatic" })
    owner.call(:post, "/api/ledger/lessons", { act: "by-hand" })
    owner.call(:put, "/api/shop", shop_details(owner).merge("name" => "Merrow Quay Garage II"))
  end

  def signed_in(mail) = Client.new(@app).tap { |client| client.sign_in(mail) }

  def shop_details(owner) =
    owner.call(:get, "/api/session").last["shop"].slice("name", "locale", "distance_unit", "time_zone", "paper")

  def change_cars(advisor)
    cars = @db[:vehicles].where(shop_id: @shop_id).exclude(customer_id: nil).order(:plate).limit(2).all
    cars.each_with_index do |car, i|
      advisor.call(:put, "/api/vehicles/#{car[:id]}", { owner: { name: "Wilma Tarn #{i}", phone: "555 017#{i}" } })
      fitting = { work: "coil", cylinders: [1, 2], on: "2026-01-10", km: 10, ours: true }
      advisor.call(:post, "/api/vehicles/#{car[:id]}/fittings", fitting)
    end
  end

  def settled_question(advisor)
    quote = @db[:offers].where(shop_id: @shop_id).order(:created_at).first
    advisor.call(:get, "/api/quotes/#{quote[:quote_id]}/yes")
    secret = NimbleServer::CustomerToken.secret(quote[:id])
    Rack::MockRequest.new(@app).post("/y/#{secret}", params: { act: "question", question: "How long does it take?" })
  end

  def handed_over(advisor)
    @db[:jobs]
      .where(shop_id: @shop_id)
      .order(:number)
      .all
      .each do |job|
        2.times { |i| keep_picture(advisor, job, i) }
        mark = { id: "m-#{job[:number]}", kind: "finished", at: Time.now.utc.iso8601, piece: nil }
        advisor.call(:post, "/api/jobs/#{job[:id]}/marks", { device: "tablet-1", marks: [mark] })
        next unless job[:finished_at]

        advisor.call(:post, "/api/jobs/#{job[:id]}/hand-over", {})
      end
  end

  # A bill, its credit note, a deposit and a payment.
  def billed(advisor)
    job = @db[:jobs].where(shop_id: @shop_id).exclude(handed_over_at: nil).get(:id)
    [1_000, 2_000].each { |cents| paid(advisor, job, cents) }
    total = advisor.call(:get, "/api/jobs/#{job}/bill").last.dig("draft", "answer", "total_cents")
    page = advisor.call(:post, "/api/jobs/#{job}/bill", { payer: "Quay Cabs", total_cents: total }).last
    advisor.call(:post, "/api/bills/#{page["bills"].first["id"]}/credit", { reason: "wrong name" })
  end

  def paid(advisor, job, cents)
    given = { on: "2026-01-05", means: "cash", cents: cents, key: "paid #{cents}" }
    advisor.call(:post, "/api/jobs/#{job}/payments", given)
  end

  # Two times that were promised.
  def promised(advisor)
    2.times do
      quote = advisor.start_quote
      advisor.choose(quote, [5])
      page = advisor.call(:get, "/api/quotes/#{quote["quote"]["id"]}/when").last
      offer = page["offers"].find { |one| one["ready"] }
      given = offer.slice("person", "place").merge("arrives" => offer["drop_off"], "promise" => offer["ready"])
      given.merge!("quote_id" => quote["quote"]["id"], "version" => page["version"], "chance" => 0.8)
      advisor.call(:post, "/api/bookings", given)
    end
  end

  def called_off(advisor)
    job = @db[:jobs].where(shop_id: @shop_id, started_at: nil, finished_at: nil).get(:id)
    2.times do |i|
      advisor.call(:post, "/api/jobs/#{job}/call-off", { reason: "the car was sold #{i}" })
      advisor.call(:post, "/api/jobs/#{job}/take-up")
    end
  end

  def keep_picture(advisor, job, number)
    data = [Pictures.png(20 + number, 20)].pack("m0")
    advisor.call(:post, "/api/jobs/#{job[:id]}/pictures", { data: data })
  end

  def keys = NimbleServer::Features::Record::Keys.current

  def fault(heads: nil)
    found = NimbleServer::Features::Record::Verification.new(@db, keys, heads: heads).run
    found.find { |row| row.shop.start_with?("Merrow Quay") }&.fault
  end

  # Undone afterwards. Deferred checks are the triggers', which are off.
  def tampered
    said = nil
    @db.transaction(rollback: :always) do
      @db.run("SET LOCAL session_replication_role = replica")
      yield
      said = @db.transaction(savepoint: true) { verified_inside }
    end
    said
  end

  # As Verification does it, in the transaction that is under way.
  def verified_inside
    verification = NimbleServer::Features::Record::Verification.new(@db, keys)
    verification.look(@db[:shops].where(id: @shop_id).first, nil).fault
  end

  # Of what is witnessed by an act only what one has named.
  def rows(table)
    all = @db[table.name].where(table.shop_column => @shop_id)
    table.on_act ? all.where(table.key => @db[:jobs].exclude(handed_over_at: nil).select(:id)) : all
  end

  def another(table, column, value)
    type = @db.schema(table.name).to_h.fetch(column)[:db_type]
    case type
    when "boolean"
      !value
    when "integer", "bigint", /numeric/
      (value || 0) + 1
    when /timestamp/
      (value || Time.now) + 1
    when "date"
      (value || Date.today) + 1
    when "uuid"
      SecureRandom.uuid
    when "bytea"
      Sequel.blob("#{value}x")
    when "jsonb"
      Sequel.pg_jsonb(plain(value).then { |one| one.is_a?(Hash) ? one.merge("x" => 1) : { "x" => 1 } })
    else
      "#{value}x"
    end
  end

  def plain(value) = value.nil? ? nil : JSON.parse(JSON.generate(value))

  # What names one row.
  def place(table, row)
    names = @db.schema(table.name).map(&:first)
    own = names.include?(:id) ? [:id] : %i[revision_id offer_id position job_id] & names
    row.slice(*([:shop_id] & names), *own)
  end

  it "classes every table and every column of the database, each of those that bind nobody with its reason" do
    known = described_class::ALL.keys + described_class::LEFT_OUT.keys
    expect(@db.tables.sort - known).to be_empty
    expect(described_class::LEFT_OUT.values + described_class::FREE.values.grep(String)).to all(match(/\w+ \w+/))
    described_class::ALL.each_value do |table|
      free = described_class::FREE.reject { |_name, why| why.is_a?(Hash) }.keys
      free |= described_class::FREE.fetch(table.name, {}).keys
      classed = [table.key, *table.columns, *free]
      classed -= [:shop_id] if table.name == :shops
      unknown = @db.schema(table.name).map(&:first) - classed - [:id]
      expect(unknown).to be_empty, "#{table.name}: #{unknown.inspect}"
      free.delete(:shop_id)
      expect(free & table.columns).to be_empty, table.name.to_s
    end
  end

  described_class::ALL.each_value do |table|
    it "finds whatever is done to #{table.name}" do
      row = rows(table).order(table.key).first
      expect(row).not_to be_nil, "there is no row of #{table.name} to try it on"
      one = place(table, row)
      table.columns.each do |column|
        said =
          tampered do
            drop_keys(table)
            @db[table.name].where(one).update(column => another(table, column, row[column]))
          end
        expect(said).to match(/\Aentry \d+: #{table.word} .*\(#{table.name} |is not in the record/),
        "#{table.name}.#{column}: #{said.inspect}"
      end
      next if table.name == :shops # a shop that is gone is named by the head outside the database, below

      expect(tampered { @db[table.name].where(one).delete }).to match(/#{table.name}|missing|changed/)
    end

    it "finds a row added to #{table.name}, and two that changed places" do
      row = rows(table).order(table.key).first
      unless table.name == :shops
        said =
          tampered do
            drop_keys(table)
            @db[table.name].insert(storable(row).merge(fresh(table, row)))
          end
        expect(said).to match(/not in the record|was changed/), table.name.to_s
      end
      pair = rows(table).order(table.key).limit(2).all
      column = table.columns.find { |name| pair.size == 2 && pair[0][name] != pair[1][name] } or next
      expect(tampered { swap(table, pair, column) }).to match(/changed/), "#{table.name}.#{column}"
    end
  end

  def storable(row) = row.transform_values { |value| json?(value) ? Sequel.pg_jsonb(plain(value)) : value }

  def json?(value) = value.is_a?(Sequel::Postgres::JSONBHash) || value.is_a?(Sequel::Postgres::JSONBArray)

  def fresh(table, row)
    return { id: SecureRandom.uuid } if row[:id].is_a?(String)
    return { id: row[:id] + 10_000 } if row[:id].is_a?(Integer)

    table.key == :revision_id ? { revision_id: SecureRandom.uuid } : { position: 77 }
  end

  # So that rows can be what the database would refuse.
  def drop_keys(table)
    named = @db[:pg_constraint].where(conrelid: Sequel.lit("?::regclass", table.name.to_s)).exclude(contype: "t")
    named
      .select_map(:conname)
      .each { |name| @db.run(%(ALTER TABLE #{table.name} DROP CONSTRAINT IF EXISTS "#{name}" CASCADE)) }
    indexes = @db.indexes(table.name).select { |_name, facts| facts[:unique] }.keys
    indexes.each { |name| @db.run(%(DROP INDEX IF EXISTS "#{name}")) }
  end

  def swap(table, pair, column)
    drop_keys(table)
    pair.zip(pair.reverse) do |row, other|
      value = json?(other[column]) ? Sequel.pg_jsonb(plain(other[column])) : other[column]
      @db[table.name].where(place(table, row)).update(column => value)
    end
  end

  it "finds a revision rewritten with its lines, totals and seal, and dated before the record" do
    revision = @db[:quote_revisions].where(shop_id: @shop_id).order(:created_at).first
    said =
      tampered do
        @db[:quote_scopes].where(revision_id: revision[:id]).update(total_cents: 24_330)
        @db[:quote_revisions].where(id: revision[:id]).update(total_cents: 24_330, created_at: Time.at(0))
        bytes = NimbleServer::Seal.new(@db, @db[:quote_revisions].where(id: revision[:id]).first).bytes
        @db[:quote_seals].where(revision_id: revision[:id]).update(
          bytes: Sequel.blob(bytes),
          sha256: Digest::SHA256.hexdigest(bytes)
        )
      end
    expect(said).to match(/the saved (revision|quote) was changed|the seal was changed/)
  end

  it "does not take notes that somebody else left for its own" do
    customer = @db[:customers].where(shop_id: @shop_id).order(:name).first
    @db[:customers].where(id: customer[:id]).update(phone: "555 0199")
    signed_in("advisor@merrow.example").start_quote
    expect(fault).to match(/the customer was changed \(customers #{customer[:id]}\)/)
    @db[:customers].where(id: customer[:id]).update(phone: customer[:phone])
    expect(fault).to be_nil
  end

  it "lets the web process change nothing that binds without its entry" do
    web = NimbleServer::Database.connect(@cluster.url("nimble_web"), connections: 1)
    NimbleServer::Database.within_shop(web, @shop_id) do
      expect { web[:customers].update(phone: "555 0100") }.to raise_error(Sequel::DatabaseError, /goes into the record/)
      web[:customers].update(search_nothing)
    end
    web.disconnect
    expect(fault).to be_nil
  end

  # Setting a column to what it is changes nothing.
  def search_nothing = { phone: Sequel[:phone] }

  describe NimbleServer::Features::Record::ChainHeads do
    around do |example|
      Dir.mktmpdir do |folder|
        @path = "#{folder}/heads"
        @heads = described_class.new(@path)
        example.run
      end
    end

    it "names a tail that was cut, a record that was emptied, one that was put back, and a shop that is gone" do
      expect(@heads.note(@db)).to be_empty
      head = @heads.to_h.fetch(@shop_id)
      expect(fault(heads: @heads)).to be_nil
      entries = @db[:record_entries].where(shop_id: @shop_id)
      cut = ->(from) do
        saved = entries.where { seq >= from }.all
        without_triggers { entries.where { seq >= from }.delete }
        found = [fault(heads: @heads), @heads.note(@db), @heads.to_h.fetch(@shop_id)]
        without_triggers { @db[:record_entries].multi_insert(saved) }
        found
      end
      expect(cut.call(head.seq)).to eq(
        ["entry #{head.seq} is missing: the record had #{head.seq} entries", [@shop_id], head]
      )
      expect(cut.call(1).first).to eq("entry 1 is missing: the record had #{head.seq} entries")
      other = @heads.to_h.keys.find { |id| id != @shop_id }
      name = @db[:shops].where(id: other).get(:name)
      said = NimbleServer::Features::Record::Verification.new(@db, keys, heads: { SecureRandom.uuid => head }).run.last
      expect([name, said.fault]).to eq(["Hollow Lane Motors", "all of it is missing"])
      expect(fault(heads: @heads)).to be_nil
    end

    def without_triggers
      @db.transaction do
        @db.run("SET LOCAL session_replication_role = replica")
        yield
      end
    end

    it "grows with the record, keeps a line whole, and refuses a file that is not its own" do
      @heads.note(@db)
      before = @heads.to_h.fetch(@shop_id)
      signed_in("advisor@merrow.example").start_quote
      @heads.note(@db)
      expect(@heads.to_h.fetch(@shop_id).seq).to be > before.seq
      expect([File.stat(@path).mode & 0o777, File.readlines(@path).size]).to eq([0o600, 2])
      File.write(@path, "no head\n")
      expect { @heads.to_h }.to raise_error(ArgumentError, /is no head/)
    end
  end

  it "lists what is older than the record once, signed; then nothing is exempt" do
    @db.transaction(rollback: :always) do
      @db.run("SET LOCAL session_replication_role = replica")
      @db[:record_entries].where(shop_id: @shop_id).delete
      baseline = NimbleServer::Features::Record::Baseline.new(@db)
      expect(baseline.take).to eq([@db[:shops].where(id: @shop_id).get(:name)])
      expect([baseline.take, verified_inside]).to eq([[], nil])
      @db[:jobs].where(shop_id: @shop_id).update(limit_cents: 1)
      expect(verified_inside).to match(/entry \d+: the job was changed/)
    end
  end
end
