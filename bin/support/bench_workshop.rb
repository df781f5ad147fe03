# frozen_string_literal: true

# The workshop's rows of bin/bench: what typing takes on the largest demo engine, and at the limits of the format.
module BenchWorkshop
  # A figure typed in the workshop: until it stands in its field, and until the test prices follow.
  def workshop
    Stage.open(apart: true) do |stage|
      stage.sign_in("owner@merrow.example")
      typing(stage, "YUX8", "largest demo engine", " (60 ms)")
      stage.client.call(:post, "/api/engines", largest)
      typing(stage, "LARGEST", "80 steps and 64 targets", "") # to remain usable
    end
  end

  # At the limits of the format: 48 layers over all of 16 cylinders, a coil and three kinds of work at each.
  def largest
    numbers = (1..16).to_a
    built = { arrangement: "inline", mounting: "lengthwise", cylinders: 16, ignition: "coil-on-plug" }
    sketch = { code: "LARGEST", name: "Largest", layers: [], moves: [], plug: {}, provisional: false, **built }
    kinds = NimbleLedger::Workshop::UsualTimes.new(Engines.codes.map { |code| Engines.profile_of(code) })
    profile = NimbleLedger::Workshop::Sketch.new(JSON.parse(JSON.generate(sketch)), kinds: kinds).profile
    64.times do |i|
      over = i < 32 ? numbers : numbers.last(8)
      act = { "do" => "add", "label" => "Layer #{i + 1}", "cylinders" => over }
      profile = NimbleLedger::Workshop::Acts.new(profile, kinds: kinds).apply(act)
    end
    %w[boot look].product(numbers) do |work, n|
      way = { "id" => "from-above", "through" => ["coil-#{n}"] }
      target = { "id" => "#{work}-#{n}", "work" => work, "cylinder" => n, "minutes" => [1, 2, 3], "ways" => [way] }
      profile["targets"] << target
    end
    profile
  end

  # @param budget [String] of the test prices, as the row says it
  def typing(stage, code, name, budget)
    stage.client.call(:post, "/api/workshop", { code: code })
    stage.go("/workshop/#{code}", "Does it quote true?")
    stage.painted
    14.times { |i| typed(stage, 11 + i) } # a server that has been asked before
    times = 30.times.map { |i| typed(stage, 31 + i) }
    ink, prices = times.transpose.map(&:sort)
    row("workshop, key to ink, #{name}, p95 of 30 (60 ms)", ink[28])
    row("workshop, key to test prices, #{name}, p95 of 30#{budget}", prices[28])
    row("the same, median", prices[15])
  end

  TYPED = <<~JS
    const [value, done] = arguments;
    const field = document.querySelector("td.minutes input");
    const prices = () => document.querySelector("dl[aria-label='Test prices']");
    const before = prices().textContent;
    const started = performance.now();
    let ink = null;
    field.focus();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, String(value));
    field.dispatchEvent(new Event("input", { bubbles: true }));
    const look = () => {
      if (ink === null && field.value === String(value)) ink = performance.now() - started;
      if (prices().textContent !== before) done([ink, performance.now() - started]);
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  JS

  def typed(stage, value)
    times = stage.driver.execute_async_script(TYPED, value * 7)
    stage.painted
    times
  end
end
