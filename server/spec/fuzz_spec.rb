# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/fuzz"

# Every route with bodies, parameters and addresses made blindly from the contract: whatever is sent, it is answered or
# refused with words, and never falls over. FUZZ_ROUNDS and FUZZ_SEED try more by hand.
RSpec.describe "blind requests" do
  rounds = Integer(ENV.fetch("FUZZ_ROUNDS", "6"))
  seed = Integer(ENV.fetch("FUZZ_SEED", "20261201"))

  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @owner = Client.new(@app).tap { |client| client.sign_in("owner@merrow.example") }
    @contract = Contract.documents.fetch("openapi.json").then { |document| JSON.parse(JSON.generate(document)) }
    @ids = ids
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  # What names something that is there.
  def ids
    shop = @db[:shops].where(slug: "merrow-quay").get(:id)
    of = ->(table) { @db[table].where(shop_id: shop).select_map(:id).map(&:to_s) }
    {
      "id" => %i[quotes vehicles offers jobs customers accounts].flat_map { |table| of.call(table) },
      "code" => %w[GV28 QT14 JIV6],
      "panel" => %w[soaks scopes],
      "seed" => %w[1 77]
    }
  end

  # An account that is signed out, closed or loses its role would see nothing of the rest.
  LEFT_ALONE = ["POST /api/join", "POST /api/setup", "PUT /api/people/:id"].freeze

  def filled(path, fuzz)
    path.gsub(/:(\w+)/) do
      known = @ids.fetch(Regexp.last_match(1), @ids["id"])
      Rack::Utils.escape_path(fuzz.once_in(3) ? fuzz.text : fuzz.pick(known))
    end
  end

  def query(operation, fuzz)
    given = operation.fetch("parameters", []).select { |one| one["in"] == "query" }
    words =
      given.select { fuzz.once_in(2) }.map { |one| "#{one["name"]}=#{Rack::Utils.escape(fuzz.text.delete("\0"))}" }
    words << "strange=#{Rack::Utils.escape(fuzz.text.delete("\0"))}" if fuzz.once_in(4)
    words.join("&")
  end

  # @return [Array(Integer, Object)]
  def blind(route, fuzz)
    operation = @contract["paths"].dig(route.path.gsub(/:(\w+)/, '{\1}'), route.verb.to_s) || {}
    shape = operation.dig("requestBody", "content", "application/json", "schema")
    body = shape && fuzz.value(shape)
    address = "#{filled(route.path, fuzz)}?#{query(operation, fuzz)}"
    @owner.call(route.verb, address, shape ? JSON.generate(body) : nil)
  rescue URI::InvalidURIError
    [400, nil]
  end

  def sent
    body = @owner.last_request.body&.tap(&:rewind)&.read.to_s
    "#{@owner.last_request.fullpath}\n#{body[0, 1_500].inspect}"
  end

  NimbleServer::API.routes_by_role.each_with_index do |route, i|
    name = "#{route.verb.to_s.upcase} #{route.path}"
    it "#{name} stands" do
      fuzz = Fuzz.new(seed + i, @contract["components"]["schemas"])
      rounds.times do
        status, answer = LEFT_ALONE.include?(name) ? [400, nil] : blind(route, fuzz)
        next if answer.is_a?(Hash) && answer.dig("error", "code") == "scan_tool_away" # none runs here

        expect(status).to be < 500, -> { "#{name}: #{status} #{answer.to_s[0, 300]}\n#{sent}" }
        @owner.sign_in("owner@merrow.example") if status == 401
      end
    end
  end
end
