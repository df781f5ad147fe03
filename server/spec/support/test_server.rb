# frozen_string_literal: true

require "rack/test"
require_relative "../../../bin/support/cluster"
require_relative "../../lib/nimble_server"
require_relative "patience"

ENV["SESSION_SECRET"] ||= "only-for-tests-" * 8
ENV["SIGN_INS_PER_MINUTE"] = "100000"
ENV["RECORD_KEYS"] ||= "1 #{"only-for-tests" * 4}"
ENV["LINK_VISITS_PER_MINUTE"] ||= "100000"
ENV["LINK_SECRET"] ||= "only-for-tests-" * 4

# One throw-away cluster for a whole run, with the demo shops loaded.
module TestServer
  PASSWORD = "ferry-at-seven"

  module_function

  HOSTS = NimbleServer::Origin::LOCAL + ["example.org"]

  def cluster = @cluster ||= demo_cluster

  # As the owner, who sees every shop: for looking behind the walls.
  def db = @db ||= NimbleServer::Database.connect(cluster.url)

  # A cluster with the demo shops that nothing else runs on.
  def demo_cluster(durable: false) = Cluster.throw_away(durable: durable, from: demo_files)

  # The demo shops are loaded once for a run; every cluster starts from a copy of these files.
  # @return [Cluster] that stands still
  def demo_files =
    @demo_files ||=
      Cluster.throw_away.tap do |cluster|
        db = NimbleServer::Database.connect(cluster.url)
        NimbleServer::Database.migrate(db)
        NimbleServer::Database.let_in(db, cluster.passwords)
        NimbleServer::Demo.new(db).load
        db.disconnect
        cluster.stop
      end

  def app
    @app ||=
      begin
        db
        build(cluster)
      end
  end

  # Works off what a shop's ledger has to teach, as the learner does in the background.
  def learn(shop_id)
    NimbleServer::Database.within_shop(db, shop_id) do
      NimbleServer::Features::Ledger::Learned.new(NimbleServer::Shop.new(db, shop_id)).learn
    end
  end

  # The program over a cluster, as its serving roles.
  def build(cluster, **rest)
    web, door = Cluster::SERVING.map { |role| NimbleServer::Database.connect(cluster.url(role)) }
    NimbleServer::Application.build(web, door: door, log: nil, hosts: HOSTS, **rest)
  end
end

# A signed-in browser without a browser.
class Client
  include Rack::Test::Methods

  def initialize(app = TestServer.app)
    @app = app
  end

  attr_reader :app

  def self.as(email) = new.tap { |client| client.sign_in(email) }

  def sign_in(email, password = TestServer::PASSWORD)
    refresh
    call(:post, "/api/account/login", { email: email, password: password }).tap { refresh }
  end

  def refresh = @token = call(:get, "/api/session").last["csrf"]

  # @return [Array(Integer, Object)] status and parsed body
  def call(verb, path, body = nil, headers = {})
    header "X-CSRF-Token", @token
    headers.each { |name, value| header name, value }
    header "Content-Type", "application/json"
    public_send(verb, path, body.is_a?(String) || body.nil? ? body : JSON.generate(body))
    headers.each_key { |name| header name, nil }
    type = last_response.headers["content-type"].to_s
    [last_response.status, type.include?("json") ? JSON.parse(last_response.body) : last_response.body]
  end

  # The number of a made-up car with an engine the demo ships, whatever engines other specs have brought.
  def practice_number(engine = "QT14") =
    (1..400).find { |seed| call(:get, "/api/practice/#{seed}").last["engine"]["code"] == engine }

  def vehicle(plate) =
    call(:get, "/api/vehicles?search=#{Rack::Utils.escape(plate)}").last["vehicles"].find { |v| v["plate"] == plate }

  def start_quote(plate = "4-TRE-1M") = call(:post, "/api/quotes", { vehicle_id: vehicle(plate)["id"] }).last

  # Saves a working copy at the price its page shows.
  # @param shown [Hash, nil] a page or what storing it answered; nil looks at the page first
  def save(id, shown = nil, headers = {}, version: nil)
    shown ||= call(:get, "/api/quotes/#{id}").last
    version ||= shown["draft"]["version"]
    call(:post, "/api/quotes/#{id}/revisions", { version: version, priced_with: shown["priced_with"] }, headers)
  end

  # Stores a working copy with these cylinders and work.
  def choose(page, cylinders, works: %w[plug coil], version: nil, **rest)
    content = page["draft"]["content"]
    content = content.merge("scopes" => [content["scopes"].first.merge("cylinders" => cylinders, "works" => works)])
    call(
      :put,
      "/api/quotes/#{page["quote"]["id"]}/draft",
      { version: version || page["draft"]["version"], content: content }.merge(rest)
    )
  end
end
