# frozen_string_literal: true

module NimbleServer
  module Features
    module Trace
      # Finding the fault of a quote's car: what is known, kept as it is typed with a version, and what the core makes
      # of it. What the bay has marked (codes read, plugs looked at, layers off) counts without being typed again.
      class Desk
        # @param effort [Proc] gives what one page may compute
        def initialize(shop, effort: -> { NimbleLedger::Access::NodeBudget.new })
          @shop = shop
          @effort = effort
        end

        # @return [Hash] see the contract, TracePage
        def open(quote_id)
          quote = find(quote_id)
          row = rows(quote_id).first
          content = row ? row[:content].to_h : Content.start
          pricing = pricing(quote)
          drawn = drawing(pricing)
          {
            "quote" => Quotes::Rows.quote(quote),
            "vehicle" => Vehicles::Garage.card(pricing.vehicle, @shop.now),
            "engine" => Engines::EngineLibrary.row(pricing.engine_row, pricing.engine),
            "findings" => Vehicles::Findings.new(@shop).of(quote[:vehicle_id]),
            "fittings" => Vehicles::Fittings.new(@shop).of(pricing.vehicle),
            "reach" => drawn["reach"],
            "layers" => drawn["layers"],
            "version" => row ? row[:version] : 0,
            "content" => content
          }.merge(figures(quote, content, pricing))
        end

        # @return [Hash] see the contract, TraceStored
        # @raise [Refusal] 409 with the other's content when somebody stored a newer one
        # @raise [NimbleLedger::InvalidInput] for what cannot be, with its path; nothing is stored then
        def store(quote_id, version, content)
          quote = find(quote_id)
          answer = figures(quote, content, pricing(quote))
          @shop.transaction do
            @shop.alone("trace:#{quote_id}")
            current = rows(quote_id).first
            raise conflict(current) unless (current ? current[:version] : 0) == version

            keep(quote_id, current, content, version + 1)
          end
          { "version" => version + 1, "content" => content }.merge(answer)
        end

        # What the card of its job shows of a trace: what to find out next, and what sits where it did not come from.
        # @return [Hash, nil] see the contract, JobCard; nil where nobody has begun one
        def on_card(quote_id)
          row = rows(quote_id).first or return nil
          quote = find(quote_id)
          sheet = figures(quote, row[:content].to_h, pricing(quote))["sheet"]
          {
            "complaint" => row[:content]["complaint"].to_s,
            "advice" => sheet["advice"],
            "next" => sheet["tests"].first&.slice("test", "cylinder", "with", "minutes"),
            "moved" => sheet["moved"]
          }
        rescue NimbleLedger::InvalidInput, NimbleLedger::ImpossiblePlan
          nil
        end

        # Reads the codes of the quote's car through the scan tool.
        # @return [Hash] see the contract, ScanReport
        def scan(quote_id)
          quote = find(quote_id)
          pricing = pricing(quote)
          numbers = pricing.engine.cylinders.map(&:number)
          Jobs::Scan.new(@shop).ask_for(pricing.vehicle[:plate], numbers)
        end

        private

        def rows(quote_id) = @shop[:traces].where(quote_id: quote_id)
        def find(id) = @shop[:quotes].where(id: id).first || raise(Refusal.not_found("quote"))

        def keep(quote_id, current, content, version)
          told = { version: version, content: Sequel.pg_jsonb(content), updated_at: @shop.now, updated_by: by }
          current ? rows(quote_id).update(told) : @shop.insert(:traces, quote_id: quote_id, **told)
        end

        def by = @shop.actor.account_id

        def pricing(quote)
          draft = Quotes::Drafts.new(@shop).of(quote)
          engine = Library.engine(@shop, quote[:engine_profile_id])
          content, = NimbleLedger::Quote::Content.fit(draft[:content].to_h, engine)
          Quotes::Pricing.new(@shop, quote, content, effort: @effort)
        end

        # The drawing by the hours of plugs: what lies over which cylinder.
        def drawing(pricing)
          head = pricing.engine_row
          Library.worked_out(head[:id], pricing.house.id, "reach") do
            NimbleLedger::Library::EnginePage
              .new(pricing.engine, house: pricing.house.settings, equipment: pricing.house.equipment, only: true)
              .to_h
              .slice("reach", "layers")
          end
        end

        def figures(quote, written, pricing)
          bay = Bay.new(@shop, quote)
          content = Content.new(written, bay)
          request = content.request(pricing.content.request(pricing.content.active), pricing.house)
          documents = NimbleLedger::Documents.new(engine: pricing.engine, catalog: pricing.catalog)
          traced = NimbleLedger::Trace::Request.build(request, documents: documents, base: pricing.house.settings)
          {
            "sheet" => traced.sheet(effort: @effort.call),
            "bay" => bay.to_h,
            "finding_out" => finding_out(content.minutes, pricing)
          }
        end

        # What finding out may cost, as it stands in the quote, and what it has taken so far.
        def finding_out(minutes, pricing)
          sold = pricing.content.diagnosis
          return { "agreed" => nil, "used_hours" => minutes / 60.0 } unless sold

          diagnosis = NimbleLedger::Price::Diagnosis.new(sold["hours"], house: pricing.house.settings)
          used = diagnosis.used(minutes)
          agreed = {
            "hours" => diagnosis.hours,
            "rate_cents" => diagnosis.rate_cents,
            "buys" => sold["buys"].to_s,
            "credited_cents" => used.credited_cents,
            "reached" => used.reached
          }
          { "agreed" => agreed, "used_hours" => used.hours }
        end

        def conflict(current)
          name = current && @shop.db[:accounts].where(shop_id: @shop.id, id: current[:updated_by]).get(:name)
          Refusal.new(
            409,
            "trace_conflict",
            "#{name || "Somebody"} wrote to this trace meanwhile. Both versions are here: choose one, nothing is lost.",
            extra: {
              "trace" => current ? current[:content].to_h : Content.start,
              "theirs_version" => current ? current[:version] : 0,
              "theirs_by" => name
            }.compact
          )
        end
      end
    end
  end
end
