# frozen_string_literal: true

require_relative "spec_helper"

# Practice: a made-up car from what its driver says to the truth, and nothing kept of it.
RSpec.describe "practice", type: :feature do
  before { size(1280, 800) }

  it "takes a car in, tests it, says what to renew and what to say, and shows the truth beside the tables' way" do
    seed = Client.as("bay@merrow.example").practice_number
    sign_in("bay@merrow.example")
    visit "/practice/#{seed}"
    expect(page).to have_css("h1", text: /shakes|runs well/)
    expect(page).to have_text("A made-up car, number #{seed} ")
    accessible
    choose_from("Do", "Look at coil and boot")
    choose_from("at", "1")
    click_button "Do it"
    expect(page).to have_css("section[aria-label='What we know'] li", text: /Look at coil and boot 1: /)
    find("button[aria-label^='Cylinder 1,']").click
    first("[role=group][aria-label=Renew] button").click
    expect(page).to have_css("aside", text: /[\d.]+ h, quoted\s*\$[\d.,]+/)
    fill_in "What would you say to the customer?", with: "Number 1 needs work"
    click_button "Show the truth"
    expect(page).to have_css("section[aria-label='How it went'] h2", text: /\AIt was the /)
    expect(page).to have_css("svg[aria-label*='The truth was held for']")
    expect(page).to have_css("li", text: /which cylinder\s*said/)
    expect(page).to have_css("li", text: /what it comes to\s*not said/)
    accessible
    [[820, 1180], [390, 844]].each do |width, height|
      size(width, height)
      expect([width, overflow]).to match([width, be <= 0])
    end
    click_button "Another car"
    expect(page).to have_no_text("A made-up car, number #{seed} ")
    expect(page).to have_text("A made-up car, number ")
  end
end
