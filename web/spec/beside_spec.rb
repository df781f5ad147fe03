# frozen_string_literal: true

require_relative "spec_helper"

# Scopes held against each other, and what an advisor sets by hand.
RSpec.describe "side by side, and by hand", type: :feature do
  before { sign_in }

  it "puts scopes side by side with one key, the same figures as on their own pages, and back" do
    id = made_quote("4-TRE-1M", [5], works: %w[coil])
    open_page(id)
    one = total
    press("n")
    expect(page).to have_text("2 of 2")
    press("1", "3")
    expect(page).to have_css("button[aria-label^='Cylinder 3,'][aria-pressed=true]")
    three = total
    press("=")
    expect(page).to have_text("Both days together")
    expect(page).to have_css("tr.total .sum", text: one)
    expect(page).to have_css("tr.total .sum", text: three)
    expect(page).to have_css("th[aria-current=true]", text: "Scope 2, on the page")
    accessible
    expect(overflow).to be <= 0
    left = find("tr", text: "Left for another day").all("td").map(&:text)
    expect(left).to match([/\A\d\.\d h, \+[\d,.]+\z/, "nothing"])
    within("section[aria-label='The months after']") { expect(page).to have_text("Over 24 months") }
    expect(page).to have_css("tr", text: "No comeback in 24 months")
    choose_from("Looked ahead", "60 months")
    expect(page).to have_css("tr", text: "No comeback in 60 months")
    within("section[aria-label='The months after']") { expect(page).to have_text("Over 60 months") }
    click_button "Tell the customer"
    expect(page).to have_css("button[aria-pressed=true]", text: "Tell the customer")
    click_button "Work on scope 1"
    expect(page).to have_css("th[aria-current=true]", text: "Scope 1, on the page")
    expect(total).to eq(one)
    press("=")
    expect(page).to have_text("What lies over each cylinder")
    expect(total).to eq(one)
  end

  it "takes a third scope and turns between them by mouse, with the keys switched off" do
    open_page(made_quote("4-TRE-1M", [5], works: %w[coil]))
    press("?")
    find("label", text: "Single keys").click
    press(:escape)
    click_button "Another scope"
    expect(page).to have_text("2 of 2")
    click_button "another scope"
    expect(page).to have_text("3 of 3")
    expect(page).to have_no_button("another scope")
    click_button "Next"
    expect(page).to have_text("1 of 3")
    click_button "side by side"
    expect(page).to have_text("Both days together")
    click_button "Drop"
    expect(page).to have_text("1 of 2")
    page.execute_script("localStorage.removeItem('nimble-keys')")
  end

  it "follows a digit typed while the scopes stand side by side" do
    id = made_quote("4-TRE-1M", [5], works: %w[coil])
    open_page(id)
    press("n")
    expect(page).to have_text("2 of 2")
    press("=")
    expect(page).to have_css("thead th", text: "Scope 2, on the page\nCoil 5")
    press("3")
    expect(page).to have_css("thead th", text: "Scope 2, on the page\nCoils 3 and 5")
    expect(page).to have_css("tr.total .sum", text: total)
  end

  it "quotes other hours with a reason, keeps the computed ones in sight, and sets them aside for other work" do
    id = made_quote("4-TRE-1M", [5], works: %w[coil])
    open_page(id)
    computed = total
    press("j")
    fill_in "Hours to quote", with: "2.0"
    click_button "Set"
    expect(page).to have_text("Say why the hours differ from the computed ones.")
    accessible
    fill_in "Because", with: "cowl is off already"
    fill_in "Discount, USD", with: "15.00"
    fill_in "Called on the quote", with: "Goodwill"
    click_button "Set"
    expect(page).to have_css("dt", text: "Computed cowl is off already")
    expect(page).to have_css("dt", text: "Goodwill")
    own = total
    expect(own).not_to eq(computed)
    click_button "quoted: why?"
    expect(page).to have_css("[role=dialog]", text: "2.0 h is set by hand: cowl is off already.")
    press(:escape)
    expect(page).to have_no_css("[role=dialog]")
    press("3")
    expect(page).to have_text(/−0\.\d h was for other work/)
    press("3")
    expect(page).to have_css("dt", text: "Computed cowl is off already")
    expect(total).to eq(own)
    press("s")
    expect(page).to have_text("revision 1 saved")
    pdf = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}/print.pdf").last
    text = PDF::Inspector::Text.analyze(pdf).strings.join(" ")
    expect(text).to include("Goodwill").and include("2.0 h").and include(own)
    press("j")
    click_button "As computed, no discount"
    expect(page).to have_no_css("dt", text: "Goodwill")
    expect(total).to eq(computed)
  end

  it "takes other work and free parts by hand: on the page, in the total, on the paper, and off again" do
    id = made_quote("4-TRE-1M", [5])
    open_page(id)
    plain = total
    press("+")
    expect(page).to have_css("[role=dialog]", text: "Other work, and parts by hand")
    click_button "Put on the quote"
    expect(page).to have_text("Say what it is: the customer reads it.")
    accessible
    fill_in "What it is", with: "Wheel bearing, front left"
    fill_in "Hours", with: "1.5"
    click_button "Put on the quote"
    expect(page).to have_css("li", text: "Wheel bearing, front left 1.5 h ×")
    choose_from("Kind", "Part")
    fill_in "What it is", with: "Wiper"
    fill_in "Pieces", with: "2"
    fill_in "Each, USD", with: "12.50"
    click_button "Put on the quote"
    expect(page).to have_css("li", text: "Wiper 2 × 12.50")
    click_button "Done"
    expect(page).to have_css("dt", text: "Wheel bearing, front left")
    expect(page).to have_css("dt", text: "Wiper 2 × 12.50")
    more = total
    expect(more).not_to eq(plain)
    press("s")
    expect(page).to have_text("revision 1 saved")
    pdf = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}/print.pdf").last
    text = PDF::Inspector::Text.analyze(pdf).strings.join(" ")
    expect(text).to include("Wheel bearing, front left").and include("Wiper").and include(more)
    press("+")
    2.times { first(:button, "Take off", exact: false).click }
    press(:escape)
    expect(page).to have_no_css("dt", text: "Wiper")
    expect(total).to eq(plain)
  end

  it "prints from the browser what the paper says: every scope with its lines, its total and what could happen" do
    id = made_quote("5-TOW-4I", (1..8).to_a, works: %w[plug])
    open_page(id)
    press("f")
    click_button "No soak"
    total
    press("n")
    expect(page).to have_text("2 of 2")
    press("c")
    expect(page).to have_css("button[aria-pressed=true]", text: "Coil")
    both = total
    press("s")
    expect(page).to have_text("revision 1 saved")
    visit "/quotes/#{id}/revisions/1"
    expect(page).to have_css("h2", text: "A Plugs 1 to 8")
    expect(page).to have_css("h2", text: "B Plugs and coils 1 to 8")
    expect(page).to have_css("tr.total", text: both)
    accessible
    pdf = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}/print.pdf").last
    paper = PDF::Inspector::Text.analyze(pdf).strings.join(" ")
    limits = all("tr.limit td:last-child").map(&:text)
    expect(limits.size).to eq(2)
    expect(paper).to include(*limits, *all("tr.total td:last-child").map(&:text))
    expect(page).to have_text("If 3 plugs break", count: 2)
  end
end
