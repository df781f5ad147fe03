# frozen_string_literal: true

require "digest"

module NimbleServer
  # Holds the migrations that made this database against the files: one that was applied is never edited. A database
  # from before they were noted is taken as the files have it (migration 020 puts right what had been edited by then).
  #
  #   AppliedMigrations.new(db).compare
  class AppliedMigrations
    # What is in the database was made by another file of that number.
    class Edited < StandardError
    end

    def self.digests(folder = Database::MIGRATIONS)
      Dir["#{folder}/*.rb"].sort.to_h { |path| [File.basename(path), Digest::SHA256.file(path).hexdigest] }
    end

    # @param db [Sequel::Database] as the owner
    def initialize(db, folder: Database::MIGRATIONS)
      @db = db
      @files = AppliedMigrations.digests(folder)
    end

    # Notes those that are new.
    # @raise [Edited] naming the first that is not as it was applied
    def compare
      known = @db[:applied_migrations].select_hash(:name, :sha256)
      edited = known.find { |name, digest| @files[name] != digest }
      raise Edited, said(edited.first) if edited

      fresh = @files.except(*known.keys)
      @db[:applied_migrations].multi_insert(
        fresh.map { |name, digest| { number: name.to_i, name: name, sha256: digest } }
      )
    end

    private

    def said(name)
      what =
        @files.key?(name) ? "is not the one that made this database" : "is missing, but this database was made by it"
      "server/migrations/#{name} #{what}. Serve this data with the version of the program that made it, or put the " \
        "file back: changes are migrations of their own."
    end
  end
end
