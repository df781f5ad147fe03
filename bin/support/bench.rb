# frozen_string_literal: true

require_relative "stage"
require_relative "../../core/spec/support/profiles"
require_relative "../../core/spec/support/hard_profiles"
require_relative "../../core/spec/support/engines"
require_relative "bench_workshop"
require_relative "bench_drafts"
require_relative "bench_day"
require "zlib"

# One row per budget. Times are medians unless said otherwise; nothing here passes or fails.
class Bench
  include NimbleLedger
  include BenchWorkshop
  include BenchDrafts
  include BenchDay

  def initialize
    @calibration = median(15) { 200_000.times.reduce(0) { |sum, i| (sum + (i * i)) % 1_000_003 } }
    puts format("%-72s %9.2f ms  ratio 1.00", "calibration loop", @calibration)
  end

  def run
    core
    day
    hard
    server
    browser
    bay
    workshop
    drafts
    list # after the clicks: filling in 100,000 quotes leaves the database busy with them for a while
    weight
  end

  private

  def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  def median(times)
    values = times.times.map { |i| clock.then { |t| yield(i).then { (clock - t) * 1000 } } }
    values.sort[values.size / 2]
  end

  # The median of a program that has been running for a while: what is compiled on the way has been.
  def warm(before, times, &run)
    before.times(&run)
    median(times, &run)
  end

  def row(name, ms, note = "") = puts(format("%-72s %9.2f ms  ratio %.2f  %s", name, ms, ms / @calibration, note))

  REFERENCE = { "engine" => "YUX8", "targets" => %w[plug-8 coil-8] }.freeze
  HISTORY = { "odometer_km" => 190_000, "plugs_changed_km" => 0, "plugs_changed_years" => 14 }.freeze

  def request = Engines.request(REFERENCE["targets"], history: HISTORY)

  def core
    engine = Engines.engine("YUX8")
    catalog = Engines.catalog
    @reference =
      warm(600, 300) do
        answer = answer_of(request, engine, catalog)
        [answer.plan, answer.outcomes.no_trouble, answer.needed, answer.price.total_cents]
      end
    row("reference job in the core: plan, times, risk, parts, price (0.4 ms)", @reference)
    @whole = warm(100, 60) { whole(answer_of(request, engine, catalog)) }
    row("the same with while-open and soundings (4 ms)", @whole)
    row("the same on the engine with two routes, alternatives priced too (4 ms)", routes(catalog))
    row("trace: what is believed and every next test, largest demo engine (15 ms)", trace)
    row("learning from 2,000 jobs with backtest and lesson (5,000 ms)", learning)
    sheet = warm(50, 40) { Engines.sheet("YUX8", [8], %w[plug coil], catalog: catalog, history: HISTORY).to_h }
    row("the whole Quote sheet of it, profile built anew", sheet)
  end

  # A shop of eighteen engines and six technicians.
  def learning
    truth = NimbleLedger::Ledger::Simulator::TRUTH.dup
    truth.engines = (1..18).to_h { |i| ["E#{i}", (i % 5) * 0.05] }
    truth.technicians = (1..6).to_h { |i| ["T#{i}", (i % 3) * 0.04] }
    jobs = NimbleLedger::Ledger::Simulator.new(3, truth: truth).jobs(2_000)
    hash = { "format" => NimbleLedger::Ledger::History::FORMAT, "version" => 1, "jobs" => jobs }
    median(3) { NimbleLedger::Ledger::History.build(hash).learn }
  end

  def trace
    hash = {
      "format" => "nimble-ledger.trace-request",
      "version" => 1,
      "engine" => {
      },
      "equipment" => [*Engines::EQUIPMENT, "scan-tool", "compression-gauge"],
      "history" => HISTORY.merge("compound_used" => false),
      "codes" => [{ "code" => "P0307" }],
      "when" => "load",
      "evidence" => [{ "test" => "look-coil", "cylinder" => 7, "outcome" => "clean" }]
    }
    documents = NimbleLedger::Documents.new(engine: Engines.engine("YUX8"), catalog: Engines.catalog)
    warm(20, 30) { NimbleLedger::Trace::Request.build(hash, documents: documents).answer }
  end

  def answer_of(request, engine, catalog)
    documents = NimbleLedger::Documents.new(engine: engine, catalog: catalog)
    Estimate::Answer.new(Estimate::Request.build(request, documents: documents))
  end

  # Everything a page shows beside the job itself: what else is open, and every cylinder's own job.
  def whole(answer)
    answer.to_h
    engine = answer.car.engine
    engine.cylinders.each do |c|
      both = [engine.target("plug-#{c.number}"), engine.target("coil-#{c.number}") || engine.target("wire-#{c.number}")]
      answer.with_targets(both).plan.job.quoted_tenths
    end
  end

  def routes(catalog)
    engine = Engines.engine("IXO6")
    body = Engines.request(%w[plug-5 wire-5], history: HISTORY, equipment: Engines::EQUIPMENT)
    warm(40, 40) do
      answer = answer_of(body, engine, catalog)
      whole(answer)
      Quote::Routes
        .new(answer)
        .decisions
        .each { |decision| decision.options.each { |option| option.answer.price.total_cents } }
    end
  end

  def hard
    planners = 21.times.map { |seed| HardProfiles.build(seed) }
    engines = planners.map { |hash| Profile::Engine.build(hash) }
    house = House::Settings.defaults
    all = median(21) { |i| plan(engines[i], house, 64) }
    row("core plan at the size limits, all 64 targets, proven least (15 ms)", all)
    some = median(21) { |i| plan(engines[i], house, 24) }
    row("core plan at the size limits, the 24 targets with several ways (15 ms)", some)
  end

  def plan(engine, house, count)
    Car.new(engine: engine, house: house).planner.plan(engine.targets.first(count))
  end

  def server
    @client = Client.as("advisor@merrow.example")
    ids = %w[engines/YUX8].map { |path| @client.call(:get, "/api/#{path}").last["id"] }
    list =
      TestServer.db[:price_lists].join(:shops, id: :shop_id).where(slug: "merrow-quay").get(Sequel[:price_lists][:id])
    body = request.merge("engine" => ids.first, "catalog" => list)
    20.times { @client.call(:post, "/api/estimates", body) }
    ping = median(100) { @client.call(:get, "/api/ping") }
    estimate = median(60) { @client.call(:post, "/api/estimates", body) }
    row("SELECT 1 endpoint", ping)
    row("POST /api/estimates of the reference job", estimate, format("allowed %.2f", @whole + (3 * ping)))
  end

  def list
    small = list_times(1_000)
    large = list_times(100_000)
    row("quote list, 1,000 quotes", small[0])
    row("quote list, 100,000 quotes (1.5 times)", large[0], format("%.2f times", large[0] / small[0]))
    row("quote search, 1,000 quotes", small[1])
    row("quote search, 100,000 quotes (1.5 times)", large[1], format("%.2f times", large[1] / small[1]))
  end

  def list_times(count)
    fill(count)
    [
      median(40) { @client.call(:get, "/api/quotes") },
      median(40) { |i| @client.call(:get, "/api/quotes?search=#{Digest::MD5.hexdigest(((i * 7) % count).to_s)[0, 7]}") }
    ]
  end

  def fill(count)
    db = TestServer.db
    shop = db[:shops].where(slug: "merrow-quay").get(:id)
    vehicle, engine =
      db[:vehicles]
        .where(Sequel[:vehicles][:shop_id] => shop)
        .join(:engine_profiles, shop_id: :shop_id, code: :engine_code)
        .get([Sequel[:vehicles][:id], Sequel[:engine_profiles][:id].as(:engine)])
    have = db[:quotes].where(shop_id: shop).count
    db.run(
      "INSERT INTO quotes (shop_id, id, number, vehicle_id, engine_profile_id, search, created_at, updated_at) " \
        "SELECT '#{shop}', gen_random_uuid(), 100000 + i, '#{vehicle}', '#{engine}', substr(md5(i::text), 1, 7) || " \
        "' ' || substr(md5('name' || i), 1, 9), now(), now() - (i || ' minutes')::interval " \
        "FROM generate_series(#{have}, #{count - 1}) i"
    )
    db.run("ANALYZE quotes")
  end

  def browser
    Stage.open(apart: true) do |stage|
      stage.sign_in("advisor@merrow.example")
      stage.open(stage.quote("5-TOW-4I", [1], works: %w[plug coil]))
      14.times { |i| painted(stage, (i % 7) + 2) } # a server that has been asked before
      click_rows("click on a second cylinder, and off again, to new total painted", second(stage), 60)
      click_rows("click on every cylinder in turn, up to all eight", clicks(stage), 60)
      click_rows("the same beside two busy loops", busy { clicks(stage) }, 100)
    end
  end

  # A press on a page that is at rest. The total is on its way when its frame begins; when that frame is laid out and
  # painted it is there; what explains it follows.
  # @param times [Array<Array(Float, Float, Float)>] ms until the total's frame begins, until that is painted, until
  # every other figure of the page is
  def click_rows(name, times, budget)
    begun, painted, whole = times.transpose.map(&:sort)
    note = format("its frame begins at %.0f, the whole page is there at %.0f", begun[38], whole[38])
    row("#{name}, p95 of 40 (#{budget} ms)", painted[38], note)
    row("#{name}, median", painted[20])
  end

  # One or two cylinders in the job.
  def second(stage) = 40.times.map { |i| painted(stage, (i / 2 % 7) + 2) }

  # All of them, one after the other, and off again.
  def clicks(stage) = 40.times.map { |i| painted(stage, (i % 7) + 2) }

  # What is measured while two processes do nothing but count.
  def busy
    loops = 2.times.map { Process.spawn("ruby", "-e", "loop { }") }
    yield
  ensure
    loops&.each { |pid| Process.kill("KILL", pid) && Process.wait(pid) }
  end

  # Presses of the main button on a card, each until what it changes is on the screen.
  def bay
    Stage.open(apart: true) do |stage|
      stage.sign_in("advisor@merrow.example")
      job = stage.client.call(:get, "/api/jobs").last["jobs"].find { |row| row["started_at"].nil? }
      stage.go("/bay/#{job["id"]}", "Before the start")
      pressed(stage)
      times = 24.times.filter_map { pressed(stage) }.sort
      row("press on the bay card to ink, p95 of #{times.size} (50 ms)", times[(times.size * 0.95).floor])
      row("the same, median", times[times.size / 2])
    end
  end

  PRESSED = <<~JS
    const done = arguments[0];
    const main = document.querySelector("main > div:last-of-type").lastElementChild;
    const words = () => document.querySelector("main").textContent;
    if (main.disabled || main.dataset.disabled) return done(null);
    const before = words();
    const started = performance.now();
    const look = () => (words() === before ? requestAnimationFrame(look) : done(performance.now() - started));
    main.click();
    requestAnimationFrame(look);
  JS

  # @return [Float, nil] ms; nil where the card asks for something else first
  def pressed(stage)
    time = stage.driver.execute_async_script(PRESSED)
    stage.painted
    time
  end

  PAINTED = <<~JS
    const [number, done] = arguments;
    const box = () => document.querySelector("[data-testid=total]");
    const started = performance.now();
    const times = [];
    const painted = (then) => {
      const channel = new MessageChannel();
      channel.port1.onmessage = () => { times.push(performance.now() - started); then(); };
      channel.port2.postMessage(null);
    };
    const rest = () => {
      if (document.querySelector("main [aria-busy=true]")) return requestAnimationFrame(rest);
      painted(() => done(times));
    };
    const look = () => {
      const now = box();
      const settled = now && now.getAttribute("aria-busy") === "false" && performance.now() - started > 4;
      if (!settled) return requestAnimationFrame(look);
      times.push(performance.now() - started);
      painted(() => requestAnimationFrame(rest));
    };
    document.querySelector(`button[aria-label^='Cylinder ${number},']`).click();
    requestAnimationFrame(look);
  JS

  def painted(stage, number)
    time = stage.driver.execute_async_script(PAINTED, number)
    stage.settled
    time
  end

  def weight
    built = File.join(NimbleServer::ROOT, "web/dist")
    every =
      Dir[File.join(built, "assets/*.js")].to_h { |path| [File.basename(path), Zlib.gzip(File.read(path)).bytesize] }
    first = File.read(File.join(built, "index.html")).scan(%r{assets/([\w-]+\.js)}).flatten.uniq
    puts format(
           "%-72s %9.1f kB",
           "first load JavaScript, compressed (170 kB), before its screen",
           every.values_at(*first).sum / 1000.0
         )
    puts format("%-72s %9.1f kB", "all JavaScript, compressed", every.values.sum / 1000.0)
  end
end

Bench.new.run
