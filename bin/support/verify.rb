# frozen_string_literal: true

require_relative "cluster"
require_relative "../../server/lib/nimble_server"

# What bin/verify does once everything is installed, beside a running server or without one.
class Verify
  DATA = ENV.fetch("NIMBLE_DATA", "#{NimbleServer::ROOT}/data")
  USAGE = "Usage: bin/verify [--has SEQ HEX]"

  # Something the person at the keyboard can mend.
  class Refused < StandardError
  end

  # @return [Boolean] whether all holds
  def run(arguments)
    paper = paper(arguments)
    cluster = Cluster.new("#{DATA}/postgres").attach
    db = NimbleServer::Database.connect(cluster.url)
    heads = NimbleServer::Features::Record::ChainHeads.new("#{DATA}/record_heads")
    found = NimbleServer::Features::Record::Verification.new(db, keys, heads: heads.to_h)
    paper ? known(found, *paper) : all(found)
  ensure
    db&.disconnect
    cluster&.stop
  end

  private

  def paper(arguments)
    return nil if arguments.empty?

    option, seq, hex, *rest = arguments
    unless option == "--has" && seq.to_s.match?(/\A\d{1,15}\z/) && hex.to_s.match?(/\A\h{6,64}\z/) && rest.empty?
      raise Refused, "A head is a number and at least six hex digits. #{USAGE}"
    end

    [seq.to_i, hex.downcase]
  end

  def keys
    path = "#{DATA}/record_keys"
    raise Refused, "There is no record here yet: #{path} is missing. bin/start makes it." unless File.exist?(path)

    NimbleServer::Features::Record::Keys.new(File.read(path))
  end

  def known(found, seq, hex)
    shop = found.holder(seq, hex)
    puts shop ? "#{seq} #{hex} stands in the record of #{shop}." : "No record here has #{seq} #{hex}."
    !shop.nil?
  end

  def all(found)
    rows = found.run
    rows.each do |row|
      count = "#{row.entries} entries, #{row.revisions} saved revisions"
      puts "#{row.shop}: #{row.fault ? "does NOT hold: #{row.fault}" : "holds"} (#{count}, head #{row.head})"
    end
    rows.none?(&:fault)
  end
end

begin
  exit Verify.new.run(ARGV)
rescue Verify::Refused, Cluster::Failed, ArgumentError => e
  abort e.message
end
