# frozen_string_literal: true

require_relative "../../server/spec/support/web_process"

# A row of bin/bench: drafts stored by many at once.
module BenchDrafts
  SECONDS = 12

  # Eight users' drafts stored (priced and kept) at once through two web processes, beside a storm of marks on a card.
  def drafts
    two_processes do |ports|
      marks = Thread.new { storm(ports) }
      times = 8.times.map { |i| Thread.new { stores(ports.rotate(i), i) } }.flat_map(&:value).sort
      note = format("%.0f/s (60), beside %.0f marks/s", times.size / SECONDS.to_f, marks.value / SECONDS.to_f)
      row("draft stores by 8 users, two web processes, p95 (150 ms)", times[(times.size * 0.95).floor], note)
    end
  end

  def two_processes
    cluster = TestServer.demo_cluster
    database = NimbleServer::Database.connect(cluster.url)
    web = 2.times.map { WebProcess.new(cluster) }.each(&:ready)
    yield web.map(&:port)
  ensure
    web&.each(&:kill)
    database&.disconnect
    cluster&.stop
  end

  def stores(ports, seed)
    visitor = Visitor.new(ports).sign_in("advisor@merrow.example")
    car = visitor.insist("GET", "/api/vehicles?search=TRE").body["vehicles"].first["id"]
    page = visitor.insist("POST", "/api/quotes", { vehicle_id: car }, "Idempotency-Key" => SecureRandom.uuid).body
    draft = page["draft"]
    timed do |turn|
      scope = draft["content"]["scopes"].first.merge("cylinders" => [((seed + turn) % 6) + 1])
      body = { version: draft["version"], content: draft["content"].merge("scopes" => [scope]) }
      draft = visitor.insist("PUT", "/api/quotes/#{page["quote"]["id"]}/draft", body).body["draft"]
    end
  end

  # @return [Array<Float>] ms of each turn
  def timed
    over = clock + SECONDS
    times = []
    while clock < over
      started = clock
      yield times.size
      times << ((clock - started) * 1000)
    end
    times
  end

  # @return [Integer] marks handed in
  def storm(ports)
    visitor = Visitor.new(ports).sign_in("bay@merrow.example")
    job = visitor.insist("GET", "/api/jobs").body["jobs"].find { |one| one["started_at"] && one["finished_at"].nil? }
    timed do
      note = { id: SecureRandom.hex(8), at: Time.now.utc.iso8601(3), kind: "note", words: "storm" }
      visitor.insist("POST", "/api/jobs/#{job["id"]}/marks", { device: "bench", marks: [note] })
    end.size
  end
end
