# frozen_string_literal: true

require_relative "spec_helper"

# Nothing is a dead end: what does not bind a customer is taken back in place, what does with a reason.
RSpec.describe "taking back", type: :feature do
  def agreed(plate, cylinders)
    id = made_quote(plate, cylinders)
    client = Client.as("advisor@merrow.example")
    client.save(id)
    given = { revision: 1, channel: "phone", recipient: "Ines Calloway" }
    offer = client.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    limit = offer["scopes"].first["limit_cents"]
    said = { position: 0, answer: "yes", how: "phone", name: "Ines Calloway", limit_cents: limit }
    [id, client.call(:post, "/api/offers/#{offer["id"]}/answers", said).last["job"]]
  end

  it "strikes a yes that was kept by mistake, with a reason, and offers again" do
    id, job = agreed("4-TRE-1M", [5])
    sign_in
    visit "/quotes/#{id}/yes"
    click_button("This yes was kept by mistake")
    expect(page).to have_button("Strike it", disabled: true)
    accessible
    fill_in "Why", with: "kept on the wrong quote"
    click_button("Strike it")
    expect(page).to have_text("Struck: kept on the wrong quote")
    expect(page).to have_text("Nothing is agreed to on job #{job["number"]} any more")
    expect(page).to have_text("What is offered")
    click_button("Read out")
    expect(page).to have_css("blockquote", text: "May we go ahead")
    accessible
    visit "/bay"
    expect(page).to have_no_text("job #{job["number"]}")
  end

  it "calls a job off and takes it up again in two presses" do
    id, job = agreed("4-TRE-1M", [5])
    sign_in
    visit "/quotes/#{id}/yes"
    click_button("The customer calls job #{job["number"]} off")
    fill_in "Why", with: "the car was sold"
    find_field("Why").send_keys(:enter)
    expect(page).to have_text("Job #{job["number"]} is called off: the car was sold")
    click_button("Take it up again")
    expect(page).to have_button("The customer calls job #{job["number"]} off")
    visit "/"
    expect(page).to have_css("section[aria-label='Agreed, for the bay']", text: "job #{job["number"]}")
  end

  it "shows where every quote stands, puts a draft away and brings it back in place" do
    id = made_quote("4-TRE-1M", [2])
    number = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}").last["quote"]["number"]
    sign_in
    click_button("All cars and quotes")
    row = find("li", text: "Quote #{number}")
    expect(row).to have_text("draft")
    row.click_button("Put away", exact: false)
    expect(page).to have_text("Quote #{number} for 4-TRE-1M is put away")
    expect(page).to have_no_css("li", text: "Quote #{number}")
    accessible
    click_button("Bring it back")
    expect(find("li", text: "Quote #{number}")).to have_text("draft")
    accessible
  end

  it "opens a car with all it has, and starts nothing by looking" do
    _, job = agreed("4-TRE-1M", [5])
    before = Client.as("advisor@merrow.example").call(:get, "/api/quotes").last["quotes"].size
    sign_in
    search("4-tre")
    click_link("Car 4-TRE-1M")
    expect(page).to have_css("section[aria-label='Its quotes and jobs'] li", text: "agreed")
    accessible
    expect(Client.as("advisor@merrow.example").call(:get, "/api/quotes").last["quotes"].size).to eq(before)
    within(find("section[aria-label='Its quotes and jobs']")) { click_link("Card", exact: false, match: :first) }
    expect(page).to have_text("job #{job["number"]}")
  end

  it "keeps a no in sight until it was read" do
    id = made_quote("4-TRE-1M", [5])
    client = Client.as("advisor@merrow.example")
    client.save(id)
    given = { revision: 1, channel: "phone", recipient: "Ines Calloway" }
    offer = client.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    said = { position: 0, answer: "no", how: "phone", name: "Ines Calloway", reason: "we sell the car" }
    client.call(:post, "/api/offers/#{offer["id"]}/answers", said)
    sign_in
    row = find("section[aria-label='They said no'] li", text: "we sell the car")
    row.click_button("Read", exact: false)
    expect(page).to have_no_text("we sell the car")
  end
end
