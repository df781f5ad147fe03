# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # The card of a job: what was agreed, frozen as one plan with what the card shows of it. A yes to more makes the
      # next revision; pieces keep their ids, so that what was done stays done.
      class Cards
        # job: row; revision; request: what was agreed, as one request; sheet: what the card shows; counted: what
        # happened and is in the agreed price already.
        Card =
          Struct.new(:job, :revision, :request, :sheet, :counted) do
            # @return [NimbleLedger::Job] as it was agreed
            def work = @work ||= NimbleLedger::Estimate::Request.build(request).job

            # The same at the prices of another list: what is frozen knows those of the parts it takes and no others.
            # @param catalog [NimbleLedger::Parts::Catalog]
            def priced_by(catalog)
              documents = NimbleLedger::Documents.new(catalog: catalog)
              NimbleLedger::Estimate::Request.build(request, documents: documents).job
            end
          end

        def initialize(shop)
          @shop = shop
        end

        # @param id [String] of a job
        # @return [Hash] row
        # @raise [Refusal] 404
        def job(id) = @shop[:jobs].where(id: id).first || raise(Refusal.not_found("job"))

        # The card as it is now; frozen here when something was agreed since.
        # @return [Card]
        # @raise [Refusal] 409 where all that was agreed to was taken back
        def of(job)
          agreed = agreed_scopes(job)
          raise NOTHING_AGREED if agreed.empty?

          key = agreed.map { |scope| scope[:scope_id] }.join(" ")
          card = newest(job, key) || @shop.transaction { freeze_card(job, key, agreed) }
          card.counted = counted(agreed)
          card
        end

        # One scope that was agreed to: the whole it came to, up to what, and its request as it was frozen.
        Agreed = Struct.new(:scope_id, :total_cents, :limit_cents, :request, keyword_init: true)

        # What is agreed on a job, in the order of the yeses; a supplement holds the whole anew.
        # @return [Array<Agreed>]
        def agreed(job)
          agreed_scopes(job).map do |row|
            request = @shop[:quote_scopes].where(id: row[:scope_id]).get(:request).to_h
            Agreed.new(**row.slice(:scope_id, :total_cents, :limit_cents), request: JSON.parse(JSON.generate(request)))
          end
        end

        NOTHING_AGREED =
          Refusal.new(409, "nothing_agreed", "Nothing is agreed to on this job any more: it has no card.")
        private_constant :NOTHING_AGREED

        private

        def newest(job, key)
          row = @shop[:job_cards].where(job_id: job[:id]).order(Sequel.desc(:revision)).first
          row && row[:agreed] == key ? Card.new(job, row[:revision], row[:request].to_h, row[:sheet].to_h) : nil
        end

        def freeze_card(job, key, agreed)
          @shop.alone("card:#{job[:id]}")
          made = newest(job, key) and return made
          request = joined(agreed)
          asked = NimbleLedger::Estimate::Request.build(request)
          sheet = NimbleLedger::Card::Sheet.new(asked.job(car: asked.car.with(plug_notes: plug_notes(job)))).to_h
          revision = (@shop[:job_cards].where(job_id: job[:id]).max(:revision) || 0) + 1
          @shop.insert(
            :job_cards,
            job_id: job[:id],
            revision: revision,
            agreed: key,
            request: Sequel.pg_jsonb(request),
            sheet: Sequel.pg_jsonb(sheet)
          )
          Record::ActLog.new(@shop).append("card-frozen", "job #{job[:number]}, card #{revision}", {})
          newest(job, key)
        end

        # What is noted of the plugs of the job's car, as it is now.
        def plug_notes(job)
          vehicle = @shop[:quotes].where(id: job[:quote_id]).get(:vehicle_id)
          NimbleLedger::Bench::PlugNotes.build(@shop[:vehicles].where(id: vehicle).get(:plug_notes)&.to_h)
        end

        # Scopes with a yes, as they were agreed; a supplement is the whole of what is done, and starts anew.
        # @return [Array<Hash>] scope_id, request
        def agreed_scopes(job)
          columns = [
            Sequel[:offer_scopes][:scope_id],
            Sequel[:offers][:job_id],
            Sequel[:offer_scopes][:total_cents],
            Sequel[:offer_answers][:limit_cents]
          ]
          rows = Offers::Answered.of(@shop, job[:quote_id], "yes").select(*columns).all
          rows.each_with_object([]) { |row, kept| row[:job_id] ? kept.replace([row]) : kept << row }
        end

        # What happened before a yes that was about it (Stop), as it stands in what was agreed to.
        def counted(agreed)
          agreed.flat_map do |row|
            scope = @shop[:quote_scopes].where(id: row[:scope_id]).select(:revision_id, :position).first
            content = @shop[:quote_revisions].where(id: scope[:revision_id]).get(:content).to_h
            JSON.parse(JSON.generate(content.dig("scopes", scope[:position], "trouble") || []))
          end
        end

        # What was agreed as one request: the newest of them, with the work of all.
        def joined(agreed)
          requests = agreed.map { |scope| @shop[:quote_scopes].where(id: scope[:scope_id]).get(:request).to_h }
          plain = JSON.parse(JSON.generate(requests))
          return plain.first if plain.one?

          whole = plain.last.except("override", "discount")
          whole.merge(
            "targets" => plain.flat_map { |one| one["targets"] }.uniq,
            "catalog" => merged_catalog(plain.map { |one| one["catalog"] }),
            "warranty" => plain.flat_map { |one| one["warranty"].to_a }.uniq,
            "lines" => plain.flat_map { |one| one["lines"].to_a }
          )
        end

        def merged_catalog(catalogs)
          lists = %w[items offers shelf].to_h { |key| [key, catalogs.flat_map { |one| one[key].to_a }.uniq] }
          catalogs.last.merge(lists)
        end
      end
    end
  end
end
