# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Card::HandsOn do
  PIECES =
    [
      ["step:cover:remove", 4, false],
      ["step:pipe:remove", 8, false],
      ["wait:soak", 20, true],
      ["target:plug-1:work", 6, false],
      ["step:cover:refit", 3, false]
    ].map { |row| described_class::Piece.new(*row) }.freeze
  OPEN = NimbleLedger::House::Settings.defaults["opening_hours"]
  # 2026-11-26 is a Thursday, open 08:00 to 17:30; Friday closes at 17:00, Saturday at 12:30, Sunday stays closed.
  DAY = Time.utc(2026, 11, 26)

  def hands_on(*list)
    events =
      list.each_with_index.map do |(clock, kind, values), i|
        day, time = clock.include?(" ") ? clock.split : ["0", clock]
        hour, minute, second = time.split(":").map(&:to_i)
        at = DAY + (day.to_i * 86_400) + (hour * 3600) + (minute * 60) + second.to_i
        given = values.is_a?(String) ? { "piece" => values } : values
        NimbleLedger::Card::Event.parse(
          { "id" => format("m%02d", i), "at" => at.iso8601(3), "kind" => kind }.merge(given || {})
        )
      end
    described_class.new(
      NimbleLedger::Card::Fold.new(events).events,
      PIECES,
      nights: NimbleLedger::Card::Nights.new(OPEN)
    )
  end

  def minutes(*list) = hands_on(*list).minutes.transform_values { |value| value.round(6) }

  it "is the time from the mark before to its own" do
    expect(minutes(%w[8:00 start], %w[8:05 off step:cover:remove], %w[8:17 off step:pipe:remove])).to eq(
      { "step:cover:remove" => 5.0, "step:pipe:remove" => 12.0 }
    )
  end

  it "leaves pauses out, whoever forgets to end them" do
    paused = [%w[8:00 start], ["8:02", "pause", { "why" => "parts" }], %w[9:02 resume]]
    expect(minutes(*paused, %w[9:05 off step:cover:remove])).to eq({ "step:cover:remove" => 5.0 })
    expect(minutes(*paused.first(2), %w[9:05 off step:cover:remove])).to eq({ "step:cover:remove" => 2.0 })
  end

  it "shares one go by the estimates" do
    together = { "pieces" => %w[step:cover:remove step:pipe:remove] }
    expect(minutes(%w[8:00 start], ["8:18", "check", together])).to eq(
      { "step:cover:remove" => 6.0, "step:pipe:remove" => 12.0 }
    )
    in_a_row = [%w[8:00 start], %w[8:17:50 off step:cover:remove], %w[8:18 off step:pipe:remove]]
    expect(minutes(*in_a_row)).to eq({ "step:cover:remove" => 6.0, "step:pipe:remove" => 12.0 })
  end

  it "counts no waiting, and what is done meanwhile for itself" do
    expect(
      minutes(
        %w[8:00 start],
        %w[8:05 off step:cover:remove],
        %w[8:05:30 waiting wait:soak],
        %w[8:15 off step:pipe:remove],
        %w[8:25 check wait:soak],
        ["8:31", "in", { "plug" => "plug-1", "how" => "torque", "piece" => "target:plug-1:work" }]
      )
    ).to eq({ "step:cover:remove" => 5.0, "step:pipe:remove" => 10.0, "target:plug-1:work" => 6.0 })
  end

  it "keeps fights apart from the piece they happen in" do
    job =
      hands_on(
        %w[8:00 start],
        ["8:04", "fight", { "what" => "broken", "plug" => "plug-1" }],
        ["9:04", "over", { "of" => "m01" }],
        ["9:10", "in", { "plug" => "plug-1", "how" => "torque", "piece" => "target:plug-1:work" }]
      )
    expect([job.minutes["target:plug-1:work"], job.trouble, job.total]).to eq([10.0, 60.0, 70.0])
  end

  it "counts no cure: adhesive works by itself" do
    job =
      hands_on(
        %w[8:00 start],
        ["8:04", "fight", { "what" => "broken", "plug" => "plug-1" }],
        %w[8:14 waiting cure],
        %w[9:14 check cure],
        ["9:24", "over", { "of" => "m01" }],
        ["9:30", "in", { "plug" => "plug-1", "how" => "torque", "piece" => "target:plug-1:work" }]
      )
    expect([job.trouble, job.minutes.fetch("cure", 0.0)]).to eq([20.0, 0.0])
    expect(job.minutes["target:plug-1:work"]).to eq(6.0)
  end

  it "leaves nights out, weekends too, but not an evening somebody stayed" do
    overnight = [%w[16:30 start], ["1 9:00", "off", "step:cover:remove"]]
    expect(minutes(*overnight)["step:cover:remove"]).to eq(120.0) # 16:30 to 17:30, 8:00 to 9:00
    weekend = [["1 16:00", "start"], ["4 8:30", "off", "step:cover:remove"]]
    expect(minutes(*weekend)["step:cover:remove"]).to eq(60 + 240 + 30.0) # Friday, all Saturday's opening, Monday
    expect(minutes(%w[17:00 start], %w[18:15 off step:cover:remove])["step:cover:remove"]).to eq(75.0)
  end

  it "takes a correction in place of what was measured, and never times what was not seen" do
    expect(
      minutes(
        %w[8:00 start],
        %w[8:05 off step:cover:remove],
        ["8:06", "correct", { "piece" => "step:cover:remove", "minutes" => 3, "why" => "on the phone" }]
      )
    ).to eq({ "step:cover:remove" => 3.0 })
    expect(minutes(%w[8:05 off step:cover:remove])).to eq({ "step:cover:remove" => 0.0 })
  end

  it "adds up to the day, whatever was marked" do
    200.times do |seed|
      rng = Random.new(seed)
      at = 8 * 60
      list = [%w[8:00 start]]
      pauses = 0
      PIECES
        .sample(rng.rand(1..4), random: rng)
        .each do |piece|
          if rng.rand < 0.3
            list << ["#{at / 60}:#{format("%02d", at % 60)}:01", "pause", { "why" => "other" }]
            at += (gone = rng.rand(1..30))
            list << ["#{at / 60}:#{format("%02d", at % 60)}:01", "resume"]
            pauses += gone
          end
          at += rng.rand(1..40)
          list << ["#{at / 60}:#{format("%02d", at % 60)}", "check", piece.id]
        end
      day = hands_on(*list)
      waited = PIECES.select(&:waiting).any? { |piece| list.any? { |row| row.last == piece.id } }
      expect(day.total).to be <= at - (8 * 60) - pauses + 1e-6
      expect(day.total).to be_within(0.1).of(at - (8 * 60) - pauses) unless waited
    end
  end
end
