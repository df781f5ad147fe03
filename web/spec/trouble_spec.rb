# frozen_string_literal: true

require_relative "spec_helper"

# Trouble on the page: what may fight back, what a soak does, what the customer is covered for.
RSpec.describe "trouble on the Quote page", type: :feature do
  before do
    sign_in
    @plate = another_car("5-TOW-4I")
    @id = made_quote(@plate, [7, 8], works: ["plug"])
    open_page(@id)
    total
  end

  def sheet = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{@id}").last["sheet"]

  it "states the allowance, the limit and the pick-up under the total" do
    trouble = sheet["trouble"]
    plain = ->(cents) { money(cents).delete_prefix("$") }
    expect(page).to have_text("If a plug breaks")
    expect(page).to have_text("+#{plain.call(trouble["allowance"].first["extra_cents"])}")
    expect(page).to have_text("Not above, without a call")
    expect(page).to have_text(plain.call(trouble["not_above_cents"]))
    expect(page).to have_text(/Ready when here by .*\d+:\d\d/m) # with all that stands on the board
    expect(page).to have_text("no trouble on the way: #{(trouble["no_trouble"] * 100).round} of 100 such jobs")
  end

  it "opens the soak comparison by key, marks the recommended one, and re-prices when one is chosen" do
    before = sheet["estimate"]["hours"]["mean_minutes"]
    press("f")
    expect(page).to have_button("Crack and soak")
    expect(page).to have_css("tr[data-best]", count: 1)
    expect(page).to have_text("On the shelf before starting")
    accessible
    expect(page).to have_css("tr[data-best] button[aria-pressed=true]")
    click_button "No soak"
    expect(page).to have_css("button[aria-pressed=true]", text: "No soak")
    shown = total
    without = sheet["estimate"]
    expect(without["hours"]["mean_minutes"]).to be < before # the hours that are quoted may round to the same
    expect(shown).to eq(money(without["price"]["total_cents"]))
    click_button "Crack and soak"
    expect(page).to have_css("button[aria-pressed=true]", text: "Crack and soak")
    total
    expect(sheet["estimate"]["plan"]["waits"]).to eq(40)
    expect(page).to have_text("and 40 waiting")
    press("y")
    expect(page).to have_text("Off, in this order")
  end

  it "re-prices at once when the history turns out different, and refuses what cannot be" do
    calm = sheet["trouble"]["no_trouble"]
    press("k")
    fill_in "Plugs last changed at, km", with: "200000"
    fill_in "Years since", with: "1"
    click_button "Done"
    expect(page).to have_text("new plugs at 200,000 km, 1 year ago")
    total
    expect(sheet["trouble"]["no_trouble"]).to be > calm
    press("k")
    fill_in "Plugs last changed at, km", with: "900000"
    find_field("Years since").click
    within("[role=dialog]") do
      expect(page).to have_css(
        "[role=alert]",
        text: /The plugs cannot have been changed at 900,000 km: the odometer is at [\d,]+ km\./
      )
    end
  end

  it "cools a hot engine before it promises" do
    press("f")
    click_button "No soak"
    total
    cold = sheet["ready"]
    press("k")
    choose_from "Arrives", "Hot: has to cool"
    fill_in "Years since", with: "9,5"
    find_field("Odometer, km").click
    expect(page).to have_text("9,5 was not taken: write decimals like 9.5.")
    accessible
    press(:escape)
    expect(page).to have_text("188 min to cool")
    expect(sheet["ready"]).to be > cold
  end

  it "notes what was learned on the vehicle, so that its next quote starts from it" do
    press("k")
    fill_in "Plugs last changed at, km", with: "150000"
    fill_in "Years since", with: "3"
    fill_in "Plugs now in it", with: "a cheaper grade"
    fill_in "Where the car lives", with: "beach and quay"
    click_button "Note it on the vehicle"
    expect(page).to have_text("Noted: the next quote of this car starts from it.")
    accessible
    click_button "Done"
    visit "/"
    open_quote @plate
    expect(page).to have_text("new plugs at 150,000 km, 3 years ago")
    press("k")
    expect(page).to have_field("Plugs now in it", with: "a cheaper grade")
    expect(page).to have_field("Where the car lives", with: "beach and quay")
  end
end
