# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # What the shop takes of what was learned (model.md section 12): a lesson that is taken corrects every quote
      # priced from then on, until it is taken back; saved quotes keep what they were made with. By hand, or by itself
      # whenever something was learned. Every act is a row, and none is ever changed.
      class Lessons
        def initialize(shop)
          @shop = shop
        end

        # What an estimate for an engine is corrected by.
        # @param engine [NimbleLedger::Profile::Engine]
        # @param id [String, nil] of the lesson in force, where that is known
        # @return [Hash, nil] as an estimate request takes it (learned); nil where nothing is in force, or the engine is
        #   only sketched: its own uncertainty is wider than any day's
        def for(engine, id: in_force_id)
          return nil if id.nil? || engine.provisional?

          lesson = Library.worked_out(:lesson, id) { row_of(id)[:lesson].to_h }
          hours = lesson["engines"][engine.code] || lesson["other"]
          { "hours" => hours, "outcomes" => lesson["outcomes"] }
        end

        # @return [Hash, nil] the row of the lesson in force
        def in_force = in_force_id && row_of(in_force_id)

        # @return [Boolean] whether what is learned is taken by itself
        def automatic? = rows.where(act: %w[automatic by-hand]).get(:act) == "automatic"

        # @param given [Hash] see the contract, LedgerLesson
        def act(given)
          case given["act"]
          when "take"
            take(given["state"].to_s)
          when "back"
            take_back(given["lesson"].to_s)
          else
            automatic(given["act"] == "automatic")
          end
        end

        # Takes what was learned.
        # @param state [String] of the ledger, as it was looked at
        # @raise [Refusal] 409 where something newer was learned meanwhile, or it is taken already
        def take(state)
          learned = Learned.new(@shop)
          unless learned.state == state && learned.last
            raise Refusal.new(409, "moved_on", "Something newer was learned meanwhile: look at it, then take it.")
          end

          alone do |last|
            refuse_taken(last, state)
            add("take", last, state: state, lesson: Sequel.pg_jsonb(learned.last["lesson"]))
          end
        end

        # Takes the lesson in force back: what was in force before it is again.
        # @param id [String] of the lesson, as it was looked at
        # @raise [Refusal] 409 where another is in force meanwhile
        def take_back(id)
          alone do |last|
            unless last && last[:in_force] == id
              raise Refusal.new(409, "moved_on", "Another lesson is in force meanwhile: look again.")
            end

            add("back", last, in_force: before(id))
          end
        end

        # @param on [Boolean] whether what is learned is taken by itself from now on
        def automatic(on)
          alone { |last| add(on ? "automatic" : "by-hand", last, in_force: last && last[:in_force]) }
          learned if on
        end

        # Something was learned: taken where that is wished.
        def learned
          state = Learned.new(@shop).state
          take(state) if automatic? && state && in_force&.dig(:state) != state
        end

        private

        def rows = @shop[:ledger_lessons].order(Sequel.desc(:number))
        def in_force_id = rows.get(:in_force)
        def row_of(id) = @shop[:ledger_lessons].where(id: id).first

        # One act at a time.
        def alone
          @shop.transaction do
            @shop.alone("lessons")
            yield(rows.first)
            Live.tell(@shop, "ledger")
          end
        end

        def refuse_taken(last, state)
          return unless last && last[:in_force] && row_of(last[:in_force])[:state] == state

          raise Refusal.new(409, "taken", "This lesson is in force already.")
        end

        # What was in force when a lesson was taken.
        def before(id)
          taken = row_of(id)
          @shop[:ledger_lessons].where { number < taken[:number] }.order(Sequel.desc(:number)).get(:in_force)
        end

        def add(act, last, in_force: nil, **values)
          id = SecureRandom.uuid
          number = last ? last[:number] + 1 : 1
          force = act == "take" ? id : in_force
          @shop.insert(:ledger_lessons, { id: id, number: number, act: act, in_force: force }.merge(values))
        end
      end
    end
  end
end
