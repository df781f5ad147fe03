# frozen_string_literal: true

require_relative "spec_helper"

# What the shop knows of cars, and what it learns of them.
RSpec.describe NimbleServer::Features::Vehicles::Garage do
  let(:advisor) { Client.as("advisor@merrow.example") }

  # A car of its own.
  def car(plate) =
    advisor.call(
      :post,
      "/api/vehicles",
      { plate: plate, description: "Pellwick Breve", engine_code: "SK18", year: 2012, odometer_km: 90_000 }
    ).last

  def note(id, body) = advisor.call(:put, "/api/vehicles/#{id}/history", body)

  it "starts the next quote from what was noted" do
    id = car("EV GAR1")["id"]
    before = advisor.call(:post, "/api/quotes", { vehicle_id: id }).last["resolved"]
    expect(before["assumed"]).to eq(%w[plugs_changed_km plugs_changed_years compound_used])
    status, card =
      note(
        id,
        {
          odometer_km: 120_000,
          plugs_changed_km: 60_000,
          plugs_changed_years: 4.5,
          compound_used: true,
          corrosion: "heavy",
          lives: "harbor wall",
          plug_fitted: "a cheaper grade"
        }
      )
    expect(
      [
        status,
        card.values_at(
          "odometer_km",
          "plugs_changed_km",
          "plugs_changed_years",
          "compound_used",
          "corrosion",
          "lives",
          "plug_fitted"
        )
      ]
    ).to eq([200, [120_000, 60_000, 4.5, true, "heavy", "harbor wall", "a cheaper grade"]])
    after = advisor.call(:post, "/api/quotes", { vehicle_id: id }).last["resolved"]
    expect(after).to include(
      "assumed" => [],
      "history" => {
        "odometer_km" => 120_000,
        "plugs_changed_km" => 60_000,
        "plugs_changed_years" => 4.5,
        "compound_used" => true
      }
    )
    expect(after["condition"]["corrosion"]).to eq("heavy")
  end

  it "keeps what is not mentioned, and takes unknown for an answer" do
    id = car("EV GAR2")["id"]
    note(id, { plugs_changed_km: 50_000, lives: "inland" })
    card = note(id, { plugs_changed_km: nil }).last
    expect(card.values_at("odometer_km", "plugs_changed_km", "lives")).to eq([90_000, nil, "inland"])
  end

  it "refuses a change above the odometer, with its path, and changes nothing" do
    id = car("EV GAR3")["id"]
    status, body = note(id, { plugs_changed_km: 95_000 })
    expect([status, body["error"]["details"]]).to eq(
      [422, [{ "path" => "/plugs_changed_km", "message" => "is above the odometer (90,000 km)" }]]
    )
    expect(advisor.call(:get, "/api/vehicles?search=GAR3").last["vehicles"].first["plugs_changed_km"]).to be_nil
    expect(note(id, { odometer_km: 100_000, plugs_changed_km: 95_000 }).first).to eq(200)
  end

  it "refuses the same of one cylinder, whichever of the two figures is noted later" do
    id = car("EV GAR5")["id"]
    status, body = note(id, { cylinders: { "3" => { plugs_changed_km: 95_000 } } })
    expect([status, body["error"]["message"], body["error"]["details"].first["path"]]).to eq(
      [
        422,
        "Plug 3 cannot have been changed at 95,000 km: the odometer is at 90,000 km.",
        "/cylinders/3/plugs_changed_km"
      ]
    )
    expect(note(id, { cylinders: { "3" => { plugs_changed_km: 85_000 } } }).first).to eq(200)
    expect(note(id, { odometer_km: 80_000 }).last.dig("error", "details", 0, "path")).to eq(
      "/cylinders/3/plugs_changed_km"
    )
  end

  it "says a past that cannot be true in the shop's own unit, on the card and on a quote" do
    owner = Client.as("owner@hollow.example")
    car = owner.call(:get, "/api/vehicles").last["vehicles"].first
    path = "/api/vehicles/#{car["id"]}/history"
    _status, body = owner.call(:put, path, { odometer_km: 160_934, plugs_changed_km: 321_869 })
    expect(body["error"]["message"]).to eq(
      "The plugs cannot have been changed at 200,000 mi: the odometer is at 100,000 mi."
    )
    page = owner.start_quote(car["plate"])
    page["draft"]["content"]["history"] = { "odometer_km" => 160_934, "plugs_changed_km" => 321_869 }
    status, body = owner.choose(page, [1], works: ["plug"])
    expect([status, body["error"]["message"]]).to match([400, a_string_including("200,000 mi")])
  end

  it "refuses what does not fit, and records who noted what when" do
    id = car("EV GAR4")["id"]
    [
      { odometer_km: -1 },
      { odometer_km: "far" },
      { corrosion: "much" },
      { lives: "x" * 200 },
      { speed: 1 }
    ].each { |body| expect(note(id, body).first).to eq(400), body.inspect }
    note(id, { lives: "quay" })
    row = TestServer.db[:vehicles].where(id: id).first
    expect(TestServer.db[:accounts].where(id: row[:updated_by]).get(:email)).to eq("advisor@merrow.example")
    expect(row[:updated_at]).to be_within(60).of(Time.now)
  end
end
