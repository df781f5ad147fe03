# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe NimbleLedger::InvalidInput do
  it "names the place and the fault in one sentence, and again for programs" do
    expect(described_class.at("/plugs/2", "names cylinder 9, which does not exist").to_h).to eq(
      "error" => {
        "code" => "invalid_request",
        "message" => "The request has a fault: /plugs/2 names cylinder 9, which does not exist.",
        "details" => [{ "path" => "/plugs/2", "message" => "names cylinder 9, which does not exist" }]
      }
    )
  end

  it "says what was handed in where that is no request" do
    refusal = described_class.at("/of", "is needed", what: "mark", code: "invalid_mark")
    expect([refusal.message, refusal.code]).to eq(["The mark has a fault: /of is needed.", "invalid_mark"])
  end

  it "keeps what it says from being changed on the way" do
    expect { described_class.at("/a", "is wrong").details << 1 }.to raise_error(FrozenError)
  end
end
