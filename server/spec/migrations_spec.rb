# frozen_string_literal: true

require_relative "spec_helper"
require "tmpdir"

# An applied migration is a fact: it is never edited, and data that another one made is not served.
RSpec.describe NimbleServer::AppliedMigrations do
  let(:db) { TestServer.db }
  let(:known) { File.readlines(File.expand_path("../migrations/SHA256SUMS", __dir__), chomp: true).map(&:split) }

  it "are those whose digests were written down when they were made (sha256sum *.rb > SHA256SUMS for a new one)" do
    expect(described_class.digests.to_a).to eq(known.map(&:reverse))
  end

  it "are noted in the database they made" do
    expect(db[:applied_migrations].select_hash(:name, :sha256)).to eq(described_class.digests)
  end

  it "are refused where one was edited or is gone since, with words" do
    Dir.mktmpdir do |folder|
      FileUtils.cp(Dir["#{NimbleServer::Database::MIGRATIONS}/*.rb"], folder)
      File.write("#{folder}/019_ledger.rb", "# changed\n", mode: "a")
      edited = described_class.new(db, folder: folder)
      expect { edited.compare }.to raise_error(described_class::Edited, /019_ledger\.rb is not the one that made/)
      File.delete("#{folder}/019_ledger.rb")
      gone = described_class.new(db, folder: folder)
      expect { gone.compare }.to raise_error(described_class::Edited, /019_ledger\.rb is missing/)
    end
  end

  it "put right what was made before one of them had been edited" do
    columns = db.schema(:ledger_entries).map(&:first)
    expect(columns).to include(:billed_cents, :parts)
  end
end
