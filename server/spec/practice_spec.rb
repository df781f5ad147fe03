# frozen_string_literal: true

require_relative "spec_helper"

# Practice over HTTP: a made-up car by its number, tests on it, the truth; nothing of it is kept.
RSpec.describe NimbleServer::Features::Practice::PracticeCars do
  let(:client) { Client.as("bay@merrow.example") }

  let(:seed) { client.practice_number }

  def car(number = seed) = client.call(:get, "/api/practice/#{number}").last

  it "hands out the same car for the same number, with what it says by itself and nothing of its truth" do
    shown = car
    expect(car).to eq(shown)
    expect(car(seed + 1)).not_to eq(shown)
    expect(shown["shares"].map { |row| row["share"] }).to all(be_between(0, 1))
    expect(JSON.generate(shown)).not_to include("fault", "hidden", "chance")
    expect(shown["evidence"]).to eq([])
  end

  it "shows what tests show, each with its minutes, the same again, and refuses what cannot be done" do
    number = car["shares"].max_by { |row| row["share"] }["cylinder"]
    tests = [{ test: "look-coil", cylinder: number }, { test: "read-plug", cylinder: number }]
    look = client.call(:post, "/api/practice/#{seed}/tests", { tests: tests }).last
    expect(look["evidence"].map { |row| row["minutes"] }).to all(be_positive)
    target = car["targets"].first["id"]
    quoted = client.call(:post, "/api/practice/#{seed}/tests", { tests: [], targets: [target] }).last["quote"]
    ended = client.call(:post, "/api/practice/#{seed}/end", { tests: [], targets: [target], words: "" }).last
    expect(quoted["cents"]).to eq(ended["yours"]["renewed_cents"])
    expect(look["quote"]).to be_nil
    expect(client.call(:post, "/api/practice/#{seed}/tests", { tests: tests.first(1) }).last["evidence"]).to eq(
      look["evidence"].first(1)
    )
    status, error = client.call(:post, "/api/practice/#{seed}/tests", { tests: [{ test: "look-coil", cylinder: 99 }] })
    expect([status, error["error"]["details"].first["path"]]).to eq([400, "/evidence/0/cylinder"])
    expect(client.call(:get, "/api/practice/a-car").first).to eq(404)
  end

  it "tells the truth at the end, and keeps nothing" do
    before = TestServer.db[:quotes].count
    given = { tests: [], targets: [car["targets"].first["id"]], words: "The coil of number 1" }
    ended = client.call(:post, "/api/practice/#{seed}/end", given).last
    expect(ended["truth"]["cause"]).to be_a(String)
    expect(ended["yours"]["minutes"]).to eq(0)
    expect(ended["words"].map { |row| row["what"] }).to include("place", "amount")
    expect(client.call(:post, "/api/practice/#{seed}/end", given.merge(targets: ["nothing"])).first).to eq(400)
    expect(TestServer.db[:quotes].count).to eq(before)
  end
end
