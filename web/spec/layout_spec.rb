# frozen_string_literal: true

require_relative "spec_helper"

# Nothing overlaps, clips or scrolls sideways, on any width, with any engine.
RSpec.describe "the Quote page", type: :feature do
  # A car for each engine, and its deepest cylinder.
  CARS = {
    "SK18" => ["0-PAR-7M", [4]],
    "JIV6" => ["4-TRE-1M", [5]],
    "YUX8" => ["5-TOW-4I", [8]],
    "QEZ4" => ["5-POT-2M", [1]],
    "TP23" => ["9-SEA-0M", [4]],
    "GV28" => ["7-LUX-7M", [6]],
    "OC30" => ["6-GLD-0M", [6]],
    "IXO6" => ["8-BUS-3M", [5]],
    "OZB4" => ["4-HIL-6M", [4]],
    "AS04" => ["2-DUN-07", [1]]
  }.freeze

  # Marks and chips of the drawing that cover one another.
  OVERLAPS = <<~JS
    const marks = "button[aria-label^='Cylinder'], button[aria-label^='Cylinder'] + span";
    const boxes = [...document.querySelectorAll(marks)].map((e) => e.getBoundingClientRect());
    let bad = 0;
    boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => {
      const w = Math.min(a.right, b.right) - Math.max(a.left, b.left);
      const h = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
      if (w > 1.5 && h > 1.5) bad++;
    }));
    return bad;
  JS

  # Chips of the drawing that cover one another, or stand outside it.
  CHIPS = <<~JS
    const svg = document.querySelector("svg[viewBox^='0 0 390']"), frame = svg.getBoundingClientRect();
    const texts = [...svg.querySelectorAll("g > rect + text")];
    const chips = texts.map((e) => e.previousElementSibling.getBoundingClientRect());
    const across = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left);
    const down = (a, b) => Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
    const covered = chips.filter((a, i) => chips.some((b, j) => i < j && across(a, b) > 1 && down(a, b) > 1));
    const outside = chips.filter((a) => a.right > frame.right + 1 || a.left < frame.left - 1);
    return covered.length + outside.length;
  JS

  # Text in a column of the page that is wider than the column.
  CUT =
    "[...document.querySelectorAll('main td, main th, main dt, main dd, main h2, main p')].filter((e) => " \
      "e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).overflow !== 'visible').length"

  # Columns of the page that scroll by themselves.
  SCROLLED =
    "[...document.querySelectorAll('main section')].map((e) => e.parentElement).filter((e) => e.scrollHeight > " \
      "e.clientHeight + 1 && getComputedStyle(e).overflowY !== 'visible').length"

  before { sign_in }

  CARS.each do |code, (plate, cylinders)|
    it "fits 1280×800 without scrolling, and a tablet, for #{code}" do
      open_page(made_quote(plate, cylinders))
      total
      expect(overflow).to be <= 0
      expect(page.execute_script(CHIPS)).to eq(0)
      expect(page.evaluate_script(CUT)).to eq(0)
      %w[Parts Layers].each do |panel|
        click_button panel
        expect(page).to have_css("[role=region][aria-label=#{panel}]")
        expect(page.evaluate_script(SCROLLED)).to eq(0), panel
      end
      [[820, 1180], [640, 400], [390, 844]].each do |width, height|
        size(width, height)
        expect(overflow).to be <= 0
        expect(page.execute_script(OVERLAPS)).to eq(0)
      end
    end
  end

  # Whether all of these are wholly on the screen, which does not scroll.
  IN_SIGHT = <<~JS
    const [names] = arguments;
    const seen = [...document.querySelectorAll("button, a, [data-testid=total]")].filter((e) =>
      names.some((name) => e.textContent.trim().startsWith(name)));
    const boxes = seen.map((e) => e.getBoundingClientRect());
    const root = document.documentElement;
    if (root.scrollHeight > root.clientHeight) return -1;
    return boxes.filter((box) => box.height > 0 && box.top >= 0 && box.bottom <= innerHeight).length;
  JS

  it "keeps the total, what is done with it and the index in sight on a low screen" do
    open_page(made_quote("5-TOW-4I", [3, 4]))
    total
    [[1280, 657], [1366, 600], [1536, 540]].each do |width, height|
      size(width, height)
      names = ["Total", "Save", "The yes", "Print", "Counter", "House", "Quote", "Keys", "Account", "Sign out"]
      expect([height, page.execute_script(IN_SIGHT, names)]).to eq([height, names.size])
    end
  end

  # One engine of each arrangement, and everything chosen on the largest.
  ARRANGEMENTS = {
    "inline" => ["7-LUX-7M", [6]],
    "vee, sideways" => ["4-TRE-1M", [5]],
    "vee, lengthwise" => ["5-TOW-4I", (1..8).to_a],
    "flat" => ["4-HIL-6M", [2, 4]],
    "single" => ["2-DUN-07", [1]]
  }.freeze

  ARRANGEMENTS.each do |kind, (plate, cylinders)|
    it "passes AA by day and night: #{kind}" do
      open_page(made_quote(plate, cylinders))
      total
      %w[day night].each do |chart|
        page.execute_script("document.documentElement.dataset.chart = '#{chart}'")
        accessible
      end
    end
  end

  it "would be told by the rules of a button without a name and of pale ink" do
    open_page(made_quote("4-TRE-1M", [5]))
    total
    page.execute_script(
      "document.querySelector('button[aria-label^=Cylinder]').replaceChildren(); " \
        "document.querySelector('button[aria-label^=Cylinder]').removeAttribute('aria-label')"
    )
    expect { accessible }.to raise_error(RSpec::Expectations::ExpectationNotMetError, /button-name/)
    visit "/"
    expect(page).to have_css("h1", text: "what needs you")
    page.execute_script("document.querySelector('h1').style.color = '#ccc'")
    expect { accessible }.to raise_error(RSpec::Expectations::ExpectationNotMetError, /color-contrast/)
  end

  # Twelve cylinders in two banks under fourteen layers, some over one bank or one end only.
  def large_engine
    numbers = (1..12).to_a
    steps =
      (1..14).map do |i|
        {
          "id" => "layer-#{i}",
          "label" => "Layer number #{i} of the intake",
          "remove" => [2, 3, 5],
          "refit" => [2, 3, 6],
          "after" => i == 1 ? [] : ["layer-#{i - 1}"]
        }
      end
    steps += [
      {
        "id" => "left-cover",
        "label" => "Left bank cover",
        "remove" => [1, 2, 3],
        "refit" => [1, 2, 3],
        "after" => ["layer-14"]
      },
      {
        "id" => "bulkhead",
        "label" => "Bulkhead bracket",
        "remove" => [1, 2, 3],
        "refit" => [1, 2, 3],
        "after" => ["layer-14"]
      }
    ]
    over = ->(n) { ["layer-14"] + (n.even? ? ["left-cover"] : []) + (n > 10 ? ["bulkhead"] : []) }
    targets =
      numbers.map do |n|
        {
          "id" => "plug-#{n}",
          "work" => "plug",
          "cylinder" => n,
          "minutes" => [2, 3, 5],
          "ways" => [{ "id" => "from-above", "through" => over.call(n) }]
        }
      end
    profile = Client.as("owner@merrow.example").call(:get, "/api/engines/YUX8").last["profile"]
    profile.merge(
      "code" => "WEB12",
      "name" => "Lengthwise V12",
      "steps" => steps,
      "targets" => targets,
      "coils" => [],
      "cylinders" =>
        numbers.map { |n| { "number" => n, "bank" => n.even? ? "left" : "right", "position" => (n + 1) / 2 } }
    )
  end

  it "stays legible with twelve cylinders and fourteen layers, and takes numbers above nine by 0 and a digit" do
    client = Client.as("owner@merrow.example")
    client.call(:post, "/api/engines", large_engine)
    car =
      client.call(
        :post,
        "/api/vehicles",
        { plate: "EV 12", description: "Grendle Twelve", engine_code: "WEB12", year: 2012 }
      ).last
    visit "/quotes/#{client.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last["quote"]["id"]}"
    expect(page).to have_css("button[aria-label^='Cylinder 12,']")
    press("0", "2", "3")
    total
    expect(all("button[aria-label^='Cylinder'][aria-pressed=true]").map(&:text)).to match_array(%w[3 12])
    expect(page).to have_css("tr", text: "Layer number 14 of the intake")
    [[1280, 800], [820, 1180], [390, 844]].each do |width, height|
      size(width, height)
      expect([overflow, page.execute_script(OVERLAPS), page.execute_script(CHIPS)]).to eq([0, 0, 0])
    end
    accessible
  end

  it "keeps every engine's page in the library within its width, and its drawing clear" do
    CARS.each_key do |code|
      visit "/engines/#{code}"
      expect(page).to have_css("h1", text: code)
      expect([overflow, page.execute_script(CHIPS)]).to eq([0, 0]).or(eq([-1, 0])), code
    end
  end

  it "shows the same figures everywhere" do
    id = made_quote("4-TRE-1M", [5])
    client = Client.as("advisor@merrow.example")
    quote = client.call(:get, "/api/quotes/#{id}").last
    open_page(id)
    shown = total
    estimate = quote["sheet"]["estimate"]
    minutes = estimate["plan"]["minutes"]
    expect(shown).to eq(money(estimate["price"]["total_cents"]))
    expect(page).to have_text(
      "#{minutes["remove"].round} min off, #{minutes["work"].round} work, #{minutes["refit"].round} on"
    )
    expect(find("[aria-label=Layers] + p")).to have_text("#{minutes["remove"].round} min")
    expect(page).to have_text("quoted #{estimate["hours"]["quoted"]} h")
    expect(page).to have_text("of the #{estimate["hours"]["quoted"]} hours")
    expect(cylinder(5)["aria-label"]).to include("#{estimate["hours"]["quoted"]} hours if done alone")
    strokes = quote["sheet"]["descent"]["strokes"]
    expect(strokes.select { |s| s["kind"] == "remove" }.sum { |s| s["minutes"] }).to be_within(1e-6).of(
      minutes["remove"]
    )
    expect(all("svg .stroke").size).to eq(strokes.size)
  end

  it "answers why for hours and parts" do
    open_page(made_quote("4-TRE-1M", [5]))
    total
    click_button "quoted: why?"
    expect(page).to have_css("[role=dialog] td", text: "Upper intake manifold")
    accessible
    press(:escape)
    click_button "for Upper manifold seal: why?"
    expect(page).to have_css("[role=dialog]", text: "Needed for: Upper intake manifold")
  end

  it "is in miles and pounds for a shop that is, with long names" do
    click_button "Sign out"
    expect(page).to have_field("E-mail")
    sign_in "owner@hollow.example"
    open_quote "6-MOR-1H"
    press("5")
    expect(total).to start_with("£")
    expect(page).to have_text(/\d mi ·/)
    expect(overflow).to be <= 0
  end
end
