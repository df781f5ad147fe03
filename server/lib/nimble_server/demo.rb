# frozen_string_literal: true

require "argon2"

module NimbleServer
  # Loads the demo shops (demo/): people, engines, price list, settings, vehicles. All of it is made up.
  class Demo
    FOLDER = File.join(ROOT, "demo")

    def initialize(db, clock: Time)
      @db = db
      @clock = clock
    end

    # Everybody knows them: no account of a real shop may have one.
    def self.passwords =
      JSON.parse(File.read(File.join(FOLDER, "shop.json")))["shops"].map { |shop| shop["password"] }.uniq

    def self.loaded?(db) = !db[:shops].empty?

    # Everything in one transaction: a half-loaded demo shop does not exist.
    def load
      @db.transaction { shops.each { |shop| load_shop(shop) } }
    end

    # For the greeting of bin/start: [shop, e-mail, role, password].
    def sign_ins
      shops.flat_map do |shop|
        shop["accounts"].map { |account| [shop["name"], account["email"], account["role"], shop["password"]] }
      end
    end

    private

    def shops = @shops ||= read("shop.json")["shops"]

    def read(name) = JSON.parse(File.read(File.join(FOLDER, name)))

    def load_shop(hash)
      id = SecureRandom.uuid
      @db[:shops].insert(
        id: id,
        name: hash["name"],
        slug: hash["slug"],
        locale: hash["locale"],
        distance_unit: hash["distance_unit"],
        time_zone: hash["time_zone"],
        paper: hash["locale"] == "en-US" ? "letter" : "a4",
        demo: true,
        created_at: @clock.now
      )
      owner = Actor.account(load_accounts(id, hash))
      shop = Shop.new(@db, id, actor: owner, clock: @clock)
      shop.transaction do
        load_documents(shop, hash)
        hash["vehicles"].each { |vehicle| load_vehicle(shop, vehicle) }
        Features::Record::ActLog.new(shop).append("demo-loaded", hash["name"], {})
      end
      lived(shop, hash)
    end

    # What a shop has done so far.
    def lived(shop, hash)
      (hash["quotes"] || []).each { |quote| load_quote(shop.id, quote) }
      DemoDay.new(shop, hash["day"]).load if hash["day"]
      DemoHistory.new(shop, hash["history"]).load if hash["history"]
    end

    # As an advisor would have made it, some days ago.
    def load_quote(shop_id, quote)
      advisor = Actor.account(@db[:accounts].where(email: quote["by"]).first)
      shop = Shop.new(@db, shop_id, actor: advisor, clock: DaysAgo.new(@clock, quote["days_ago"]))
      desk = Features::Quotes::Desk.new(shop)
      id = desk.start(shop[:vehicles].where(plate: quote["plate"]).get(:id))
      stored = desk.store_draft(id, 1, content(quote)).at_once
      desk.save(id, stored["draft"]["version"], stored["priced_with"]) if quote["saved"]
      load_offer(shop_id, advisor, id, quote["offer"]) if quote["offer"]
      load_bay(shop_id, id, quote["bay"]) if quote["bay"]
    end

    def content(quote)
      start = NimbleLedger::Quote::Content.start
      scopes = quote["scopes"].map { |scope| start["scopes"].first.merge(scope) }
      start.merge("scopes" => scopes, "codes" => quote["codes"] || false)
    end

    # What was offered of it, and what was said to that.
    def load_offer(shop_id, advisor, quote_id, offer)
      shop = Shop.new(@db, shop_id, actor: advisor, clock: DaysAgo.new(@clock, offer["days_ago"]))
      vehicle = shop[:vehicles].where(id: shop[:quotes].where(id: quote_id).get(:vehicle_id)).first
      owner = shop[:customers].where(id: vehicle[:customer_id]).first
      given = {
        "revision" => 1,
        "channel" => offer["channel"],
        "recipient" => owner[:name],
        "address" => offer["address"] || owner[:phone]
      }
      made = Features::Offers::Sending.new(shop).offer(quote_id, given)
      shop[:offers].where(id: made.id).update(seen_at: shop.now) if offer["seen"]
      said(shop, made, offer)
    end

    def said(shop, made, offer)
      link = Shop.new(@db, shop.id, actor: Actor.customer_link(made.id), clock: DaysAgo.new(@clock, offer["days_ago"]))
      question, answer = offer.values_at("question", "answer")
      Features::Offers::Answers.new(link).ask(made.id, question, name: made.row[:recipient]) if question
      return unless answer

      said =
        Features::Offers::Answers::Said.new(
          **answer.transform_keys(&:to_sym),
          limit_cents: made.scopes.first.limit_cents
        )
      Features::Offers::Answers.new(answer["how"] == "link" ? link : shop).take(made.id, said)
    end

    # What the bay has done of it since.
    def load_bay(shop_id, quote_id, bay)
      technician = Actor.account(@db[:accounts].where(email: bay["technician"]).first)
      shop = Shop.new(@db, shop_id, actor: technician, clock: @clock)
      DemoBay.new(shop, shop[:jobs].where(quote_id: quote_id).first, bay).load
    end

    # A clock that runs some days behind.
    DaysAgo = Struct.new(:clock, :days) { def now = clock.now - (days * 86_400) }
    private_constant :DaysAgo

    # @return [Hash] the owner's row
    def load_accounts(shop_id, hash)
      password = Argon2::Password.new(t_cost: 2, m_cost: 16).create(hash["password"])
      hash["accounts"].each do |account|
        @db[:accounts].insert(
          shop_id: shop_id,
          email: account["email"],
          name: account["name"],
          role: account["role"],
          password_hash: password,
          created_at: @clock.now
        )
      end
      @db[:accounts].where(shop_id: shop_id, role: "owner").order(:id).first
    end

    def load_documents(shop, hash)
      Dir[File.join(FOLDER, "engines", "*.engine.json")].sort.each do |path|
        profile = JSON.parse(File.read(path))
        shop.insert(:engine_profiles, code: profile["code"], revision: 1, profile: Sequel.pg_jsonb(profile))
      end
      shop.insert(:price_lists, revision: 1, catalog: Sequel.pg_jsonb(read("merrow.catalog.json")))
      shop.insert(
        :house_settings,
        revision: 1,
        settings: Sequel.pg_jsonb("settings" => hash["house"], "equipment" => hash["equipment"])
      )
    end

    def load_vehicle(shop, vehicle)
      known = shop[:customers].where(name: vehicle["customer"], phone: vehicle["phone"]).get(:id)
      customer = known || shop.insert(:customers, name: vehicle["customer"], phone: vehicle["phone"])
      id =
        shop.insert(
          :vehicles,
          customer_id: customer,
          plate: vehicle["plate"],
          description: vehicle["description"],
          year: vehicle["year"],
          engine_code: vehicle["engine"],
          odometer_km: vehicle["odometer_km"],
          plugs_changed_km: vehicle["plugs_changed_km"],
          plugs_changed_on: vehicle["plugs_changed_on"],
          compound_used: vehicle["compound_used"],
          lives: vehicle["lives"],
          condition: Sequel.pg_jsonb({ "corrosion" => vehicle["corrosion"] }.compact)
        )
      Features::Vehicles::Car.note_reading(shop, { id: id }, vehicle["odometer_km"], "")
    end
  end
end
