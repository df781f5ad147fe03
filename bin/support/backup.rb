# frozen_string_literal: true

require_relative "archive"

# What bin/backup does once everything is installed.
class Backup
  DATA = ENV.fetch("NIMBLE_DATA", "#{NimbleServer::ROOT}/data")
  USAGE = "Usage: bin/backup FILE.tar"

  # @return [Boolean] whether the record holds
  def run(arguments)
    raise Archive::Refused, USAGE unless arguments.size == 1
    raise Archive::Refused, "There is no shop here: #{DATA} holds no database." unless Dir.exist?("#{DATA}/postgres")

    keys = Archive.keys(DATA)
    cluster = Cluster.new("#{DATA}/postgres").attach
    Dir.mktmpdir { |folder| write(cluster, keys, arguments.first, folder) }
  ensure
    cluster&.stop
  end

  private

  def write(cluster, keys, path, folder)
    found = walk(cluster, keys)
    dump = "#{folder}/database"
    cluster.dump(dump)
    manifest = Archive.new(path).write(dump, heads: Archive.heads(found), keys: keys, at: Time.now)
    manifest["heads"].each { |shop, head| puts "#{shop}: record #{head}" }
    puts "Written to #{path} (#{(File.size(path) / 1000.0).round} kB). The keys are not in it: keep " \
           "#{DATA}/record_keys and #{DATA}/link_secret somewhere else."
    faults = found.select(&:fault)
    faults.each { |row| puts "#{row.shop}: the record does NOT hold: #{row.fault}" }
    faults.empty?
  end

  def walk(cluster, keys)
    db = NimbleServer::Database.connect(cluster.url)
    NimbleServer::Features::Record::Verification.new(db, keys).run
  ensure
    db&.disconnect
  end
end

begin
  exit Backup.new.run(ARGV)
rescue Archive::Refused, Cluster::Failed => e
  abort e.message
end
