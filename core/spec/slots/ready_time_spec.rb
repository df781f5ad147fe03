# frozen_string_literal: true

require_relative "../spec_helper"

# Section 5, "Ready time": generated drop-offs and jobs against a clock that counts open minutes one by one.
RSpec.describe NimbleLedger::Slots::ReadyTime do
  let(:opening) { NimbleLedger::House::Settings.defaults["opening_hours"] }
  let(:slots) { described_class.from(opening) }
  let(:moment) { described_class::Moment }

  def open_minutes(day) = opening[described_class::DAYS[day.wday]]&.map { |text| described_class.minutes(text) }

  # Walks minute by minute.
  def walked(from, minutes)
    date = from.date
    minute = from.minute
    left = minutes
    loop do
      open, close = open_minutes(date)
      return moment.new(date, minute) if left.zero? && open && minute.between?(open, close)

      left -= 1 if open && minute >= open && minute < close && left.positive?
      minute += 1
      date, minute = date + 1, 0 if minute >= 1440
    end
  end

  it "equals walking the clock minute by minute" do
    rng = Random.new(11)
    60.times do
      from = moment.new(Date.new(2026, 11, 20) + rng.rand(14), rng.rand(0..1439))
      minutes = rng.rand(1..1500)
      expect(slots.ready(from, minutes)).to eq(walked(from, minutes)), "#{from} + #{minutes}"
    end
  end

  it "never promises outside opening hours, and never sooner for more work or a later car" do
    rng = Random.new(12)
    120.times do
      from = moment.new(Date.new(2026, 11, 20) + rng.rand(14), rng.rand(0..1439))
      minutes = rng.rand(1.0..900.0)
      ready = slots.ready(from, minutes)
      open, close = open_minutes(ready.date)
      expect(ready.minute).to be_between(open, close)
      expect(slots.ready(from, minutes + 30)).to be >= ready
      expect(slots.ready(moment.new(from.date, [from.minute + 15, 1439].min), minutes)).to be >= ready
    end
  end

  it "an overnight soak is ready on a later day, at the earliest when the work is done after opening" do
    rng = Random.new(13)
    60.times do
      from = moment.new(Date.new(2026, 11, 23) + rng.rand(5), rng.rand(480..1000))
      ready = slots.ready(from, 200, before_night: rng.rand(10..100))
      expect(ready.date).to be > from.date
    end
  end

  it "equals walking the clock over weeks, to the minute where a week is full" do
    week =
      opening.values.compact.sum do |day|
        day.map { |text| described_class.minutes(text) }.then { |open, close| close - open }
      end
    [week, (2 * week) - 1, 2 * week, (2 * week) + 1, (3 * week) + 333].each do |minutes|
      [
        moment.new(Date.new(2026, 11, 23), 480),
        moment.new(Date.new(2026, 11, 27), 1020),
        moment.new(Date.new(2026, 11, 29), 700)
      ].each { |from| expect(slots.ready(from, minutes)).to eq(walked(from, minutes)), "#{from} + #{minutes}" }
    end
  end

  it "names a day for the longest job a profile can hold" do
    expect(slots.ready(moment.new(Date.new(2026, 11, 23), 480), 80_000_000).date.year).to be > 2500
  end
end
