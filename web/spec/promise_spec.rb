# frozen_string_literal: true

require_relative "spec_helper"

# A promise from the phone to the day it is kept anew: a time is taken on the quote, the car comes hot, the promise
# sinks, the customer is called, another time is promised, and their page says it.
RSpec.describe "a promise of when", type: :feature do
  before { TestServer.db[:bookings].where(ended_at: nil).update(ended_at: Time.now) }
  after { TestServer.db[:bookings].where(ended_at: nil).update(ended_at: Time.now) }

  let(:advisor) { Client.as("advisor@merrow.example") }

  # The last that is offered is a morning: whatever the hour is now, cooling comes out of that day.
  def take_a_morning(id)
    open_page(id)
    total
    expect(page).to have_css("dt", text: /\AReady when here by/)
    press("/")
    within("[role=dialog]") { all("button", text: "Take", minimum: 3).last.click }
    expect(page).to have_css("[role=dialog]", text: /Bring it .*, ready .*/)
    press(:escape)
  end

  # @return [Hash] the offer that was agreed to
  def agree(id)
    advisor.save(id)
    given = { revision: 1, channel: "text", recipient: "Ines Calloway", address: "555 0101" }
    offer = advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    yes = { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][0]["limit_cents"] }
    advisor.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
    offer
  end

  def promised(id) = advisor.call(:get, "/api/quotes/#{id}/when").last["booking"]["promise"]

  it "is taken on the phone, sinks when the car comes hot, is told, and promised anew" do
    plate = another_car("4-TRE-1M")
    sign_in
    id = made_quote(plate, [5], works: %w[plug])
    take_a_morning(id)
    offer = agree(id)
    job = TestServer.db[:jobs].where(quote_id: id).get(:id)
    first = promised(id)
    visit "/bay/#{job}"
    click_button "hot, just driven"
    expect(page).to have_css("h2", text: /Cold at/)
    visit "/"
    expect(page).to have_css("section", text: /Will not be ready in time.*#{plate}/m)
    visit "/day"
    expect(page).to have_text(/Call .* holds \d+ times in 100\./)
    click_button "Called"
    expect(page).to have_no_text(/Call .* holds/)
    press("v") if page.has_text?("as a list", wait: 1)
    find("td button", text: plate).click
    find("button", text: /\APromise /).click
    expect(page).to have_no_css("button", text: /\APromise /)
    expect(promised(id)).to be > first
    size(390, 844)
    visit URI(offer["link"]).path
    shop = NimbleServer::Shop.new(TestServer.db, TestServer.db[:quotes].where(id: id).get(:shop_id))
    expect(page).to have_css(".time", text: shop.text.moment(promised(id)))
    expect(page).to have_css(".time", text: "This stands since")
    accessible
  end
end
