# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # The end of a job: what was done and found is written to the car once, cylinder by cylinder; what has to be
      # looked at again gets its day; and the act is in the record.
      class HandOver
        FITTED = %w[plug coil wire boot].freeze

        # @param card [Cards::Card]
        # @param fold [NimbleLedger::Card::Fold]
        def initialize(shop, card, fold)
          @shop = shop
          @card = card
          @fold = fold
          @state = fold.state
          @work = card.work
          @vehicle = @shop[:quotes].where(id: card.job[:quote_id]).get(:vehicle_id)
        end

        # @param odometer_km [Integer, nil] as it goes out
        # @raise [Refusal] 409 for a card that is not finished, or a job that was handed over
        def take(odometer_km)
          @shop.transaction do
            refuse
            read(odometer_km)
            fittings
            plugs
            findings
            follow_ups
            @shop[:jobs].where(id: @card.job[:id]).update(handed_over_at: @shop.now, updated_at: @shop.now)
            Feature.publish(:handed_over, @shop, finished: FinishedJob.of(@shop, @card, @fold))
            Record::ActLog.new(@shop).append("job-handed-over", "job #{@card.job[:number]}", recorded, witnessed: marks)
            Live.tell(@shop, "jobs")
          end
        end

        # Work that was done, as the card says.
        # @return [Array<NimbleLedger::Profile::Target>]
        def done = NimbleLedger::Card::WorkDone.of(@work.targets, @state["done"])

        private

        # One hand-over at a time: of two at once the second finds the job handed over.
        def refuse
          if @shop[:jobs].where(id: @card.job[:id]).for_update.get(:handed_over_at)
            raise Refusal.new(409, "handed_over", "Job #{@card.job[:number]} was handed over already.")
          end
          return if @state["finished_at"]

          raise Refusal.new(409, "not_finished", "The card of job #{@card.job[:number]} is not finished yet.")
        end

        def garage = @garage ||= Vehicles::Garage.new(@shop)
        def vehicle = garage.find(@vehicle)

        def read(odometer_km)
          return if odometer_km.nil?

          Vehicles::Car.believe(@shop, vehicle, odometer_km, nil, path: "/odometer_km")
          Vehicles::Car.note_reading(@shop, vehicle, odometer_km, nil)
          @shop[:vehicles].where(id: @vehicle).update(odometer_km: odometer_km)
        end

        def fittings
          done
            .select { |target| FITTED.include?(target.work) }
            .each do |target|
              target.cylinders.each do |cylinder|
                @shop.insert(
                  :fittings,
                  vehicle_id: @vehicle,
                  work: target.work,
                  cylinder: cylinder,
                  km: vehicle[:odometer_km],
                  on: @shop.now.to_date,
                  ours: true,
                  by: @shop.profile[:name]
                )
              end
            end
        end

        # New plugs start at nothing: for the whole car where all are new, else cylinder by cylinder.
        def plugs
          new = done.select(&:plug?).flat_map(&:cylinders).uniq
          return if new.empty?

          all = @work.car.engine.cylinders.map(&:number)
          values = (all - new).empty? ? all_new : some_new(new)
          @shop[:vehicles].where(id: @vehicle).update(values)
        end

        def all_new
          {
            plugs_changed_km: vehicle[:odometer_km],
            plugs_changed_on: @shop.now.to_date,
            compound_used: compound?,
            fitted: new_plug && Sequel.pg_jsonb(new_plug),
            cylinders: Sequel.pg_jsonb({})
          }
        end

        def some_new(numbers)
          known = vehicle
          own = {
            "plugs_changed_km" => known[:odometer_km],
            "plugs_changed_years" => 0,
            "compound_used" => compound?,
            "fitted" => new_plug
          }.compact
          { cylinders: Sequel.pg_jsonb(known[:cylinders].to_h.merge(numbers.to_h { |number| [number.to_s, own] })) }
        end

        # What is in the head now, where it is another plug than the engine's profile knows.
        # @return [Hash, nil] "construction", "interval_km"
        def new_plug
          @new_plug ||= NimbleLedger::Parts::PlugChoice.new(@work.car.catalog).fitted(@work.car.engine.plug("part"))
          @new_plug unless @new_plug == @work.car.engine.plugs.slice("construction", "interval_km")
        end

        def compound? = NimbleLedger::Parts::Compound.used?(@work.car.engine, @work.car.house)

        # What was found and not mended on this job stays with the car.
        def findings
          mended = done.flat_map { |target| target.cylinders.map { |number| [target.work, number] } }
          @state["found"].each do |found|
            works = NimbleLedger::Card::Proposal::WORKS.fetch(found["finding"], [])
            next if works.any? { |work| mended.include?([work, found["cylinder"]]) }

            @shop.insert(
              :findings,
              vehicle_id: @vehicle,
              cylinder: found["cylinder"],
              kind: found["finding"],
              words: found["words"].to_s.strip[0, NimbleLedger::Card::Finding::WORDS_MAX]
            )
          end
        end

        def follow_ups
          @state["found"].each do |found|
            weeks = NimbleLedger::Card::Proposal.new(found["finding"], found["cylinder"], @work).follow_up_weeks or next
            place = found["cylinder"] ? "cylinder #{found["cylinder"]}" : "the engine"
            @shop.insert(
              :follow_ups,
              vehicle_id: @vehicle,
              job_id: @card.job[:id],
              on: @shop.now.to_date + (weeks * 7),
              words: "Look at the plug of #{place} again"
            )
          end
        end

        # From here on the marks of the card are part of what was done.
        def marks = { job_marks: [@card.job[:id]] }

        def recorded
          {
            "done" => done.map(&:id),
            "found" => @state["found"].map { |found| found["finding"] },
            "left" => @state["left"].keys.sort,
            "marks" => @shop[:job_marks].where(job_id: @card.job[:id]).count
          }
        end
      end
    end
  end
end
