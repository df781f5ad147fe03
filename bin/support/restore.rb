# frozen_string_literal: true

require_relative "archive"

# What bin/restore does once everything is installed.
class Restore
  DATA = ENV.fetch("NIMBLE_DATA", "#{NimbleServer::ROOT}/data")
  USAGE = "Usage: bin/restore FILE.tar"

  # @return [Boolean] whether all that was promised is there
  def run(arguments)
    raise Archive::Refused, USAGE unless arguments.size == 1
    if Dir.exist?("#{DATA}/postgres")
      raise Archive::Refused, "#{DATA} holds a database already. Restore into an empty place; nothing was changed."
    end

    keys = Archive.keys(DATA)
    Dir.mktmpdir { |folder| read(*Archive.new(arguments.first).read(folder, keys), keys) }
  end

  private

  def read(manifest, dump, keys)
    cluster = Cluster.new("#{DATA}/postgres").start
    cluster.make_roles
    cluster.load(dump)
    checked(cluster, manifest, keys)
  rescue Archive::Refused, Cluster::Failed
    cluster&.destroy
    raise
  ensure
    cluster&.stop
  end

  def checked(cluster, manifest, keys)
    db = NimbleServer::Database.connect(cluster.url)
    NimbleServer::Database.migrate(db)
    found = NimbleServer::Features::Record::Verification.new(db, keys).run
    found.each { |row| puts "#{row.shop}: #{row.fault ? "does NOT hold: #{row.fault}" : "holds"} (head #{row.head})" }
    missing = missing(db, manifest, keys)
    raise Archive::Refused, "The record of #{missing.first} is not the one that was backed up." if missing.any?

    faulty = found.find(&:fault)
    raise Archive::Refused, "The record of #{faulty.shop} does not hold: nothing was restored." if faulty

    NimbleServer::Features::Record::Baseline.new(db, keys: keys).take
    NimbleServer::Features::Record::ChainHeads.new("#{DATA}/record_heads").note(db)
    puts "Restored as of #{manifest["made_at"]}. bin/start serves it."
    true
  ensure
    db&.disconnect
  end

  # Shops in whose record the head of the manifest does not stand.
  def missing(db, manifest, keys)
    verification = NimbleServer::Features::Record::Verification.new(db, keys)
    manifest["heads"]
      .reject do |shop, head|
        seq, hex = head.split
        seq == "0" || verification.holder(seq.to_i, hex) == shop
      end
      .keys
  end
end

begin
  exit Restore.new.run(ARGV)
rescue Archive::Refused, Cluster::Failed => e
  abort e.message
end
