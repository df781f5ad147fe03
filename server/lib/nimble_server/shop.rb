# frozen_string_literal: true

require "tzinfo"

module NimbleServer
  # A shop's own rows and nothing else: every query of a signed-in request goes through here.
  #
  #   shop = Shop.new(db, shop_id, actor: Actor.account(row), clock: Time)
  #   shop[:quotes].where(number: 1042).first
  #   shop.insert(:customers, name: "Ines Calloway")  #=> id
  class Shop
    # acts: what this shop's transaction does, waiting to go into the record when it ends.
    attr_reader :db, :id, :actor, :acts

    # @param actor [Actor] recorded on what is made and changed
    # @param clock [#now]
    # @param keys [Features::Record::Keys, nil] what its record is signed with; nil: those of this process
    def initialize(db, id, actor: Actor.system("none"), clock: Time, keys: nil)
      @keys = keys
      @db = db
      @id = id
      @actor = actor
      @clock = clock
      @acts = []
      @depth = 0
    end

    # @return [Sequel::Dataset] rows of this shop
    def [](table) = db[table].where(Sequel[table][:shop_id] => id)

    # Adds a row with shop, id, actor and time.
    # @return [String] its id
    def insert(table, values)
      row = { shop_id: id, id: SecureRandom.uuid, created_by: actor.account_id, created_at: now }.merge(values)
      transaction { db[table].insert(row) }
      row[:id]
    end

    def now = @clock.now

    # The day it is where the shop is.
    # @return [Date]
    def today = day(now)

    # @param time [Time]
    # @return [Date]
    def day(time) = TZInfo::Timezone.get(profile[:time_zone]).utc_to_local(time.getutc).to_date

    # All or nothing; before the outermost one ends, what it did that binds somebody goes into the record.
    def transaction(&block) = @depth.positive? ? yield : outermost(&block)

    # One at a time through what is named, in this shop, until the transaction ends: frozen rows cannot be locked
    # themselves.
    def alone(name) =
      db.get(Sequel.function(:pg_advisory_xact_lock, Sequel.function(:hashtextextended, "#{name}:#{id}", 0)))

    # The next number of a counter, from a row locked until the transaction ends.
    def next_number(name, start: 1001)
      db[:shop_counters].insert_conflict.insert(shop_id: id, name: name, value: start - 1)
      row = self[:shop_counters].where(name: name)
      row.for_update.first
      row.returning(:value).update(value: Sequel[:value] + 1).first[:value]
    end

    # @return [String] id of the newest revision of a revisioned document (price_lists, house_settings)
    def newest(table) = self[table].order(Sequel.desc(:revision)).get(:id)

    def profile = @profile ||= db[:shops].where(id: id).first

    # Whether carrier and scan tool are stand-ins that pretend: in the demo, and nowhere else. A shop of somebody's own
    # has none until one is connected.
    def stand_ins? = profile[:demo]

    # Ids of what a quote is priced with: price list, house settings, and the lesson taken, if any.
    InForce = Struct.new(:prices, :house, :lesson)

    # What is in force this moment, asked for at once, with the shop's own details.
    # @return [InForce]
    def in_force
      newest = ->(table, column, by) { self[table].order(Sequel.desc(by)).limit(1).select(column) }
      row =
        db[:shops]
          .where(id: id)
          .select_all(:shops)
          .select_append(
            newest.call(:price_lists, :id, :revision).as(:prices_in_force),
            newest.call(:house_settings, :id, :revision).as(:house_in_force),
            newest.call(:ledger_lessons, :in_force, :number).as(:lesson_in_force)
          )
          .first
      found = %i[prices_in_force house_in_force lesson_in_force].map { |name| row.delete(name) }
      @profile = row
      InForce.new(*found)
    end

    # Changes how the shop is called, where it is and how it writes.
    # @param details [Hash] columns of shops
    def describe(details)
      transaction { db[:shops].where(id: id).update(details.transform_keys(&:to_sym)) }
      @profile = @text = nil
    end

    # Numbers, dates and distances as this shop writes them.
    def text = @text ||= Documents::ShopText.new(**profile.slice(:locale, :distance_unit, :time_zone))

    private

    def outermost
      db.transaction do
        @depth = 1
        yield.tap { Features::Record::ActLog.new(self, keys: @keys).settle(@acts) }
      end
    ensure
      @depth = 0
      @acts.clear
    end
  end
end
