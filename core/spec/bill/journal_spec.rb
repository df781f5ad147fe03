# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Bill::Journal do
  subject(:journal) { described_class.new }

  let(:classes) { { "labor" => 45_049, "parts" => 23_693, "fees" => 2_703 } }
  let(:taxes) { { "Parts tax" => 1_895 } }

  def sums = journal.entries.group_by(&:account).transform_values { |rows| rows.sum(&:cents) }

  # The worked example: deposit, bill, part payment, credit note, a new bill.
  it "posts a job from its deposit to the bill that takes the place of a credited one" do
    journal.payment(on: "2026-03-02", means: "bank", cents: 20_000, text: "deposit")
    expect([journal.receivable, journal.deposits]).to eq([0, 20_000])
    journal.bill(on: "2026-03-09", total: 73_340, classes: classes, taxes: taxes, text: "Bill 1042")
    expect([journal.receivable, journal.deposits]).to eq([53_340, 0])
    journal.payment(on: "2026-03-10", means: "card", cents: 15_000, text: "part payment")
    expect(journal.receivable).to eq(38_340)
    journal.credit_note(on: "2026-03-11", total: 73_340, classes: classes, taxes: taxes, text: "Credit note 1043")
    expect([journal.receivable, journal.deposits]).to eq([0, 35_000])
    expect(sums.slice("labor", "parts", "fees", "tax: Parts tax").values).to all(eq(0))
    journal.bill(on: "2026-03-12", total: 70_000, classes: { "labor" => 70_000 }, taxes: {}, text: "Bill 1044")
    expect([journal.receivable, journal.deposits]).to eq([35_000, 0])
    expect(sums).to include("receivable" => 35_000, "labor" => -70_000, "bank" => 20_000, "card" => 15_000)
  end

  it "gives back what is over before anything that was charged" do
    journal.bill(on: "2026-03-09", total: 10_000, classes: { "labor" => 10_000 }, taxes: {}, text: "Bill 1")
    journal.payment(on: "2026-03-10", means: "cash", cents: 12_000, text: "over")
    journal.payment(on: "2026-03-11", means: "cash", cents: -2_500, text: "back")
    expect([journal.receivable, journal.deposits]).to eq([500, 0])
  end

  it "balances, and is open by the bills less the payments, whatever comes in which order" do
    40.times do |seed|
      random = Random.new(seed)
      made = described_class.new
      open = 0
      standing = nil
      12.times do
        case random.rand(3)
        when 0
          cents = random.rand(-4_000..9_000)
          next if cents.zero?

          made.payment(on: "2026-01-01", means: "card", cents: cents, text: "p")
          open -= cents
        when 1
          next if standing

          standing = { total: random.rand(0..30_000) }
          bill = { total: standing[:total], classes: { "labor" => standing[:total] }, taxes: {} }
          made.bill(on: "2026-01-01", text: "b", **bill)
          open += standing[:total]
        else
          next unless standing

          bill = { total: standing[:total], classes: { "labor" => standing[:total] }, taxes: {} }
          made.credit_note(on: "2026-01-01", text: "c", **bill)
          open -= standing[:total]
          standing = nil
        end
        expect(made.entries.sum(&:cents)).to eq(0)
        expect(made.receivable - made.deposits).to eq(open)
        account = ->(name) { made.entries.select { |entry| entry.account == name }.sum(&:cents) }
        expect([account.call("receivable"), account.call("deposits")]).to eq([made.receivable, -made.deposits])
      end
    end
  end
end
