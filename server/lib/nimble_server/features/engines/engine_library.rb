# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # The shop's engines: find, look at, export, import as a new revision. Revisions are append-only; quotes keep
      # theirs.
      class EngineLibrary
        TOO_TANGLED =
          "this engine is too tangled for its shortest plan to be proven: large jobs on it show the best plan found"

        def initialize(shop, effort: -> { NimbleLedger::Access::NodeBudget.new })
          @shop = shop
          @effort = effort
          @house = HouseRules::House.new(shop)
        end

        # What every list shows of an engine.
        def self.row(row, engine)
          {
            "id" => row[:id],
            "code" => engine.code,
            "revision" => row[:revision],
            "name" => engine.name,
            "arrangement" => engine.arrangement,
            "mounting" => engine.mounting,
            "cylinders" => engine.cylinders.size,
            "ignition" => engine.ignition,
            "provisional" => engine.provisional?,
            "notes" => engine.notes
          }
        end

        # Every word must occur in what an advisor may know of an engine: code, name, kind, plug and coil numbers,
        # layers, the cars it sits in.
        # @return [Array<Hash>] see the contract, EngineCard
        def list(text)
          words = text.to_s.downcase.split.first(6)
          cars =
            @shop[:vehicles]
              .select_group(:engine_code)
              .select_append { Sequel.function(:string_agg, Sequel.join(%i[description plate], " "), " ").as(:cars) }
              .select_append { count.function.*.as(:number) }
              .as_hash(:engine_code)
          Library
            .newest_of_each(@shop)
            .filter_map do |head|
              row = card(head, cars.dig(head[:code], :number) || 0)
              row if words.all? { |word| haystack(head, cars.dig(head[:code], :cars)).include?(word) }
            end
        end

        # @param revision [Integer, nil] the newest when nil
        # @return [Hash] see the contract, EnginePage
        def page(code, work: nil, revision: nil)
          head = find(code, revision)
          engine = Library.engine(@shop, head[:id])
          list = @shop.newest(:price_lists)
          drawn =
            Library.worked_out(head[:id], @house.id, list, work) do
              NimbleLedger::Library::EnginePage.new(
                engine,
                house: @house.settings,
                equipment: @house.equipment,
                work: work,
                catalog: Library.catalog(@shop, list)
              ).to_h
            end
          EngineLibrary.row(head, engine).merge(
            "profile" => engine.document,
            "revisions" => revisions(code),
            "warnings" => engine.warnings,
            "page" => drawn,
            "learned" => learned(engine)
          )
        end

        # What quotes on it are corrected by, beside the hours of its profile.
        # @return [Hash, nil] jobs, over_low, over_high
        def learned(engine)
          given = Ledger::Lessons.new(@shop).for(engine) or return nil
          correction = NimbleLedger::Time::Correction.from(given["hours"])
          { "jobs" => correction.jobs, "over_low" => correction.over.begin, "over_high" => correction.over.end }
        end

        # @return [NimbleLedger::Profile::Engine]
        def engine(code, revision = nil) = Library.engine(@shop, find(code, revision)[:id])

        # What an import would do, without doing it.
        # @raise [NimbleLedger::InvalidInput] invalid_profile, with the path of every fault
        # @return [Hash] see the contract, ImportReport
        def report(profile)
          engine = NimbleLedger::Profile::Engine.build(profile)
          code = Code.new(@shop, engine.code)
          code.refuse_address
          known = code.newest
          before = known && Library.engine(@shop, known[:id])
          difference = before && NimbleLedger::Library::Difference.new(before.source, engine.source)
          {
            "code" => engine.code,
            "name" => engine.name,
            "cylinders" => engine.cylinders.size,
            "steps" => engine.steps.size,
            "targets" => engine.targets.size,
            "revision" => (known ? known[:revision] : 0) + 1,
            "known" => !known.nil?,
            "same" => difference&.same? || false,
            "changes" => difference ? difference.lines : [],
            "warnings" => engine.warnings + tangled(engine),
            "unpriced" => unpriced(engine)
          }
        end

        # Keeps a profile as the next revision of its code.
        # @param why [String] what whoever keeps it says of it
        # @raise [Refusal] 409 when it is the newest revision already
        # @return [Hash] the report of what was done
        def import(profile, why: "")
          NimbleLedger::Shape.open_object.check!(profile, what: "engine profile", code: "invalid_profile")
          @shop.transaction do
            @shop.alone("engine:#{profile["code"]}")
            report = report(profile)
            if report["same"]
              raise Refusal.new(
                      409,
                      "same_profile",
                      "#{report["code"]} revision #{report["revision"] - 1} is the same as this file; " \
                        "nothing was stored."
                    )
            end

            @shop.insert(
              :engine_profiles,
              code: report["code"],
              revision: report["revision"],
              profile: Sequel.pg_jsonb(profile),
              why: why
            )
            report
          end
        end

        private

        def find(code, revision)
          return Library.newest_engine(@shop, code) unless revision

          Library.heads(@shop).where(code: code, revision: revision).first or
            raise Refusal.not_found("revision of engine #{code}")
        end

        def revisions(code)
          accounts = @shop.db[:accounts].where(shop_id: @shop.id).select_hash(:id, :name)
          @shop[:engine_profiles]
            .where(code: code)
            .order(Sequel.desc(:revision))
            .select(:revision, :created_at, :created_by, :why)
            .map do |row|
              {
                "revision" => row[:revision],
                "created_at" => row[:created_at].iso8601,
                "by" => accounts[row[:created_by]],
                "why" => row[:why]
              }
            end
        end

        # Whether the shortest plan of everything it offers can be proven (model.md section 2, "Effort").
        def tangled(engine)
          request =
            NimbleLedger::Estimate::Request.build(
              {
                "format" => "nimble-ledger.estimate-request",
                "version" => 1,
                "engine" => {
                },
                "targets" => engine.targets.map(&:id),
                "equipment" => engine.equipment
              },
              documents: NimbleLedger::Documents.new(engine: engine)
            )
          request.job(effort: @effort.call).plan.proven? ? [] : [{ "path" => "/targets", "message" => TOO_TANGLED }]
        rescue NimbleLedger::ImpossiblePlan
          []
        end

        def unpriced(engine)
          catalog = Library.catalog(@shop, @shop.newest(:price_lists))
          NimbleLedger::Library::EnginePage.new(engine, catalog: catalog).unpriced
        end

        # One line of the library: what it is, and the hours of its plugs from easiest to hardest.
        def card(head, cars)
          engine = Library.engine(@shop, head[:id])
          plugs =
            Library.worked_out(head[:id], @house.id, "plugs") do
              NimbleLedger::Library::EnginePage
                .new(engine, house: @house.settings, equipment: @house.equipment)
                .soundings
                .find { |row| row["work"] == "plug" }
            end
          hours = plugs["cylinders"].select { |row| row["hours"] }
          EngineLibrary.row(head, engine).merge(
            "vehicles" => cars,
            "all_plugs" => plugs["all"],
            "easiest" => hours.min_by { |row| [row["hours"], row["cylinder"]] },
            "hardest" => hours.max_by { |row| [row["hours"], -row["cylinder"]] }
          )
        end

        def haystack(head, cars)
          words =
            Library.worked_out(head[:id], "words") do
              source = Library.engine(@shop, head[:id]).source
              kind =
                source.values_at(
                  "code",
                  "name",
                  "notes",
                  "arrangement",
                  "mounting",
                  "head",
                  "aspiration",
                  "injection",
                  "ignition"
                )
              parts = [
                source["plug"]["part"],
                *source["targets"].filter_map { |target| target.dig("plug", "part") },
                *(source["coils"] || []).map { |coil| coil["part"] }
              ].uniq
              (kind + parts + source["steps"].map { |step| step["label"] } + ["#{source["cylinders"].size} cylinders"])
                .compact
                .join(" ")
                .downcase
            end
          "#{words} #{cars.to_s.downcase}"
        end
      end
    end
  end
end
