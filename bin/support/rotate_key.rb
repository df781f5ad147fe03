# frozen_string_literal: true

require "securerandom"
require_relative "cluster"
require_relative "../../server/lib/nimble_server"

# What bin/rotate-key does once everything is installed.
class RotateKey
  DATA = ENV.fetch("NIMBLE_DATA", "#{NimbleServer::ROOT}/data")
  USAGE = "Usage: bin/rotate-key"

  # Something the person at the keyboard can mend.
  class Refused < StandardError
  end

  def run(arguments)
    raise Refused, USAGE unless arguments.empty?

    old = keys
    cluster = Cluster.new("#{DATA}/postgres").attach
    db = NimbleServer::Database.connect(cluster.url)
    add((old.ids.map(&:to_i).max + 1).to_s)
    note(db, old.newest)
    puts "Key #{keys.newest} is in use. A running server signs with it after its next start; until then with " \
           "#{old.newest}, and both are checked."
  ensure
    db&.disconnect
    cluster&.stop
  end

  private

  def path = "#{DATA}/record_keys"

  def keys
    raise Refused, "There is no record here yet: #{path} is missing. bin/start makes it." unless File.exist?(path)

    NimbleServer::Features::Record::Keys.new(File.read(path))
  end

  # Written aside and put in place whole, so that no moment has half a file; readable by its owner alone.
  def add(id)
    aside = "#{path}.new"
    File.write(aside, "#{File.read(path).chomp}\n#{id} #{SecureRandom.hex(32)}\n", perm: 0o600)
    File.chmod(0o600, aside)
    File.rename(aside, path)
  end

  def note(db, old)
    new = keys
    db[:shops]
      .select_map(:id)
      .each do |id|
        shop = NimbleServer::Shop.new(db, id, actor: NimbleServer::Actor.system("rotate-key"), keys: new)
        NimbleServer::Features::Record::ActLog.new(shop).append(
          "key-rotated",
          "key #{new.newest}",
          { "from" => old, "to" => new.newest }
        )
      end
  end
end

begin
  RotateKey.new.run(ARGV)
rescue RotateKey::Refused, Cluster::Failed => e
  abort e.message
end
