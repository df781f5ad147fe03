# frozen_string_literal: true

RSpec.describe NimbleLedger::Workshop::Layout do
  def laid(arrangement, mounting, cylinders)
    described_class.new("arrangement" => arrangement, "mounting" => mounting, "cylinders" => cylinders)
  end

  it "counts odd cylinders on the rear or left bank, and positions within a bank" do
    places = laid("vee", "sideways", 6).then { |layout| layout.numbers.map { |number| layout.place(number) } }
    expect(places.group_by { |one| one["bank"] }.transform_values { |ones| ones.map { |one| one["number"] } }).to eq(
      "rear" => [1, 3, 5],
      "front" => [2, 4, 6]
    )
    expect(places.map { |one| one["position"] }).to eq([1, 1, 2, 2, 3, 3])
    expect(laid("flat", "lengthwise", 4).place(3)).to eq("number" => 3, "bank" => "left", "position" => 2)
    expect(laid("inline", "sideways", 4).place(3)).to eq("number" => 3, "position" => 3)
  end

  it "lays manifold and cowl tray over the rear bank of a sideways vee, and over all or the hindmost elsewhere" do
    sideways = laid("vee", "sideways", 6)
    expect([sideways.usually("manifold"), sideways.usually("tray")]).to all(eq([1, 3, 5]))
    expect(laid("vee", "lengthwise", 8).usually("manifold")).to eq([*1..8])
    expect(laid("vee", "lengthwise", 8).usually("tray")).to eq([7, 8])
    expect(laid("inline", "lengthwise", 6).usually("tray")).to eq([5, 6])
    expect(laid("inline", "sideways", 4).usually("tray")).to eq([1, 2, 3, 4])
  end

  it "lays an air box and a bracket over a part of the engine, covers and pipes over all of it" do
    expect(laid("inline", "sideways", 4).usually("box")).to eq([1, 2])
    expect(laid("inline", "sideways", 4).usually("bracket")).to eq([3, 4])
    expect(laid("flat", "lengthwise", 4).usually("box")).to eq([2, 4])
    expect(laid("inline", "lengthwise", 6).usually("cover")).to eq([*1..6])
  end

  it "names only cylinders that exist, at least one, in order, for every way an engine can be built" do
    built =
      %w[inline vee flat single]
        .product(%w[sideways lengthwise], (1..16).to_a)
        .reject { |arrangement, _, count| arrangement == "single" && count != 1 }
    kinds = NimbleLedger::Workshop::UsualTimes::NOUNS.keys + ["layer"]
    built.product(kinds) do |(arrangement, mounting, count), kind|
      over = laid(arrangement, mounting, count).usually(kind)
      fits = over.any? && over == over.sort.uniq && (over - [*1..count]).empty?
      expect(fits).to be(true), "#{arrangement} #{mounting} #{count} #{kind}: #{over}"
    end
  end

  it "is what a sketch offers: each layer with the cylinders it usually lies over, and a faulty engine refused" do
    built = { "arrangement" => "vee", "mounting" => "sideways", "cylinders" => 6, "ignition" => "coil-on-plug" }
    offered = NimbleLedger::Workshop::Sketch.offered(built)
    expect(offered.map { |one| one["label"] }).to eq(NimbleLedger::Workshop::Sketch::OFFERED)
    expect(offered.to_h { |one| one.values_at("label", "cylinders") }).to include(
      "Engine cover" => [*1..6],
      "Upper intake manifold" => [1, 3, 5]
    )
    expect { NimbleLedger::Workshop::Sketch.offered(built.merge("cylinders" => 0)) }.to raise_error(
      NimbleLedger::InvalidInput
    )
  end
end
