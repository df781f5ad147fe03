# frozen_string_literal: true

require_relative "spec_helper"

# Raw SQL as the roles the web processes sign in with: what they cannot do whatever runs in them (engineering.md,
# "Nothing lost, nobody in who should not be").
RSpec.describe "walls inside the database" do
  before(:context) do
    @owner = TestServer.db
    @web, @door =
      Cluster::SERVING.map { |role| NimbleServer::Database.connect(TestServer.cluster.url(role), connections: 1) }
    @ours, @theirs = %w[merrow-quay hollow-lane].map { |slug| @owner[:shops].where(slug: slug).get(:id) }
  end

  after(:context) { [@web, @door].each(&:disconnect) }

  def as_ours(&block) = NimbleServer::Database.within_shop(@web, @ours, &block)

  def refused(pattern = /permission denied|must be|policy/) = raise_error(Sequel::DatabaseError, pattern)

  it "without a shop said, not a row is seen" do
    tables = @owner.tables.select { |table| @owner[table].columns.include?(:shop_id) }
    expect(tables.size).to be > 12
    (tables - [:accounts]).each { |table| expect(@web[table].count).to eq(0), table.to_s }
    expect(@web[:accounts].select(:id).count).to eq(0)
  end

  it "quotes are found through the index of their words, within the shop and nowhere else" do
    found = ->(*words) { @owner.get(Sequel.lit("array(SELECT quotes_found(?, 50))", Sequel.pg_array(words, :text))) }
    scans = -> { @owner.get(Sequel.lit("pg_stat_get_xact_numscans('quotes_search'::regclass)")) }
    @owner.transaction(rollback: :always) do
      like = @owner[:quotes].where(shop_id: @ours).first
      rows = 5_000.times.map { |i| like.merge(id: SecureRandom.uuid, number: 500_000 + i, search: "no #{500_000 + i}") }
      @owner[:quotes].multi_insert(rows)
      @owner.run("ANALYZE quotes")
      @owner.run("SET LOCAL ROLE nimble_web")
      expect(found.call("%504321%")).to eq([])
      @owner.run("SET LOCAL nimble.shop = '#{@ours}'")
      before = scans.call
      expect(found.call("%504321%", "%no %")).to eq([rows[4321][:id]])
      expect(scans.call).to be > before
      expect(found.call("%no 50%").size).to eq(50)
      expect(found.call("%' OR true --%")).to be_empty
      @owner.run("SET LOCAL nimble.shop = '#{@theirs}'")
      expect(found.call("%504321%")).to eq([])
    end
  end

  it "with a shop said, its rows and no other's; none can be written for another" do
    as_ours do
      %i[vehicles customers quotes engine_profiles].each do |table|
        expect(@web[table].select_map(:shop_id).uniq).to eq([@ours]), table.to_s
      end
      expect(@web[:accounts].select_map(:shop_id).uniq).to eq([@ours])
      expect(@web[:shops].select_map(:id)).to eq([@ours])
      expect(@web[:vehicles].where(shop_id: @theirs).update(lives: "seen")).to eq(0)
      row = { shop_id: @theirs, id: SecureRandom.uuid, name: "Nobody", created_at: Time.now }
      expect { @web[:customers].insert(row) }.to refused(/row-level security/)
      expect { @web.run("UPDATE customers SET shop_id = '#{@theirs}'") }.to raise_error(Sequel::DatabaseError)
    end
    expect(@web[:vehicles].count).to eq(0)
  end

  it "no password is seen, and sign-in sees nothing but accounts and sessions" do
    as_ours { expect { @web[:accounts].select(:password_hash).all }.to refused }
    %i[vehicles quotes quote_revisions customers house_settings].each do |table|
      expect { @door[table].count }.to refused
    end
    expect { @door[:accounts].update(role: "owner") }.to refused
  end

  it "no frozen row is changed or removed, no trigger disabled, no table emptied or dropped, no program run" do
    as_ours do
      %i[
        quote_revisions
        quote_scopes
        quote_lines
        quote_seals
        engine_profiles
        price_lists
        house_settings
      ].each do |table|
        expect { @web[table].delete }.to refused
        expect { @web.run("UPDATE #{table} SET shop_id = shop_id") }.to refused
        expect { @web.run("TRUNCATE #{table} CASCADE") }.to refused
        expect { @web.run("ALTER TABLE #{table} DISABLE TRIGGER ALL") }.to refused
        expect { @web.run("DROP TABLE #{table}") }.to refused
      end
      [
        "COPY shops TO PROGRAM 'id'",
        "CREATE TABLE mine (id int)",
        "SET session_replication_role = replica",
        "CREATE FUNCTION f() RETURNS int LANGUAGE sql AS 'SELECT 1'",
        "ALTER ROLE nimble_web SUPERUSER",
        "SET ROLE nimble",
        "SELECT pg_read_file('/etc/passwd')",
        "DELETE FROM vehicles",
        "ALTER POLICY own_shop ON vehicles USING (true)"
      ].each { |sql| expect { @web.run(sql) }.to refused, sql }
    end
  end

  describe "a saved revision" do
    before do
      @advisor = Client.as("advisor@merrow.example")
      page = @advisor.start_quote
      @id = page["quote"]["id"]
      @advisor.save(@id, @advisor.choose(page, [5]).last)
      @revision = @owner[:quote_revisions].where(quote_id: @id).first
    end

    it "takes no further scope and no further line, not even from its owner" do
      scope = @owner[:quote_scopes].where(revision_id: @revision[:id]).first
      line = @owner[:quote_lines].where(scope_id: scope[:id]).first
      more = line.merge(id: SecureRandom.uuid, position: 99)
      expect { @owner[:quote_lines].insert(more) }.to raise_error(Sequel::DatabaseError, /sealed/)
      json = %i[request answer page].to_h { |key| [key, Sequel.pg_jsonb(scope[key].to_h)] }
      expect { @owner[:quote_scopes].insert(scope.merge(json, id: SecureRandom.uuid, position: 2)) }.to raise_error(
        Sequel::DatabaseError,
        /sealed/
      )
      as_ours { expect { @web[:quote_lines].insert(more) }.to raise_error(Sequel::DatabaseError, /sealed/) }
    end

    it "keeps its canonical bytes, which are what its rows say" do
      seal = @owner[:quote_seals].where(revision_id: @revision[:id]).first
      expect(Digest::SHA256.hexdigest(seal[:bytes])).to eq(seal[:sha256])
      expect(NimbleServer::Seal.new(@owner, @revision).bytes).to eq(seal[:bytes])
      said = JSON.parse(seal[:bytes])
      expect(said["total_cents"]).to eq(@revision[:total_cents])
      expect(said["scopes"][0]["lines"].sum { |row| row["cents"] }).to eq(@revision[:total_cents])
      expect(NimbleLedger::Record::Canonical.json(said).b).to eq(seal[:bytes])
    end

    it "cannot be made without a seal" do
      bare =
        @revision.merge(
          id: SecureRandom.uuid,
          revision: 50,
          draft_version: 50,
          content: Sequel.pg_jsonb(@revision[:content].to_h)
        )
      expect { @owner[:quote_revisions].insert(bare) }.to raise_error(
        Sequel::DatabaseError,
        /sealed in the transaction/
      )
    end
  end

  it "states and kinds are known ones, and who acts belongs to the shop" do
    quote = @owner[:quotes].where(shop_id: @ours)
    expect { quote.update(status: "perhaps") }.to raise_error(Sequel::CheckConstraintViolation)
    stranger = @owner[:accounts].where(shop_id: @theirs).get(:id)
    expect { @owner[:customers].where(shop_id: @ours).limit(1).update(created_by: stranger) }.to raise_error(
      Sequel::Error
    )
    expect do
      @owner[:idempotency_keys].insert(
        shop_id: @ours,
        account_id: stranger,
        key: "k",
        route: "/",
        status: 201,
        body: Sequel.pg_jsonb({}),
        created_at: Time.now
      )
    end.to raise_error(Sequel::ForeignKeyConstraintViolation)
  end
end
