# frozen_string_literal: true

require_relative "test_server"

# A demo shop of its own at ten to eight of next week's Tuesday, with an empty board and one bay.
RSpec.shared_context "with a shop's day" do
  # Next week's Tuesday, ten to eight where the shop is, and the days after it.
  tuesday = Date.today + (1 + ((1 - Date.today.wday) % 7))
  day = ->(offset, time = nil) { [(tuesday + offset).iso8601, time].compact.join("T") }

  define_method(:day, &day)

  before(:context) do
    @cluster = TestServer.demo_cluster
    @db = NimbleServer::Database.connect(@cluster.url)
    @app = TestServer.build(@cluster)
    @owner, @advisor, @bay =
      %w[owner advisor bay].map { |name| Client.new(@app).tap { |client| client.sign_in("#{name}@merrow.example") } }
    shop_id = @db[:accounts].where(email: "owner@merrow.example").get(:shop_id)
    @zone = TZInfo::Timezone.get(@db[:shops].where(id: shop_id).get(:time_zone))
  end

  after(:context) do
    @db.disconnect
    @cluster.stop
  end

  # Nothing that other examples booked or began is on the board.
  before do
    @db[:bookings].where(ended_at: nil).update(ended_at: Time.now)
    @db[:jobs].where(finished_at: nil).exclude(started_at: nil).update(finished_at: Time.now)
    at(day(0, "07:50"))
    revision = @owner.call(:get, "/api/calendar").last["revision"]
    plain = { revision: revision, bays: [{ id: "1", equipment: [] }], people: [], away: [], closed: [] }
    @owner.call(:put, "/api/calendar", plain)
  end

  # It is then on the shop's wall: sessions keep their own time.
  def at(wall)
    @now = @zone.local_to_utc(Time.iso8601("#{wall}:00Z"))
    allow_any_instance_of(NimbleServer::Shop).to receive(:now) { @now }
  end

  def quote(cylinders: [5], plate: "4-TRE-1M", works: %w[plug coil])
    page = @advisor.start_quote(plate)
    @advisor.choose(page, cylinders, works: works)
    page["quote"]["id"]
  end

  def board = @advisor.call(:get, "/api/day").last
  def on_board(quote_id) = board["jobs"].find { |row| row["quote_id"] == quote_id }
  def offers(id, **asked) = @advisor.call(:get, "/api/quotes/#{id}/when?#{URI.encode_www_form(asked)}").last

  # Takes the first time that is offered.
  def take(id, promise: true)
    page = offers(id)
    offer = page["offers"].find { |one| one["ready"] }
    given = {
      quote_id: id,
      version: page["version"],
      person: offer["person"],
      place: offer["place"],
      arrives: offer["drop_off"]
    }
    given.merge!(promise: offer["ready"], chance: 0.8) if promise
    @advisor.call(:post, "/api/bookings", given)
  end

  # @return [String] id of the job the yes opens
  def agree(id, channel: "phone", address: nil)
    revision = @advisor.save(id).last["revision"]["revision"]
    given = { revision: revision, channel: channel, recipient: "Ines Calloway", address: address }.compact
    offer = @advisor.call(:post, "/api/quotes/#{id}/offers", given).last["offers"].first
    yes = { position: 0, answer: "yes", how: "phone", name: "Ines", limit_cents: offer["scopes"][0]["limit_cents"] }
    @advisor.call(:post, "/api/offers/#{offer["id"]}/answers", yes)
    @db[:jobs].where(quote_id: id).get(:id)
  end
end
