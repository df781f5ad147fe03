# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "a day at the counter", type: :feature do
  it "by mouse: sign in, find the car, choose, see the price, save, find it again, print" do
    visit "/"
    accessible
    sign_in
    accessible
    id = open_quote
    cylinder(5).click
    shown = total
    accessible
    expect(page).to have_text("Number 5 sits on the rear bank")
    click_button "Save"
    expect(page).to have_text("revision 1 saved")
    saved = TestServer.db[:quote_revisions].where(quote_id: id).get(:total_cents)
    expect(shown).to eq(money(saved))
    click_link "Counter"
    search("calloway")
    number = TestServer.db[:quotes].where(id: id).get(:number)
    click_button "Open quote #{number} for 4-TRE-1M"
    expect(total).to eq(shown)
    find("a", text: "revision 1 saved").click
    expect(page).to have_css("tr.total", text: shown)
    accessible
  end

  it "by keyboard alone, in at most 12 presses from the Counter to a saved, explained price" do
    sign_in
    presses = 0
    type =
      lambda do |*keys|
        keys.each do |key|
          press(key)
          presses += 1
        end
      end
    type.call("t", "r", "e")
    expect(page).to have_button("Start a quote for 4-TRE-1M", match: :first)
    expect(page).to have_no_button("Start a quote for 5-OSS-5D")
    type.call(:enter)
    expect(page).to have_text("What lies over each cylinder")
    type.call("5")
    expect(total).to match(/\$\d{3}\.\d\d/)
    type.call("e")
    expect(page).to have_css("[role=dialog]", text: "To read out")
    type.call(:escape)
    expect(page).to have_no_css("[role=dialog]")
    type.call("s")
    expect(page).to have_text("revision 1 saved")
    expect(presses).to be <= 12
  end

  it "takes Enter for the car that was typed, however quickly, and a slash for the way to the field" do
    sign_in
    press("/", *"41 tre".chars, :enter)
    expect(page).to have_text("What lies over each cylinder")
    expect(page).to have_text("4-TRE-1M")
    visit "/"
    expect(page).to have_text("what needs you")
    press(:enter)
    press("n", "o", "n", "e", " ", "s", "u", "c", "h", :enter)
    expect(page).to have_text("No vehicle matches “none such”")
    expect(page.current_path).to eq("/")
  end

  it "keeps what was entered over reload and closing, and rests its keys in fields" do
    sign_in
    id = made_quote("0-PAR-7M", [])
    open_page(id)
    press("2")
    shown = total
    visit "/"
    open_page(id)
    expect(cylinder(2)["aria-pressed"]).to eq("true")
    expect(total).to eq(shown)
    press("k")
    fill_in "Odometer, km", with: "123"
    expect(cylinder_pressed(1)).to eq("false")
  end

  def cylinder_pressed(number) =
    page.evaluate_script(
      "document.querySelector(\"button[aria-label^='Cylinder #{number},']\").getAttribute('aria-pressed')"
    )

  it "lists every key, no two the same, and switches them off" do
    sign_in
    open_page(made_quote("4-TRE-1M", [5]))
    total
    press("?")
    expect(page).to have_css("[role=dialog]", text: "Keys on this screen")
    hints = all("[role=dialog] li kbd").map(&:text)
    expect(hints.size).to be > 12
    expect(hints.uniq).to eq(hints)
    accessible
    find("[role=dialog] label", text: "Single keys").click
    click_button "Close"
    expect(page).to have_no_css("[role=dialog]")
    press("1")
    expect(cylinder(1)["aria-pressed"]).to eq("false")
    page.execute_script("localStorage.clear()")
  end
end
