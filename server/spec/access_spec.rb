# frozen_string_literal: true

require_relative "spec_helper"

# Every route of the API against nobody, a lower role and another shop. A route that is missing here fails.
RSpec.describe "who may see what" do
  before(:context) do
    @owner = Client.as("owner@merrow.example")
    @page = @owner.start_quote
    @id = @page["quote"]["id"]
    @owner.call(:post, "/api/workshop", { code: "JIV6" })
    @owner.choose(@page, [5])
    @owner.save(@id)
    given = { revision: 1, channel: "text", recipient: "Ines Calloway", address: "555 0101" }
    @offer = @owner.call(:post, "/api/quotes/#{@id}/offers", given).last["offers"].first
    ask
    @technician = Client.as("bay@merrow.example")
    @advisor = Client.as("advisor@merrow.example")
    @stranger = Client.as("owner@hollow.example")
  end

  # path with :params filled in, body, what another shop gets (:own = its own rows, never ours; 404 = not there)
  ROUTES = {
    "GET /api/health" => {
      other: :anyone
    },
    "GET /api/session" => {
      other: :anyone
    },
    "POST /api/setup" => {
      other: :anyone
    },
    "POST /api/join/look" => {
      other: :anyone
    },
    "POST /api/join" => {
      other: :anyone
    },
    "PUT /api/shop" => {
      body: {
        name: "Hollow Lane Motors",
        locale: "en-GB",
        distance_unit: "mi",
        time_zone: "Europe/London",
        paper: "a4"
      },
      other: :own
    },
    "GET /api/people" => {
      other: :own
    },
    "PUT /api/people/:id" => {
      body: {
        role: "advisor"
      },
      other: 404
    },
    "POST /api/people/invitations" => {
      body: {
        email: "nobody@hollow.example",
        role: "advisor"
      },
      other: :own
    },
    "DELETE /api/people/invitations/:id" => {
      other: 404
    },
    "GET /api/patterns" => {
      other: :own
    },
    "GET /api/ledger" => {
      other: :own
    },
    "GET /api/ledger/jobs" => {
      other: :own
    },
    "GET /api/ledger/export" => {
      other: :own
    },
    "POST /api/ledger/import" => {
      body: {
        format: "nimble-ledger.history",
        version: 1,
        jobs: []
      },
      other: :own
    },
    "GET /api/practice/:seed" => {
      other: :own
    },
    "POST /api/practice/:seed/tests" => {
      body: {
        tests: []
      },
      other: :own
    },
    "POST /api/practice/:seed/end" => {
      body: {
        tests: [],
        targets: [],
        words: ""
      },
      other: :own
    },
    "GET /api/ledger/table" => {
      other: :own
    },
    "POST /api/ledger/past/report" => {
      body: {
        text: "finished"
      },
      other: :own
    },
    "POST /api/ledger/past" => {
      body: {
        text: "finished"
      },
      other: :own
    },
    "POST /api/ledger/lessons" => {
      body: {
        act: "take",
        state: "none"
      },
      other: 409
    },
    "POST /api/ledger/entries/:id/corrections" => {
      body: {
        why: "typed wrong"
      },
      other: 404
    },
    "GET /api/quotes/:id/trace" => {
      other: 404
    },
    "PUT /api/quotes/:id/trace" => {
      body: {
        version: 0,
        content: {
          evidence: []
        }
      },
      other: 404
    },
    "POST /api/quotes/:id/trace/codes" => {
      other: 404
    },
    "GET /api/workshop" => {
      other: :own
    },
    "POST /api/workshop" => {
      body: {
        code: "SK18"
      },
      other: :own
    },
    "POST /api/workshop/acts" => {
      body: ->(spec) { { profile: spec.profile, act: { do: "lay", step: "cover", cylinders: [1] } } },
      other: :own
    },
    "GET /api/workshop/:code" => {
      params: {
        code: "JIV6"
      },
      other: 404
    },
    "PUT /api/workshop/:code" => {
      params: {
        code: "JIV6"
      },
      body: ->(spec) { { version: 1, profile: spec.profile } },
      other: 404
    },
    "DELETE /api/workshop/:code" => {
      params: {
        code: "JIV6"
      },
      other: 404
    },
    "POST /api/workshop/:code/revisions" => {
      params: {
        code: "JIV6"
      },
      body: {
        version: 1,
        why: ""
      },
      other: 404
    },
    "POST /api/sketches/offered" => {
      body: {
        arrangement: "single",
        mounting: "sideways",
        cylinders: 1,
        ignition: "single-coil"
      },
      other: 200
    },
    "POST /api/sketches" => {
      body: {
        arrangement: "single",
        mounting: "sideways",
        cylinders: 1,
        ignition: "single-coil",
        layers: [],
        moves: [],
        plug: {
        }
      },
      other: :own
    },
    "GET /api/comparisons" => {
      query: "?a=JIV6&b=SK18",
      other: :own
    },
    "GET /api/library" => {
      other: :own
    },
    "POST /api/library/report" => {
      body: ->(spec) { { archive: spec.archive } },
      other: :own
    },
    "POST /api/library" => {
      body: ->(spec) { { archive: spec.archive, rows: [] } },
      other: :own
    },
    "GET /api/ping" => {
      other: :own
    },
    "GET /api/vehicles" => {
      other: :own
    },
    "GET /api/engines" => {
      other: :own
    },
    "GET /api/engines/:code" => {
      params: {
        code: "JIV6"
      },
      other: :own
    },
    "GET /api/engines/:code/export" => {
      other: :own
    },
    "POST /api/engines/report" => {
      body: lambda(&:profile),
      other: :own
    },
    "POST /api/engines" => {
      body: ->(spec) { spec.profile.merge("code" => "ZZ99") },
      other: :own
    },
    "GET /api/house" => {
      other: :own
    },
    "PUT /api/house/equipment" => {
      body: ->(spec) { { equipment: ["torch"], revision: spec.their_revision } },
      other: :own
    },
    "PUT /api/house/settings" => {
      body: ->(spec) { { settings: { insert_cents: 2_300 }, revision: spec.their_revision } },
      other: :own
    },
    "GET /api/prices" => {
      other: :own
    },
    "GET /api/prices/export" => {
      other: :own
    },
    "POST /api/prices/report" => {
      body: {
        rows: [{ part: "ZZ-1" }]
      },
      other: :own
    },
    "POST /api/prices" => {
      body: ->(spec) { { rows: [{ part: "ZZ-1", supplier: "Wharf", cost: "1.00" }], revision: spec.their_prices } },
      other: :own
    },
    "POST /api/quotes/:id/engine" => {
      other: 404
    },
    "PUT /api/vehicles/:id/history" => {
      body: {
        lives: "quay"
      },
      other: 404
    },
    "POST /api/vehicles/:id/findings" => {
      body: {
        kind: "bolt-missing",
        cylinder: 1
      },
      other: 404
    },
    "POST /api/vehicles/:id/findings/:finding/settled" => {
      other: 404
    },
    "GET /api/progress/:id" => {
      other: :own
    },
    "GET /api/everything" => {
      other: :own
    },
    "GET /api/jobs" => {
      other: :own
    },
    "GET /api/jobs/:id" => {
      other: 404
    },
    "PUT /api/jobs/:id" => {
      body: {
        bay: "2"
      },
      other: 404
    },
    "POST /api/jobs/:id/marks" => {
      body: {
        device: "tablet",
        marks: []
      },
      other: 404
    },
    "GET /api/jobs/:id/card.pdf" => {
      other: 404
    },
    "GET /api/jobs/:id/hand-over.pdf" => {
      other: 404
    },
    "POST /api/follow-ups/:id/settled" => {
      other: 404
    },
    "POST /api/jobs/:id/scan" => {
      other: 404
    },
    "POST /api/jobs/:id/proposals" => {
      body: {
        mark: "m1"
      },
      other: 404
    },
    "GET /api/jobs/:id/bill" => {
      other: 404
    },
    "POST /api/jobs/:id/bill" => {
      body: {
        payer: "x",
        total_cents: 1
      },
      other: 404
    },
    "POST /api/jobs/:id/payments" => {
      body: {
        on: "2026-01-05",
        means: "cash",
        cents: 100,
        key: "k"
      },
      other: 404
    },
    "POST /api/bills/:id/credit" => {
      body: {
        reason: "wrong"
      },
      other: 404
    },
    "GET /api/bills/:id/bill.pdf" => {
      other: 404
    },
    "GET /api/bills/journal" => {
      other: :own
    },
    "GET /api/day" => {
      other: :own
    },
    "GET /api/day/move" => {
      other: :own
    },
    "POST /api/day/preview" => {
      body: {
        job: "00000000-0000-4000-8000-000000000000",
        person: 1,
        place: 0
      },
      other: 404
    },
    "GET /api/quotes/:id/when" => {
      other: 404
    },
    "POST /api/bookings" => {
      body: ->(spec) { { quote_id: spec.quote_id, version: 0, person: 1, place: 0, arrives: "2034-11-21T08:00" } },
      other: 404
    },
    "PUT /api/bookings/:id" => {
      body: {
        version: 0,
        place: 0
      },
      other: 404
    },
    "POST /api/bookings/:id/give-back" => {
      body: {
        version: 0
      },
      other: 404
    },
    "POST /api/bookings/:id/called" => {
      body: {
        words: "told"
      },
      other: 404
    },
    "GET /api/day/kept" => {
      other: :own
    },
    "GET /api/calendar" => {
      other: :own
    },
    "GET /api/calendar/holidays" => {
      other: :own
    },
    "POST /api/calendar/import" => {
      body: {
        text: "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n"
      },
      other: :own
    },
    "GET /api/calendar/feeds" => {
      other: :own
    },
    "POST /api/calendar/feeds" => {
      body: {
        person: nil
      },
      other: :own
    },
    "DELETE /api/calendar/feeds/:id" => {
      other: 404
    },
    "PUT /api/calendar" => {
      body: {
        revision: 0,
        bays: [{ id: "1", equipment: [] }],
        people: [],
        away: [],
        closed: []
      },
      other: :own
    },
    "POST /api/jobs/:id/call-off" => {
      body: {
        reason: "sold"
      },
      other: 404
    },
    "POST /api/jobs/:id/take-up" => {
      body: {
      },
      other: 404
    },
    "POST /api/offers/:id/strike" => {
      body: {
        position: 0,
        reason: "a slip"
      },
      other: 404
    },
    "POST /api/offers/:id/no-read" => {
      body: {
      },
      other: 404
    },
    "POST /api/quotes/:id/put-away" => {
      body: {
      },
      other: 404
    },
    "POST /api/quotes/:id/bring-back" => {
      body: {
      },
      other: 404
    },
    "POST /api/jobs/:id/ways-on" => {
      body: {
      },
      other: 404
    },
    "POST /api/jobs/:id/hand-over" => {
      body: {
      },
      other: 404
    },
    "POST /api/jobs/:id/pictures" => {
      body: {
        data: "aGVsbG8="
      },
      other: 404
    },
    "GET /api/jobs/:id/pictures/:picture" => {
      other: 404
    },
    "GET /api/garage/export" => {
      other: :own
    },
    "POST /api/garage/report" => {
      body: {
        csv: "plate\nZZ 9"
      },
      other: :own
    },
    "POST /api/garage" => {
      body: {
        csv: "plate,description,engine\nZZ 9,x,JIV6"
      },
      other: :own
    },
    "GET /api/vehicles/:id" => {
      other: 404
    },
    "GET /api/vehicles/:id/file" => {
      other: 404
    },
    "PUT /api/vehicles/:id" => {
      body: {
        description: "x"
      },
      other: 404
    },
    "POST /api/vehicles/:id/readings" => {
      body: {
        km: 200_000
      },
      other: 404
    },
    "POST /api/vehicles/:id/fittings" => {
      body: {
        work: "coil",
        cylinders: [3],
        on: "2026-03-12",
        ours: true
      },
      other: 404
    },
    "POST /api/vehicles/:id/fittings/:fitting/withdrawal" => {
      other: 404
    },
    "GET /api/counter" => {
      other: :own
    },
    "GET /api/find" => {
      other: :own
    },
    "GET /api/quotes/:id/yes" => {
      other: 404
    },
    "GET /api/quotes/:id/export" => {
      other: 404
    },
    "GET /api/quotes/:id/preview" => {
      other: 404
    },
    "POST /api/quotes/:id/offers" => {
      body: {
        revision: 1,
        channel: "phone",
        recipient: "Nobody",
        supersede: true
      },
      other: 404
    },
    "GET /api/offers/:id/authorization.pdf" => {
      other: 404
    },
    "POST /api/offers/:id/answers" => {
      body: {
        position: 0,
        answer: "no",
        how: "phone",
        name: "Nobody"
      },
      other: 404
    },
    "POST /api/offers/:id/revocation" => {
      other: 404
    },
    "POST /api/offers/:id/retry" => {
      other: 404
    },
    "POST /api/questions/:id/settled" => {
      other: 404
    },
    "GET /api/customers/:id" => {
      other: 404
    },
    "POST /api/customers/:id/merge" => {
      body: ->(spec) { { double: spec.customer_id } },
      other: 422
    },
    "PUT /api/customers/:id" => {
      body: {
        name: "Ines Calloway"
      },
      other: 404
    },
    "POST /api/vehicles" => {
      body: {
        plate: "ZZ 1",
        description: "x",
        engine_code: "JIV6"
      },
      other: :own
    },
    "POST /api/estimates" => {
      body: ->(spec) do
        { format: "nimble-ledger.estimate-request", version: 1, engine: spec.engine_id, targets: ["plug-5"] }
      end,
      other: 400
    },
    "POST /api/answers" => {
      body: ->(spec) do
        { format: "nimble-ledger.estimate-request", version: 1, engine: spec.engine_id, targets: ["plug-5"] }
      end,
      other: 400
    },
    "GET /api/quotes" => {
      other: :own
    },
    "POST /api/quotes" => {
      body: ->(spec) { { vehicle_id: spec.vehicle_id } },
      other: 404
    },
    "GET /api/quotes/:id" => {
      other: 404
    },
    "PUT /api/quotes/:id/draft" => {
      body: ->(spec) { { version: 1, content: spec.content } },
      other: 404
    },
    "GET /api/quotes/:id/panels/:panel" => {
      other: 404
    },
    "POST /api/quotes/:id/revisions" => {
      body: ->(spec) { { version: 2, priced_with: spec.priced_with } },
      other: 404
    },
    "GET /api/quotes/:id/revisions/:number" => {
      other: 404
    },
    "GET /api/quotes/:id/print.pdf" => {
      other: 404
    }
  }.freeze

  # The names in our shop's rows.
  OURS = /Merrow|Calloway|4-TRE-1M/

  # The fourth kind of visitor: whoever holds a customer's link.
  def ask
    link = Client.new
    link.header "Content-Type", "application/x-www-form-urlencoded"
    link.post(URI(@offer["link"]).path, URI.encode_www_form(act: "question", question: "Boots too?"))
  end

  def offer_id = @offer["id"]
  def question_id = TestServer.db[:offer_questions].where(offer_id: offer_id).get(:id)

  def engine_id = @owner.call(:get, "/api/engines/JIV6").last["id"]
  def profile = @owner.call(:get, "/api/engines/JIV6").last["profile"]
  def archive = [@owner.call(:get, "/api/library").last].pack("m0")
  def job_id = @owner.call(:get, "/api/jobs").last["jobs"].first["id"]
  def quote_id = @id

  def booking_id
    given = { quote_id: @id, person: @owner.call(:get, "/api/day").last["people"].first["id"], place: 0 }
    given.merge!(version: @owner.call(:get, "/api/day").last["version"], arrives: "2034-11-21T08:00")
    @owner.call(:post, "/api/bookings", given)
    TestServer.db[:bookings].where(quote_id: @id, ended_at: nil).get(:id)
  end

  def feed_id
    @owner.call(:post, "/api/calendar/feeds", { person: nil })
    @owner.call(:get, "/api/calendar/feeds").last["feeds"].first["id"]
  end

  def vehicle_id = @page["vehicle"]["id"]
  def customer_id = @page["vehicle"]["customer_id"]

  # One of ours: an account, or an invitation.
  def person_id(pattern)
    return @owner.call(:get, "/api/people").last["people"].last["id"] unless pattern.include?("invitations")

    @owner.call(:post, "/api/people/invitations", { email: "#{SecureRandom.hex(4)}@merrow.example", role: "advisor" })
    @owner.call(:get, "/api/people").last["invitations"].first["id"]
  end

  def priced_with = @page["priced_with"]
  def content = @page["draft"]["content"]
  def their_prices = @stranger.call(:get, "/api/prices").last["revision"]
  def their_revision = @stranger.call(:get, "/api/house").last["revision"]

  def send_as(client, route, row)
    verb, pattern = route.split
    known = {
      "offers" => offer_id,
      "questions" => question_id,
      "jobs" => job_id,
      "vehicles" => vehicle_id,
      "customers" => customer_id,
      "people" => person_id(pattern),
      "bookings" => (booking_id if pattern.include?("bookings")),
      "calendar" => (feed_id if pattern.include?("feeds/:id"))
    }
    id = known.fetch(pattern.split("/")[2], @id)
    path =
      pattern.gsub(/:(\w+)/) do
        {
          "id" => id,
          "finding" => SecureRandom.uuid,
          "fitting" => SecureRandom.uuid,
          "number" => "1",
          "code" => "JIV6",
          "panel" => "beside",
          "picture" => SecureRandom.uuid,
          "seed" => "7"
        }.fetch(Regexp.last_match(1))
      end
    path += row[:query].to_s
    body = row[:body].respond_to?(:call) ? row[:body].call(self) : row[:body]
    client.call(verb.downcase.to_sym, path, body)
  end

  it "covers every route there is, and the contract lists the same" do
    routes = NimbleServer::API.routes_by_role.map { |route| "#{route.verb.upcase} #{route.path}" }
    expect(ROUTES.keys).to match_array(routes)
    contract =
      JSON.parse(File.read(NimbleServer::ContractCheck::SPEC))["paths"].flat_map do |path, verbs|
        verbs.keys.map { |verb| "#{verb.upcase} #{path.gsub(/\{(\w+)\}/, ':\1')}" }
      end
    expect(contract - %w[login logout change-password].map { |name| "POST /api/account/#{name}" }).to match_array(
      routes
    )
  end

  NimbleServer::API.routes_by_role.each do |route|
    name = "#{route.verb.upcase} #{route.path}"
    next if route.role == :anyone

    it "#{name} refuses nobody" do
      client = Client.new.tap(&:refresh)
      status, body = send_as(client, name, ROUTES.fetch(name))
      expect([status, body.dig("error", "code")]).to eq([401, "signed_out"])
    end

    # What technicians may do, every role may.
    unless route.role == :technician
      it "#{name} refuses a lower role" do
        lower = route.role == :owner ? [@technician, @advisor] : [@technician]
        answers = lower.map { |client| send_as(client, name, ROUTES.fetch(name)) }
        expect(answers.map { |status, body| [status, body.dig("error", "code")] }).to all(eq([403, "role"]))
      end
    end

    it "#{name} shows another shop nothing of ours" do
      row = ROUTES.fetch(name)
      status, body = send_as(@stranger, name, row)
      expect(row[:other] == :own ? (200..299).to_a : [row[:other]]).to include(status)
      expect(readable(body)).not_to match(OURS)
    end
  end

  # What somebody could read in an answer, that of an archive included.
  def readable(body)
    return JSON.generate(body) unless body.is_a?(String) && body.start_with?("PK")

    Zip::InputStream.open(StringIO.new(body)) do |zip|
      texts = []
      texts << zip.read.to_s while zip.get_next_entry
      texts.join("\n").force_encoding("UTF-8")
    end
  end

  it "knows our names when it sees them: the same walk as ourselves shows them" do
    shown = ["GET /api/vehicles", "GET /api/quotes", "GET /api/quotes/:id"]
    expect(shown.map { |name| JSON.generate(send_as(@owner, name, ROUTES.fetch(name)).last) }).to all(match(OURS))
  end

  it "opens nothing but its own page to whoever holds a customer's link" do
    secret = URI(@offer["link"]).path.delete_prefix("/y/")
    client = Client.new.tap(&:refresh)
    client.header("Authorization", "Bearer #{secret}")
    NimbleServer::API.routes_by_role.each do |route|
      next if route.role == :anyone

      name = "#{route.verb.upcase} #{route.path}"
      status, = send_as(client, name, ROUTES.fetch(name))
      expect([name, status]).to eq([name, 401])
    end
    client.get("/y/#{secret}")
    expect(client.last_response.body).to include("Ines Calloway")
    client.get("/y/#{secret}/../../api/quotes")
    expect(client.last_response.body).not_to include("4-TRE-1M\"")
  end

  it "streams events to whoever is signed in, and to nobody else" do
    client = Client.new
    expect(client.call(:get, "/api/events").first).to eq(401)
  end

  it "has routes only an owner may use" do
    expect(NimbleServer::API.routes_by_role.select { |route| route.role == :owner }.map(&:path)).to include(
      "/api/house/settings",
      "/api/prices",
      "/api/engines"
    )
  end

  it "refuses writes without the session's token" do
    client = Client.as("advisor@merrow.example")
    client.instance_variable_set(:@token, nil)
    status, body = client.call(:post, "/api/quotes", { vehicle_id: vehicle_id })
    expect([status, body.dig("error", "code")]).to eq([403, "csrf"])
  end

  it "sends a strict policy, and the page carries the nonce of its own answer" do
    client = Client.new
    client.get("/")
    policy = client.last_response.headers["content-security-policy"]
    expect(policy).to include("default-src 'none'").and include("script-src 'self';")
    expect(policy).not_to match(/unsafe-inline|unsafe-eval|\*/)
    nonce = policy[/'nonce-([^']+)'/, 1]
    expect(client.last_response.body).to include(%(<meta property="csp-nonce" nonce="#{nonce}" content="#{nonce}" />))
    client.get("/")
    expect(client.last_response.headers["content-security-policy"]).not_to include(nonce)
  end
end
