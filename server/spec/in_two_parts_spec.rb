# frozen_string_literal: true

require_relative "spec_helper"
require "logger"
require "net/http"
require "puma"
require "puma/server"

RSpec.describe NimbleServer::InTwoParts do
  def both(line) = [JSON.parse("#{line}}"), JSON.parse("#{line}#{yield}")]

  it "is one object in two pieces, the first of which is there before the rest is asked for" do
    asked = false
    answer = described_class.new({ "total" => 1200, "of" => [1] }) { (asked = true) && { "rest" => "two\nlines" } }
    pieces = []
    answer.each { |piece| pieces << [piece, asked] }
    expect(pieces.map(&:last)).to eq([false, true])
    first, whole = both(pieces[0][0]) { pieces[1][0] }
    expect(first).to eq("total" => 1200, "of" => [1])
    expect(whole).to eq("total" => 1200, "of" => [1], "rest" => "two\nlines")
    expect(pieces[0][0].count("\n")).to eq(1)
  end

  it "runs what waits for its end once, also when the rest goes wrong, which is logged by its kind and place alone" do
    ends = 0
    answer = described_class.new({ "total" => 1 }) { raise KeyError, "5-TOW-4I" }
    answer.when_done { ends += 1 }
    expect { expect { answer.each { |_| nil } }.to raise_error(KeyError) }.to output(
      /\AKeyError\n(?!.*5-TOW)/m
    ).to_stderr
    2.times { answer.close }
    expect(ends).to eq(1)
  end

  describe "over a socket" do
    after { @server&.stop(true) }

    # @return [Integer] port of a server that answers everything with what the block makes of the environment
    def serving(&app)
      log = Puma::LogWriter.null
      @server = Puma::Server.new(app, Puma::Events.new, min_threads: 1, max_threads: 2, log_writer: log)
      port = @server.add_tcp_listener("127.0.0.1", 0).addr[1]
      @server.run
      port
    end

    it "does not hold the first line back until the rest is there" do
      let_on = Queue.new
      held = Queue.new
      port =
        serving do |env|
          body =
            described_class.new({ "total" => 1 }, socket: env["puma.socket"]) do
              held << env["puma.socket"].getsockopt(Socket::IPPROTO_TCP, Socket::TCP_CORK).int
              let_on.pop
              { "rest" => 2 }
            end
          [200, { "content-type" => "application/json" }, body]
        end
      text = +""
      Net::HTTP.start("127.0.0.1", port) do |http|
        http.request(Net::HTTP::Get.new("/")) do |response|
          response.read_body do |piece|
            text << piece
            let_on << true if text == "{\"total\":1\n"
          end
        end
      end
      expect(JSON.parse(text)).to eq("total" => 1, "rest" => 2)
      expect(held.pop).to eq(0)
    end

    it "breaks off where the rest goes wrong: no reader takes it for whole" do
      ended = Queue.new
      port =
        serving do
          body = described_class.new({ "total" => 1 }) { raise NimbleServer::Patience::Abandoned }
          body.when_done { ended << true }
          [200, { "content-type" => "application/json" }, body]
        end
      expect { Net::HTTP.get(URI("http://127.0.0.1:#{port}/")) }.to raise_error(EOFError)
      expect(ended.pop).to be(true)
    end
  end

  it "keeps its account's place until it is whole" do
    answers = Queue.new
    door =
      NimbleServer::Admission.new(
        ->(_env) { [200, {}, described_class.new({ "total" => 1 }) { {} }.tap { |body| answers << body }] }
      )
    env = { "PATH_INFO" => "/api/quotes", "nimble.account" => { id: 7 } }
    NimbleServer::Admission::AT_ONCE.times { door.call(env) }
    next_one = Thread.new { door.call(env).first }
    Thread.pass until next_one.stop?
    expect(answers.size).to eq(NimbleServer::Admission::AT_ONCE)
    answers.pop.close
    expect(next_one.value).to eq(200)
  end

  describe "a stored working copy" do
    let(:db) { TestServer.db }

    # What is asked of the database while the block runs.
    def asked_of_database(&block)
      log = StringIO.new
      logger = Logger.new(log)
      db.loggers << logger
      block.call
      log.string.scan(/SELECT|UPDATE|INSERT/).size
    ensure
      db.loggers.delete(logger)
    end

    def shop_of_demo
      actor = NimbleServer::Actor.account(db[:accounts].where(email: "advisor@merrow.example").first)
      NimbleServer::Shop.new(db, db[:shops].where(slug: "merrow-quay").get(:id), actor: actor)
    end

    # A copy with these cylinders in one scope, and the first of them in another.
    def copy_of(cylinders)
      start = NimbleLedger::Quote::Content.start
      scope = start["scopes"].first.merge("cylinders" => cylinders, "works" => %w[plug])
      start.merge("scopes" => [scope, scope.merge("cylinders" => cylinders.first(1))])
    end

    # Every demo engine with one cylinder, with all, and with none.
    def each_copy
      shop = shop_of_demo
      desk = NimbleServer::Features::Quotes::Desk.new(shop)
      cars = shop[:vehicles].order(:engine_code, :plate).all.uniq { |vehicle| vehicle[:engine_code] }
      cars.each do |vehicle|
        id = desk.start(vehicle[:id])
        all = NimbleServer::Library.engine(shop, shop[:quotes].where(id: id).get(:engine_profile_id)).cylinders
        numbers = all.map(&:number)
        [numbers.first(1), numbers, []].each_with_index do |chosen, i|
          yield desk.store_draft(id, i + 1, copy_of(chosen)), chosen
        end
      end
    end

    it "says at once what its page will say is owed, and asks the database nothing for that page" do
      seen = 0
      each_copy do |stored, cylinders|
        page = nil
        expect(asked_of_database { page = stored.later.call }).to eq(0)
        price = page["sheet"].dig("estimate", "price")
        balance = stored.at_once["balance"]
        expect(balance.nil?).to eq(cylinders.empty?)
        next if balance.nil?

        expect(balance["price"]).to eq(price)
        expect(balance["title"]).to eq(page["sheet"]["title"])
        expect(balance["hours"]).to eq(page["sheet"]["estimate"]["hours"]["quoted"])
        expect(stored.at_once["priced_with"]["totals"].first).to eq(price["total_cents"])
        seen += 1
      end
      expect(seen).to be > 10
    end

    it "goes out in that order, and refusals as one piece" do
      advisor = Client.as("advisor@merrow.example")
      page = advisor.start_quote("4-TRE-1M")
      path = "/api/quotes/#{page["quote"]["id"]}/draft"
      body = { version: page["draft"]["version"], content: page["draft"]["content"] }
      expect(advisor.call(:put, path, body).first).to eq(200)
      line, = advisor.last_response.body.split("\n")
      expect(JSON.parse("#{line}}").keys).to eq(%w[draft balance resolved priced_with])
      status, refused =
        advisor.call(:put, path, body.merge(content: body[:content].merge("active" => 0, "codes" => true)))
      expect([status, refused["error"]["code"]]).to eq([409, "draft_conflict"])
    end
  end
end
