# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/started"

# The whole shop out of one place and into another, as bin/backup and bin/restore do it, and what is refused on the way.
RSpec.describe "backup and restore" do
  SUPPORT = File.expand_path("../../bin/support", __dir__)

  before(:context) do
    @start = Started.new
    @archive = "#{@start.data}/shop.tar"
    @said = tool("backup.rb", @start.data, @archive)
  end

  after(:context) { @start.close }

  # @return [Array(String, Boolean)] what it said, and whether it ended well
  def tool(script, data, *arguments)
    env = { "NIMBLE_DATA" => data, "RECORD_KEYS" => nil, "LINK_SECRET" => nil }
    out, status = Open3.capture2e(env, "bundle", "exec", "ruby", "#{SUPPORT}/#{script}", *arguments)
    [out, status.success?]
  end

  # A place with the keys of the first and nothing else.
  def place(keys: true)
    folder = Dir.mktmpdir("nimble-restore-")
    File.chmod(0o755, folder)
    %w[record_keys link_secret].each { |name| FileUtils.cp("#{@start.data}/#{name}", folder) } if keys
    folder
  end

  def rows(data)
    cluster = Cluster.new("#{data}/postgres").attach
    db = NimbleServer::Database.connect(cluster.url)
    # the post goes on carrying meanwhile, and the learner learning from what is there; whom messages are for stays
    going_on = %i[carried messages ledger_learned que_jobs que_lockers]
    tables = db.tables.sort - %i[counters account_active_session_keys account_known_addresses] - going_on
    tables
      .to_h { |table| [table, db[table].all.map { |row| plain(row) }.sort] }
      .merge(messages: db[:messages].order(:id).select_map(%i[id address body]))
  ensure
    db&.disconnect
    cluster&.stop
  end

  def plain(row) = row.map { |name, value| "#{name} #{value.is_a?(String) ? value.b.unpack1("H*") : value}" }.join(" ")

  it "brings everything back, row by row, with the record verified" do
    expect(@said).to match([a_string_including("Written to", "Merrow Quay Garage: record"), true])
    expect(File.stat(@archive).mode & 0o777).to eq(0o600)
    data = place
    expect(tool("restore.rb", data, @archive)).to match([a_string_including("holds", "Restored as of"), true])
    expect(rows(data)).to eq(rows(@start.data))
    again = Started.new(data: data)
    expect(again.output).not_to include("Loading the demo shops")
    again.close
  end

  it "takes a new key and says so in every record; what the old one signed still holds" do
    data = place
    tool("restore.rb", data, @archive)
    expect(tool("rotate_key.rb", data)).to match([a_string_including("Key 2 is in use"), true])
    expect(File.readlines("#{data}/record_keys").map(&:split).map(&:first)).to eq(%w[1 2])
    expect(File.stat("#{data}/record_keys").mode & 0o777).to eq(0o600)
    expect(tool("verify.rb", data).last).to be(true)
    expect(newest_entries(data)).to all(eq(%w[key-rotated 2]))
    lines = File.readlines("#{data}/record_keys")
    File.write("#{data}/record_keys", lines.last)
    expect(tool("verify.rb", data).last).to be(false)
  end

  def newest_entries(data)
    cluster = Cluster.new("#{data}/postgres").attach
    db = NimbleServer::Database.connect(cluster.url)
    db[:record_entries].distinct(:shop_id).order(:shop_id, Sequel.desc(:seq)).select_map(%i[kind key_id])
  ensure
    db&.disconnect
    cluster&.stop
  end

  it "refuses a place that holds a shop, one without the keys, a damaged file, and one that is none" do
    expect(tool("restore.rb", @start.data, @archive)).to match([a_string_including("holds a database already"), false])
    bare = place(keys: false)
    expect(tool("restore.rb", bare, @archive)).to match([a_string_including("record_keys is missing"), false])
    File.write("#{bare}/record_keys", "9 #{"ab" * 32}")
    expect(tool("restore.rb", bare, @archive)).to match([a_string_including("lacks the key 1"), false])
    damaged = "#{bare}/damaged.tar"
    bytes = File.binread(@archive)
    bytes[bytes.size / 2] = (bytes[bytes.size / 2].ord ^ 1).chr
    File.binwrite(damaged, bytes)
    expect(tool("restore.rb", place, damaged)).to match([a_string_including("damaged"), false])
    File.write("#{bare}/none.tar", "not a tar")
    expect(tool("restore.rb", place, "#{bare}/none.tar")).to match(
      [a_string_including("no archive of bin/backup"), false]
    )
    expect(tool("restore.rb", place, "#{bare}/missing.tar").first).to include("There is no file")
    expect(tool("backup.rb", @start.data, @archive).first).to include("is there already")
  end

  it "leaves nothing behind when the record is not the one that was promised" do
    data = place
    File.write("#{data}/record_keys", "1 #{"cd" * 32}")
    said, good = tool("restore.rb", data, @archive)
    expect([said, good]).to match([a_string_including("is not signed with the keys that are here"), false])
    expect(Dir.children(data)).to contain_exactly("record_keys", "link_secret")
  end

  it "takes the heads an archive promises at their word only where they are signed" do
    data = place
    forged = "#{data}/forged.tar"
    Dir.mktmpdir do |folder|
      Open3.capture2e("tar", "-xf", @archive, "-C", folder)
      manifest = JSON.parse(File.read("#{folder}/manifest.json"))
      File.write("#{folder}/manifest.json", JSON.generate(manifest.merge("heads" => {})))
      Open3.capture2e("tar", "-cf", forged, "-C", folder, "manifest.json", "database")
    end
    expect(tool("restore.rb", data, forged)).to match([a_string_including("is not signed"), false])
    expect(Dir.exist?("#{data}/postgres")).to be(false)
  end
end
