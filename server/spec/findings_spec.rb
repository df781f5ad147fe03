# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe NimbleServer::Features::Vehicles::Findings do
  let(:advisor) { Client.as("advisor@merrow.example") }
  let(:vehicle_id) { advisor.vehicle("5-OSS-5D")["id"] }

  after { TestServer.db[:findings].where(vehicle_id: vehicle_id).delete }

  def note(given, client = advisor) = client.call(:post, "/api/vehicles/#{vehicle_id}/findings", given)

  def settle(id, client = advisor) = client.call(:post, "/api/vehicles/#{vehicle_id}/findings/#{id}/settled", {})

  it "comes up with every quote of the car, at its cylinder, with who found it and when, until it is settled" do
    note({ kind: "other", words: "owner wants the cover left off" })
    _status, body = note({ kind: "bolt-missing", cylinder: 4 })
    expect(body["findings"].map { |row| row.values_at("cylinder", "kind", "words", "by") }).to eq(
      [[4, "bolt-missing", "", "Jory Pellam"], [nil, "other", "owner wants the cover left off", "Jory Pellam"]]
    )
    second = Client.as("second@merrow.example")
    page = second.call(:post, "/api/quotes", { vehicle_id: vehicle_id }).last
    expect(page["findings"]).to eq(body["findings"])
    status, left = settle(body["findings"].first["id"], second)
    expect([status, left["findings"].map { |row| row["kind"] }]).to eq([200, ["other"]])
    expect(TestServer.db[:findings].where(kind: "bolt-missing").exclude(settled_at: nil).count).to eq(1)
    expect(settle(body["findings"].first["id"]).first).to eq(404)
  end

  {
    "a kind nobody knows" => [{ kind: "rattles" }, 400, "/kind"],
    "a cylinder the engine lacks" => [{ kind: "bolt-missing", cylinder: 9 }, 422, "/cylinder"],
    "a novel" => [{ kind: "other", words: "x" * 201 }, 400, "/words"]
  }.each do |name, (given, code, path)|
    it "refuses #{name} with its path, and keeps nothing of it" do
      status, body = note(given)
      expect([status, body["error"]["details"][0]["path"]]).to eq([code, path])
      expect(TestServer.db[:findings].where(vehicle_id: vehicle_id).count).to eq(0)
    end
  end

  it "does not grow without end" do
    stub_const("NimbleServer::Features::Vehicles::Findings::MOST", 2)
    2.times { note({ kind: "bolt-missing" }) }
    status, body = note({ kind: "bolt-missing" })
    expect([status, body["error"]["code"]]).to eq([422, "too_many_findings"])
  end
end
