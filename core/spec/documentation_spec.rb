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
        Dir.children(File.join(root, "core/lib/nimble_ledger", folder)).map { |file| "#{folder}/#{file}" }
      end
    text = table.join + File.read(File.join(root, "docs/model.md"))
    expect(there.reject { |file| text.include?(file) }).to eq([])
  end
end
