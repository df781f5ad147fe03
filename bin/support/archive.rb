# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "rubygems/package"
require "stringio"
require "tmpdir"
require_relative "cluster"
require_relative "../../server/lib/nimble_server"

# One file that holds a whole shop: "database" (a dump of PostgreSQL) and "manifest.json", which says when it was made,
# the digest of the dump, the head of every shop's record and the ids of the keys it is signed with, and is itself
# signed with the newest of them.
class Archive
  FORMAT = "nimble-ledger.backup"
  VERSION = 2
  MEMBERS = %w[manifest.json database].freeze

  # Something the person at the keyboard can mend.
  class Refused < StandardError
  end

  # The secrets of a data folder.
  # @raise [Refused]
  def self.keys(data)
    path = "#{data}/record_keys"
    raise Refused, "#{path} is missing: the record cannot be checked without its keys." unless File.exist?(path)

    NimbleServer::Features::Record::Keys.new(File.read(path))
  end

  # What of each shop the record ends with.
  # @param found [Array<Features::Record::Verification::Finding>]
  def self.heads(found) = found.to_h { |row| [row.shop, row.head] }

  # What a manifest is signed with, by the newest key it names.
  # @return [String] 64 hex digits
  # @raise [KeyError] when that key is not here
  def self.mac(keys, manifest) =
    keys.chain.mac(
      manifest["keys"].last,
      NimbleLedger::Record::Chain::START,
      NimbleLedger::Record::Canonical.json(manifest.except("mac")).b
    )

  # @param path [String]
  def initialize(path)
    @path = path
  end

  # @param dump [String] path of the database's dump
  def write(dump, heads:, keys:, at:)
    raise Refused, "#{@path} is there already. Choose another name; nothing was overwritten." if File.exist?(@path)

    manifest = {
      "format" => FORMAT,
      "version" => VERSION,
      "made_at" => at.utc.iso8601,
      "database_sha256" => Digest::SHA256.file(dump).hexdigest,
      "heads" => heads,
      "keys" => keys.ids
    }
    manifest["mac"] = Archive.mac(keys, manifest)
    part = "#{@path}.part"
    File.open(part, File::WRONLY | File::CREAT | File::EXCL, 0o600) do |file|
      Gem::Package::TarWriter.new(file) do |tar|
        add(tar, "manifest.json", StringIO.new("#{JSON.pretty_generate(manifest)}\n"))
        File.open(dump, "rb") { |source| add(tar, "database", source) }
      end
    end
    File.rename(part, @path)
    manifest
  end

  # Unpacks the dump and checks it.
  # @param folder [String]
  # @param keys [Features::Record::Keys]
  # @return [Array(Hash, String)] the manifest and the path of the dump
  # @raise [Refused] for anything that is no archive of ours, or was changed
  def read(folder, keys)
    File.open(@path, "rb") do |file|
      Gem::Package::TarReader.new(file) do |tar|
        tar.each { |entry| unpack(entry, folder) if MEMBERS.include?(entry.full_name) }
      end
    end
    checked(folder, keys)
  rescue Errno::ENOENT
    raise Refused, "There is no file #{@path}."
  rescue Gem::Package::TarInvalidError, JSON::ParserError, ArgumentError
    raise Refused, "#{@path} is no archive of bin/backup."
  end

  private

  def add(tar, name, source)
    tar.add_file(name, 0o600) { |target| IO.copy_stream(source, target) }
  end

  def unpack(entry, folder)
    File.open("#{folder}/#{entry.full_name}", "wb", 0o600) { |target| IO.copy_stream(entry, target) }
  end

  def checked(folder, keys)
    manifest, dump = MEMBERS.map { |name| "#{folder}/#{name}" }
    raise Refused, "#{@path} is no archive of bin/backup." unless [manifest, dump].all? { |path| File.exist?(path) }

    facts = JSON.parse(File.read(manifest))
    unless facts.values_at("format", "version") == [FORMAT, VERSION]
      raise Refused,
            "#{@path} is not of this version. Restore it with the version of the program that wrote it, then start " \
              "this one on it."
    end
    refuse_unsigned(facts, keys)
    unless Digest::SHA256.file(dump).hexdigest == facts["database_sha256"]
      raise Refused, "#{@path} is damaged: the database in it is not the one that was written."
    end

    [facts, dump]
  end

  # Before anything is restored: the heads it promises are those it was written with.
  def refuse_unsigned(facts, keys)
    lacking = facts["keys"] - keys.ids
    raise Refused, "The record_keys here: it lacks the key #{lacking.first} of this archive." if lacking.any?
    return if facts["keys"].any? && Archive.mac(keys, facts) == facts["mac"]

    raise Refused, "#{@path} is not signed with the keys that are here: it was changed, or these are another shop's."
  end
end
