# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Day::BayEquipment do
  def asked(needs, *bays) = described_class.asked(needs, bays)

  it "asks a bay for what stands in one, and none for what is carried about" do
    expect(asked(%w[lift torch], [], %w[lift crane])).to eq(%w[lift])
    expect(asked(%w[torch], [], %w[lift])).to eq([])
    expect(asked([], %w[lift])).to eq([])
  end

  it "asks for what one bay has where no single one has all" do
    expect(asked(%w[lift crane rack], %w[crane], %w[rack lift])).to eq(%w[lift rack])
    expect(asked(%w[lift crane], %w[crane], %w[lift])).to eq(%w[crane])
  end
end
