# frozen_string_literal: true

module NimbleServer
  # Engine profiles, price lists and settings as the core's values. Revisions never change, so what was built once is
  # kept by id, and the documents themselves are read only when they are not here yet.
  module Library
    KEEP = 200
    PLANNERS = 16 # each holds what it planned: few, so that a process stays small
    HEAD = %i[shop_id id code revision].freeze
    @built = {}
    @planners = {}
    @looks = {}
    @lock = Mutex.new

    module_function

    # @param id [String] revision id of one of the shop's own rows
    # @return [NimbleLedger::Profile::Engine]
    def engine(shop, id) =
      keep(id) { NimbleLedger::Profile::Engine.build(document(shop, :engine_profiles, id, :profile)) }

    # @return [NimbleLedger::Parts::Catalog]
    def catalog(shop, id) = keep(id) { NimbleLedger::Parts::Catalog.build(document(shop, :price_lists, id, :catalog)) }

    # @return [Array(NimbleLedger::House::Settings, Array<String>)] settings and equipment
    def house(shop, id)
      keep(id) do
        stored = document(shop, :house_settings, id, :settings)
        [NimbleLedger::House::Settings.defaults.with(stored["settings"]), stored["equipment"] || []]
      end
    end

    # Head of the newest revision of an engine by its code, without the profile.
    def newest_engine(shop, code)
      heads(shop).where(code: code).order(Sequel.desc(:revision)).first or raise Refusal.not_found("engine #{code}")
    end

    # A planner for cars alike, made once: it holds on to the engine's own values, so the engine itself is part of the
    # key.
    def planner(engine, house_id, key, &make) = held(@planners, PLANNERS, [engine, house_id, key], &make)

    # What was just worked out of a profile under the pencil, for as long as few others were.
    # @param key [Array] all it depends on
    def looked_at(key, &block) = held(@looks, 8, key, &block)

    # Head of an engine revision.
    # @param id [String]
    def head(shop, id) = worked_out(:head, id) { heads(shop).where(id: id).first.freeze }

    # Heads of the newest revision of every engine, by code.
    def newest_of_each(shop) = heads(shop).distinct(:code).order(:code, Sequel.desc(:revision)).all

    # Heads of all engine revisions, without the profiles.
    def heads(shop) = shop[:engine_profiles].select(*HEAD)

    # What is worked out from revisions that never change is worked out once.
    # @param ids [Array<String>] all it depends on
    def worked_out(*ids, &block) = keep(ids, &block)

    def document(shop, table, id, column)
      row = shop[table].where(id: id).select(column).first or raise Refusal.not_found("revision")
      row[column].to_h
    end
    private_class_method :document

    def keep(id, &make) = held(@built, KEEP, id, &make)
    private_class_method :keep

    # What stands under a key, made when it is not there; the oldest goes when there are too many.
    def held(store, most, key)
      @lock.synchronize { store[key] } ||
        yield.tap do |value|
          @lock.synchronize do
            store.shift if store.size >= most
            store[key] = value
          end
        end
    end
    private_class_method :held
  end
end
