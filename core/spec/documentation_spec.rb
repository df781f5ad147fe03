# frozen_string_literal: true

# What docs/model.md says of where things are is checked against what is there.
RSpec.describe "docs/model.md" do
  root = File.expand_path("../..", __dir__)
  table = File.readlines(File.join(root, "docs/model.md")).grep(/\A\|/)
  named = table.flat_map { |line| line.scan(%r{`([\w/]+\.rb)`}).flatten }

  it "names only files that exist" do
    expect(named.size).to be > 40
    expect(named.reject { |file| File.exist?(File.join(root, "core/lib/nimble_ledger", file)) }).to eq([])
  end

  it "leaves out no file of a folder the model is built in" do
    folders = %w[access risk time price parts slots profile house record vehicle bench card scope trace ledger day bill]
    there =
      folders.flat_map do |folder|
        Dir.glob("*.rb", base: File.join(root, "core/lib/nimble_ledger", folder)).map { |file| "#{folder}/#{file}" }
      end
    text = table.join + File.read(File.join(root, "docs/model.md"))
    expect(there.reject { |file| text.include?(file) }).to eq([])
  end
end

# Every path of the glossary is there: words of the trade beside where they live.
RSpec.describe "docs/glossary.md" do
  root = File.expand_path("../..", __dir__)
  bases = { "core" => "core/lib/nimble_ledger", "features" => "server/lib/nimble_server/features" }
  beside = {
    "cardStore.ts" => "web/src/bay",
    "shop.rb" => "server/lib/nimble_server",
    "customer_token.rb" => "server/lib/nimble_server"
  }
  rows = File.readlines(File.join(root, "docs/glossary.md")).grep(/\A\| (?!word|---)/)

  it "names only what exists, in order" do
    paths =
      rows.flat_map do |row|
        base = nil
        row
          .split("|")
          .last(2)
          .first
          .scan(/(?:(core|features) )?`([^`]+)`/)
          .map do |named, path|
            base = bases.fetch(named) if named
            path.match?(%r{\A(web|server)/}) ? path : File.join(beside.fetch(path, base.to_s), path)
          end
      end
    expect(paths.size).to be > 80
    expect(paths.reject { |path| File.exist?(File.join(root, path)) }).to eq([])
    words = rows.map { |row| row[/\A\| ([^|]+) \|/, 1].downcase }
    expect(words).to eq(words.sort)
  end
end
