# frozen_string_literal: true

require_relative "spec_helper"

# Several ways to one job: which is in force, why, what the other would take; pins; what the shop lacks.
RSpec.describe "routes", type: :feature do
  before { sign_in "owner@merrow.example" }

  def route = find("[data-testid=route]").text

  def stored(id) = Client.as("owner@merrow.example").call(:get, "/api/quotes/#{id}").last

  def tilted(cylinders = [5]) =
    made_quote("8-BUS-3M", cylinders, works: %w[plug wire], email: "owner@merrow.example").tap { |id| open_page(id) }

  it "says in one line which route is in force, why, and what the other would cost" do
    id = tilted
    total
    other = stored(id)["sheet"]["routes"][0]["options"][1]
    expect(route).to include(
      "Route: from beneath, the least work. Engine tilted: +#{other["added_hours"]} h, " \
        "+#{shop_text.plain(other["added_cents"])}"
    )
  end

  it "says a near tie with what it spares, and takes it in one press" do
    id = made_quote("1-COD-2H", [2], works: %w[coil], email: "owner@merrow.example")
    open_page(id)
    tie = stored(id)["sheet"]["estimate"]["plan"]["near_ties"].first
    expect(tie["spares"]).to include("battery")
    expect(page).to have_text("A near tie: #{tie["extra_minutes"].round} min more, the battery stays on.")
    accessible
    click_button "take that way"
    expect(page).to have_button("let go of the pin", exact: false)
    expect(page).to have_no_text("A near tie")
    expect(stored(id)["sheet"]["estimate"]["plan"]["choices"]).to eq(tie["choices"])
  end

  it "says nothing of routes where there is one way only" do
    open_page(made_quote("0-PAR-7M", [1], email: "owner@merrow.example"))
    total
    expect(page).to have_no_css("[data-testid=route]")
    press("x")
    expect(page).to have_text("There is one way to this job.")
  end

  it "pins a route by keyboard and mouse, shows the pin, draws the new layers, and lets go of it" do
    id = tilted
    free = total
    other = stored(id)["sheet"]["routes"][0]["options"][1]
    press("x")
    expect(page).to have_text("dashed: engine tilted")
    accessible
    click_button "Pin Engine tilted"
    expect(page).to have_css("[data-testid=route]", text: "Route: engine tilted, pinned by you.")
    expect(total).to eq(money(other["total_cents"]))
    expect(stored(id)["draft"]["content"]["scopes"][0]["pins"]["ways"]).to eq(
      "plug-5" => "engine-tilted",
      "wire-5" => "engine-tilted"
    )
    press("y")
    expect(page).to have_css("td", text: "Upper engine mounts, engine tilted forward")
    press("z")
    expect(page).to have_css("[data-testid=route]", text: "Route: from beneath, the least work.")
    expect(total).to eq(free)
  end

  it "keeps a pin over a reload and into the saved revision" do
    id = tilted
    total
    press("x")
    click_button "Pin Engine tilted"
    expect(page).to have_css("[data-testid=route]", text: "pinned by you")
    pinned = total
    visit current_path
    expect(page).to have_css("[data-testid=route]", text: "pinned by you")
    expect(total).to eq(pinned)
    press("s")
    expect(page).to have_text("revision 1 saved")
    request = Client.as("owner@merrow.example").call(:get, "/api/quotes/#{id}/revisions/1").last["scopes"][0]["request"]
    expect(request["pins"]["ways"]).to include("plug-5" => "engine-tilted")
  end

  it "takes the other route by itself when the job grows" do
    tilted
    total
    press("1", "3")
    expect(page).to have_css("[data-testid=route]", text: "Route: engine tilted, the least work.")
    expect(page).to have_css("button[aria-label^='Cylinder 1,'][aria-label*='from beneath']")
  end

  it "shows what the shop lacks, and an impossible job names what would open it" do
    before = owned
    visit "/house"
    click_switch "strap and block"
    tilted
    total
    expect(route).to include("the only one possible here", "but the shop has no strap and block")
    visit "/house"
    click_switch "two-post lift"
    tilted
    expect(page).to have_css("[role=alert]", text: "Plug 5 cannot be reached with what the shop has.")
    expect(page).to have_css("[role=alert] li", text: "Engine tilted: takes strap and block")
    expect(page).to have_css("[role=alert] li", text: "From beneath: takes two-post lift")
    expect(page).to have_css("button[aria-label^='Cylinder 5,'][aria-label*='no way to it']")
    accessible
  ensure
    keep(before)
  end

  def owner = @owner ||= Client.as("owner@merrow.example")
  def house = owner.call(:get, "/api/house").last
  def owned = house["equipment"].select { |row| row["owned"] }.map { |row| row["id"] }
  def keep(list) = owner.call(:put, "/api/house/equipment", { equipment: list, revision: house["revision"] })

  def click_switch(label)
    find("label", text: /\A(here|not here)\s*#{label}/).click
    expect(page).to have_css("label", text: /\Anot here\s*#{label}/)
  end

  it "opens the parts to have at hand, with their chances" do
    open_page(made_quote("7-LUX-7M", [6], email: "owner@merrow.example"))
    total
    press("q")
    expect(page).to have_css("[role=region][aria-label=Parts]", text: "To have at hand, billed only if used")
    expect(find("tr", text: "HOS-97361")).to have_text("1 in 14")
    accessible
  end

  it "answers why a layer comes off: who needs it, its minutes, its multipliers and their source" do
    open_page(made_quote("2-RNK-1T", [6], email: "owner@merrow.example"))
    total
    click_button "for Plenum over the front bank: why?"
    within("[role=dialog]") do
      expect(page).to have_text("Needed for plug 6 and coil 6.")
      expect(page).to have_text("It lies over cylinders 2, 4 and 6.")
      expect(page).to have_text("× 1.15 light rust (house setting)")
    end
    accessible
    press(:escape)
    click_button "quoted: why?"
    expect(page).to have_css("[role=dialog] td", text: /Plug 6 work through engine cover, air duct/)
  end

  it "says which layers are shared and which serve one cylinder only" do
    open_page(made_quote("6-GLD-0M", [5, 6], email: "owner@merrow.example"))
    total
    expect(find("tr", text: "Wiper arms and cowl tray")).to have_text("shared")
    expect(find("tr", text: "Harness bracket over the last coil")).to have_text("only 6")
  end

  it "gives no two things one key, on any screen, and lists them all" do
    id = tilted
    total
    screens = ["/quotes/#{id}", "/", "/engines", "/house"]
    screens.each do |path|
      visit path
      click_button "Keys"
      expect(page).to have_css("[role=dialog] li kbd")
      keys = all("[role=dialog] li kbd").map(&:text)
      expect(keys.uniq).to eq(keys), path
      press(:escape)
    end
  end

  it "keeps the running balance in sight where the page is narrow, and true" do
    size(820, 1180)
    tilted
    sum = total
    balance = find("strong", text: sum)
    bottom = page.evaluate_script("arguments[0].getBoundingClientRect().bottom", balance)
    expect(bottom).to be <= 1180
    press("1")
    expect(page).to have_css("strong", text: /\$/)
    expect(find("strong", text: total)).to be_visible
  end

  it "tells the second of two owners who change the equipment" do
    visit "/house"
    expect(page).to have_css("label", text: "coil puller")
    keep(owned)
    find("label", text: "coil puller").click
    expect(page).to have_css("[role=alert]", text: "The house settings were changed meanwhile.")
    expect(page).to have_css("label", text: /\Ahere\s*coil puller/)
    find("label", text: "coil puller").click
    expect(page).to have_css("label", text: /\Anot here\s*coil puller/)
    find("label", text: "coil puller").click
    expect(page).to have_css("label", text: /\Ahere\s*coil puller/)
  end
end
