# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../../bin/support/architecture"

# The map of the program (docs/architecture.md, a README in every folder) is drawn from the code.
RSpec.describe Architecture do
  it "is as the code has it (run bin/architecture)" do
    stale = described_class.new.documents.reject { |path, text| File.read(File.join(Architecture::ROOT, path)) == text }
    expect(stale.keys).to eq([])
  end

  it "says of every file what it is" do
    rows = described_class.new.documents.values.flat_map { |text| text.scan(/^\| `[a-z_]+\.rb` \| (.*) \|$/) }.flatten
    expect(rows.size).to be > 250
    expect(rows.reject { |sentence| sentence.match?(/\A.{12,}\.\z/) }).to eq([])
  end
end
