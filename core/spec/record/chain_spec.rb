# frozen_string_literal: true

require_relative "../spec_helper"

# The shop's record (model.md section 14).
RSpec.describe NimbleLedger::Record::Chain do
  let(:chain) { described_class.new("1" => "first key", "2" => "second key") }

  def entry(seq, **rest)
    given = { at: "2026-11-26T09:00:00.000000Z", actor: { "kind" => "system", "id" => "demo" }, kind: "noted" }
    given = given.merge(subject: "quote 1", body: { "seq" => seq }, **rest)
    NimbleLedger::Record::Entry.new(seq: seq, **given)
  end

  # A chain of so many entries; from the third on under the second key.
  def links(count)
    (1..count).reduce([]) do |list, seq|
      key = seq > 2 ? "2" : "1"
      bytes = entry(seq).bytes
      previous = list.empty? ? described_class::START : list.last.mac
      list << described_class::Link.new(seq, bytes, chain.mac(key, previous, bytes), key)
    end
  end

  def fault(list) = chain.fault(list)&.to_a

  it "is HMAC-SHA256 over the mac before and the bytes, the first with 64 zeros" do
    bytes = entry(1).bytes
    expect(bytes).to eq(
      '{"actor":{"id":"demo","kind":"system"},"at":"2026-11-26T09:00:00.000000Z","body":{"seq":1},' \
        '"kind":"noted","seq":1,"subject":"quote 1"}'
    )
    by_hand = OpenSSL::HMAC.hexdigest("SHA256", "first key", ("0" * 64) + bytes)
    expect(links(1).first.mac).to eq(by_hand)
  end

  it "holds over a change of keys, and an empty one holds" do
    expect([fault([]), fault(links(5))]).to eq([nil, nil])
  end

  it "names the first entry that was changed, taken out, put in, moved, or signed with a key nobody has" do
    list = links(5)
    changed = list.map(&:dup).tap { |all| all[2].bytes = all[2].bytes.sub("quote 1", "quote 2") }
    expect(fault(changed)).to eq([3, "mac"])
    expect(fault(list.reject { |link| link.seq == 2 })).to eq([2, "missing"])
    expect(fault(list.dup.insert(2, list[1]))).to eq([2, "order"])
    swapped = list.map(&:dup).tap { |all| all[1].bytes, all[2].bytes = all[2].bytes, all[1].bytes }
    expect(fault(swapped)).to eq([2, "order"])
    expect(fault(list.map(&:dup).tap { |all| all[4].key_id = "3" })).to eq([5, "key"])
  end

  it "written anew with the key it holds, but its heads are others than the papers say" do
    before = links(4)
    anew =
      before
        .map(&:dup)
        .tap do |all|
          all[1].bytes = all[1].bytes.sub("quote 1", "quote 9")
          all.each_with_index do |link, i|
            link.mac = chain.mac(link.key_id, i.zero? ? described_class::START : all[i - 1].mac, link.bytes)
          end
        end
    expect(fault(anew)).to be_nil
    expect(described_class.head(anew[3])).not_to eq(described_class.head(before[3]))
    expect(described_class.head(before[0])).to match(/\A1 \h{12}\z/)
  end

  it "takes only what has one canonical form" do
    expect { entry(1, body: { "a" => 1.5 }) }.to raise_error(NimbleLedger::Record::Entry::Refused, %r{/body/a})
    expect { entry(1, body: { "a" => [nil] }) }.to raise_error(NimbleLedger::Record::Entry::Refused, %r{/body/a/0})
  end
end
