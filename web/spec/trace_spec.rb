# frozen_string_literal: true

require_relative "spec_helper"

# Finding the fault on the page: from what the customer says to the part, the scope and the words.
RSpec.describe "finding the fault", type: :feature do
  before do
    size(1280, 800)
    sign_in
  end

  def share(number) = find("button[aria-label^='Cylinder #{number},']")["aria-label"][/(\d+) % likely/, 1].to_i

  def opened(plate, code)
    open_quote(plate)
    press(";")
    expect(page).to have_text("Where it may be")
    fill_in "or type them", with: "#{code}\t"
    expect(page).to have_css("section[aria-label='What to do now']")
  end

  it "goes from a code to the coil that the fault goes with, its scope and the words, and keeps all of it" do
    open_quote("0-PAR-7M")
    press(";")
    expect(page).to have_text("Where it may be")
    accessible
    fill_in "In the customer's words", with: "It shakes when I pull away"
    choose_from("The lamp is", "blinking")
    expect(page).to have_css(".stop", text: "do not drive it")
    fill_in "or type them", with: "P0303 P0420\t"
    expect(page).to have_text("never sell one for it")
    expect(page).to have_css("button[aria-label^='Cylinder 3,'][aria-label*='9']")
    expect(page).to have_css("section[aria-label='Guess or know']", text: "Renew now: Coil 3")
    accessible
    click_button "Something else"
    choose_from("What was done", "Exchange coil")
    choose_from("At cylinder", "3")
    choose_from("With", "2")
    choose_from("It showed", "went along")
    click_button "Write it down"
    expect(page).to have_text("Exchange coil 3 with 2: went along")
    expect(page).to have_css(
      "section[aria-label='What to do now'] h3",
      text: /It is known: Coil 2 mends it in \d\d of 100 such cars\. Coil 3 sits there now\./
    )
    expect(page).to have_text("The coil of 3 sits at 2 now: number it")
    expect(page).to have_text("We exchanged the coil of cylinder 3 with that of 2, and the fault went with it.")
    accessible
    page.refresh
    expect(page).to have_text("Exchange coil 3 with 2: went along")
    click_button "To the quote"
    expect(page).to have_text("What lies over each cylinder")
    expect(cylinder(2)["aria-pressed"]).to eq("true")
    expect(page).to have_css("button[aria-pressed=true]", text: "Coil")
  end

  it "knows that exchanged parts are back where they came from, and what the exchange showed all the same" do
    opened("0-PAR-7M", "P0303")
    click_button "Something else"
    choose_from("What was done", "Exchange coil")
    choose_from("At cylinder", "3")
    choose_from("With", "2")
    choose_from("It showed", "went along")
    click_button "Write it down"
    expect(page).to have_css("section[aria-label='What to do now'] h3", text: "It is known: Coil 2 mends it")
    click_button "Exchange coil 3 with 2: put back"
    expect(page).to have_css("section[aria-label='What to do now'] h3", text: "It is known: Coil 3 mends it")
    expect(page).to have_no_text("sits at 2 now")
    expect(page).to have_text("Exchange coil 3 with 2: went along")
  end

  it "asks for the test that tells most for its minutes, writes its outcome with one press, and takes it back" do
    opened("0-PAR-7M", "P0302")
    before = share(2)
    asked = find("section[aria-label='What to do now'] h3").text
    within("section[aria-label='What to do now']") { all("button").first.click }
    expect(page).to have_css("section[aria-label='What we know'] li", text: asked)
    expect(page).to have_no_css("section[aria-label='What to do now'] h3", text: asked, exact_text: true)
    find("button[aria-label^='Take back: #{asked}']").click
    expect(page).to have_css("section[aria-label='What to do now'] h3", text: asked, exact_text: true)
    expect(share(2)).to eq(before)
  end

  it "says on a buried cylinder that guessing is fairer than knowing" do
    opened("4-TRE-1M", "P0303")
    click_button "Something else"
    choose_from("What was done", "Balance injector")
    choose_from("At cylinder", "3")
    choose_from("It showed", "good")
    click_button "Write it down"
    expect(page).to have_css("section[aria-label='Guess or know']", text: "Knowing costs more than it saves")
    expect(page).to have_text("upper intake manifold")
  end

  { "5-TOW-4I" => "P0308", "2-NET-8H" => "P0301", "3-GAN-14" => "P0302" }.each do |plate, code|
    it "fits every width, by day and by night, for #{plate}" do
      opened(plate, code)
      [[1280, 800], [820, 1180], [640, 400], [390, 844]].each do |width, height|
        size(width, height)
        expect([width, overflow]).to match([width, be <= 0])
      end
      page.execute_script("document.documentElement.dataset.chart = 'night'")
      accessible
    end
  end
end
