# frozen_string_literal: true

require_relative "../spec_helper"

# What is believed of a fault, worked out a second time from the text of model.md section 9 and the printed tables, on
# an engine with a coil, a boot and a plug on each cylinder: random codes, moments and tests, parts moved by exchanges.
RSpec.describe "a trace by hand" do
  PRINTED = JSON.parse(File.read(File.join(Engines::ROOT, "formats/trace-tables.json")))
  SWAPPED = { "swap-coil" => %w[coil boot], "swap-plug" => %w[plug], "swap-both" => %w[coil boot plug] }.freeze
  ASKED = %w[look-coil read-plug check-wiring balance-injector swap-coil swap-plug swap-both].freeze

  # A fault there may be: cause, the part that travels, its cylinder (nil: everywhere), and its chance so far.
  Fault = Struct.new(:cause, :part, :cylinder, :chance)

  def numbers = (1..6).to_a

  # @return [Array<Fault>] with their priors
  def faults
    shares = PRINTED["prior"]["coil-on-plug"]
    found =
      shares.flat_map do |cause, share|
        next [Fault.new(cause, nil, nil, share.to_f)] if cause == "elsewhere"

        part = { "coil" => "coil", "plug" => "plug", "wire" => "boot" }[cause]
        numbers.map { |number| Fault.new(cause, part, number, share / 6.0) }
      end
    normal(found)
  end

  def normal(found)
    whole = found.sum(&:chance)
    found.each { |fault| fault.chance /= whole }
  end

  def by_codes(found, read)
    codes = PRINTED["code"]
    found.each do |fault|
      numbers.each do |number|
        chance = fault.cylinder.nil? ? codes["elsewhere"] : codes[fault.cylinder == number ? "hit" : "stray"]
        fault.chance *= read.include?(number) ? chance : 1 - chance
      end
      several = codes["several"][fault.cylinder ? "one" : "elsewhere"]
      fault.chance *= read.include?("several") ? several : 1 - several
    end
    normal(found)
  end

  def by_moment(found, moment) = normal(found.each { |fault| fault.chance *= PRINTED["when"][fault.cause][moment] })

  # @param seats [Hash] for each kind of part, where that of each cylinder sits now
  def by_test(found, test, seats)
    about = PRINTED["tests"][test["test"]]
    at = about["outcomes"].index(test["outcome"])
    found.each do |fault|
      here = seats.fetch(fault.part, {}).fetch(fault.cylinder, fault.cylinder)
      row =
        if fault.cylinder.nil?
          about["elsewhere"]
        elsif here == test["cylinder"]
          (fault.part == "boot" && about["here"]["boot"]) || about["here"].fetch(fault.cause)
        else
          about["other"]
        end
      fault.chance *= row[at]
    end
    normal(found)
  end

  def exchange(seats, test)
    (SWAPPED[test["test"]] || []).each do |part|
      one, other = test.values_at("cylinder", "with")
      turned = { one => other, other => one }
      seats[part].transform_values! { |seat| turned.fetch(seat, seat) }
    end
  end

  # Tests with outcomes that some fault would show, none of them twice.
  def tests(rng)
    ASKED
      .sample(1 + rng.rand(4), random: rng)
      .map do |name|
        cylinder, partner = numbers.sample(2, random: rng)
        outcome = PRINTED["tests"][name]["outcomes"].sample(random: rng)
        test = { "test" => name, "cylinder" => cylinder, "outcome" => outcome }
        SWAPPED.key?(name) ? test.merge("with" => partner) : test
      end
  end

  def by_hand(read, moment, done)
    seats = %w[coil boot plug].to_h { |part| [part, numbers.to_h { |number| [number, number] }] }
    found = by_moment(by_codes(faults, read), moment)
    done.each do |test|
      by_test(found, test, seats)
      exchange(seats, test)
    end
    [found, seats]
  end

  def answer(read, moment, done)
    codes = read.map { |one| { "code" => one == "several" ? "P0300" : format("P03%02d", one), "status" => "stored" } }
    NimbleLedger::Answers.to(
      {
        "format" => "nimble-ledger.trace-request",
        "version" => 1,
        "engine" => Engines.profile_of("JIV6"),
        "equipment" => [*Engines::EQUIPMENT, "scan-tool", "compression-gauge"],
        "codes" => codes,
        "when" => moment,
        "evidence" => done
      }
    )
  end

  def chances(found, seats)
    found.to_h do |fault|
      now = seats.fetch(fault.part, {}).fetch(fault.cylinder, fault.cylinder)
      [
        [fault.cause, fault.cylinder ? [fault.cylinder] : numbers, now && now != fault.cylinder ? [now] : nil],
        fault.chance
      ]
    end
  end

  (1..14).each do |seed|
    it "believes the same of every fault, case #{seed}" do
      rng = Random.new(seed)
      read = numbers.sample(rng.rand(3), random: rng)
      read << "several" if rng.rand < 0.3
      moment = NimbleLedger::Trace::Request::MOMENTS.sample(random: rng)
      done = tests(rng)
      wanted = chances(*by_hand(read, moment, done))
      found =
        answer(read, moment, done)["hypotheses"].to_h do |row|
          [row.values_at("cause", "cylinders", "now"), row["chance"]]
        end
      expect(found.keys).to match_array(wanted.keys)
      found.each { |key, chance| expect(chance).to be_within(1e-9).of(wanted[key]) }
    end
  end

  it "tells on average what each test is said to tell, in bits" do
    read, moment = [3], "load"
    held = by_hand(read, moment, []).first
    entropy = ->(all) { -all.map(&:chance).sum { |chance| chance.positive? ? chance * Math.log2(chance) : 0.0 } }
    answer(read, moment, [])["tests"].each do |row|
      told =
        PRINTED["tests"][row["test"]]["outcomes"].sum do |outcome|
          test = row.slice("test", "cylinder", "with").merge("outcome" => outcome)
          weighed = by_hand(read, moment, []).first.map(&:dup)
          before = weighed.map(&:chance)
          likely = likelihood(weighed, test)
          next 0.0 unless likely.positive?

          after = by_test(weighed.each_with_index { |fault, i| fault.chance = before[i] }, test, {})
          likely * entropy.call(after)
        end
      expect(row["bits"]).to be_within(1e-9).of([entropy.call(held) - told, 0].max)
      expect(row["bits_per_minute"]).to be_within(1e-9).of(row["bits"] / row["lost_minutes"])
    end
  end

  # How likely an outcome is, by what is believed.
  def likelihood(found, test)
    about = PRINTED["tests"][test["test"]]
    at = about["outcomes"].index(test["outcome"])
    found.sum do |fault|
      row = fault.cylinder.nil? ? about["elsewhere"] : about["other"]
      if fault.cylinder == test["cylinder"]
        row = (fault.part == "boot" && about["here"]["boot"]) || about["here"].fetch(fault.cause)
      end
      fault.chance * row[at]
    end
  end
end
