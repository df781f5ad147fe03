# frozen_string_literal: true

require_relative "spec_helper"

# What do I charge? From a finished card to a bill that is issued, paid in part, put right and paid.
RSpec.describe "the bill", type: :feature do
  def client = Client.as("advisor@merrow.example")

  # A job that was worked to its end, one plug broken on the way.
  def finished(plate, cylinders)
    id = made_quote(plate, cylinders, works: %w[plug])
    client.save(id)
    given = { revision: 1, channel: "phone", recipient: "Ines Calloway" }
    offer = client.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    limit = offer["scopes"].first["limit_cents"]
    said = { position: 0, answer: "yes", how: "phone", name: "Ines Calloway", limit_cents: limit }
    job = client.call(:post, "/api/offers/#{offer["id"]}/answers", said).last["job"]
    hand_in(job)
    client.call(:post, "/api/jobs/#{job["id"]}/hand-over", {})
    job
  end

  def hand_in(job)
    at = Time.now.utc - 3600
    pieces = client.call(:get, "/api/jobs/#{job["id"]}").last["sheet"]["pieces"]
    kinds = [["start", {}], *pieces.flat_map { |piece| of_piece(piece) }, ["finished", {}]]
    marks = kinds.map.with_index { |(kind, values), i| { id: "b#{i}", at: (at + i).iso8601(3), kind: kind, **values } }
    body = client.call(:post, "/api/jobs/#{job["id"]}/marks", { device: "tablet", marks: marks }).last
    expect(body["refused"]).to eq([])
  end

  # What is marked on a piece: its ticks, its plugs out and in, that it is done.
  def of_piece(piece)
    id = piece["id"]
    ticks = (piece["ticks"] || []).map { |tick| ["tick", { piece: id, item: tick["item"] }] }
    acts =
      (piece["acts"] || []).flat_map { |act| piece["plugs"].map { |plug| of_plug(act["act"], plug["target"], id) } }
    [*ticks, *acts.compact, ["check", { piece: id }]]
  end

  def of_plug(act, plug, piece)
    return "out", { plug: plug, outcome: "broken" } if act == "out"

    ["in", { plug: plug, how: "torque", piece: piece }] if act == "in"
  end

  it "stands on the Counter, is issued, paid in part, put right by a credit note and paid in full" do
    job = finished("4-TRE-1M", [5])
    sign_in
    within("section[aria-label='Handed over, to bill']") { click_button("Bill", exact: false) }
    expect(page).to have_text("Plug 5 broke")
    expect(page).to have_css("tr", text: "what happened")
    accessible
    fill_in "Address", with: "3 Quay Street, Merrow"
    click_button("Issue it at", exact: false)
    expect(page).to have_css("h1", text: "Bill 2001")
    expect(page).to have_text("to pay by")
    accessible
    fill_in "Paid now", with: "100", exact: false
    click_button("Note it")
    expect(page).to have_css("section[aria-label='Paid'] li", text: "100.00")

    click_button("Put it right by a credit note")
    fill_in "Why", with: "made out to the wrong name"
    click_button("Issue the credit note")
    expect(page).to have_link("Credit note 2002")
    fill_in "To", with: "Calloway Boats", exact: true
    click_button("Issue it at", exact: false)
    expect(page).to have_css("h1", text: "Bill 2003")
    click_button("Note it")
    expect(page).to have_text("Paid in full")
    accessible
    visit "/"
    expect(page).to have_css("h1", text: "what needs you")
    expect(page).to have_no_css("section[aria-label='Handed over, to bill']", text: job["title"])
  end
end
