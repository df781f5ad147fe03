# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # Promise against truth, as the page shows it: the last jobs from what was quoted to what they took, whether
      # promises hold, what costs most, by whom. A technician sees the shop's figures and their own, not each other's.
      class Page
        LAST = 26
        MOST = 200
        FEW = 10

        # @param account [Hash] who looks: "role", "name"
        def initialize(shop, account)
          @shop = shop
          @account = account
        end

        # @return [Hash] see the contract, LedgerPage
        def to_h
          learned = Learned.new(@shop)
          learned.ask
          book = Posting.new(@shop)
          sums = book.sums
          {
            "jobs" => sums[:jobs],
            "since" => sums[:since]&.iso8601,
            "learning" => learned.progress,
            "last" => book.last(LAST).map { |row| stroke(row) },
            "sums" => told_sums(sums),
            "entwined" => entwined(book.pairs),
            "learned" => learned.last && told(learned.last),
            "comebacks" => Comebacks.new(@shop).rows
          }.merge(Offered.new(@shop, learned, house).to_h)
        end

        # The jobs behind a figure.
        # @param wanted [Hash] "engine", "technician", "month": those that are given
        # @return [Hash] see the contract, LedgerJobs
        def jobs(wanted)
          return { "jobs" => [] } if wanted["technician"] && !mine?(wanted["technician"])

          book = Posting.new(@shop)
          { "jobs" => book.last(MOST, behind(book.in_force, wanted)).reverse.map { |row| stroke(row) } }
        end

        private

        def behind(entries, wanted)
          found =
            %w[engine technician].reduce(entries) do |rows, key|
              wanted[key] ? rows.where(Sequel.lit("entry ->> ? = ?", key, wanted[key])) : rows
            end
          return found unless wanted["month"]

          found.where(Sequel.lit("to_char(finished_at AT TIME ZONE 'UTC', 'YYYY-MM') = ?", wanted["month"]))
        end

        def mine?(name) = @account[:role] != "technician" || name == @account[:name]

        def stroke(row)
          entry = row[:entry]
          {
            "id" => row[:id],
            "finished" => row[:finished_at].iso8601,
            "engine" => entry["engine"],
            "technician" => mine?(entry["technician"]) ? entry["technician"] : nil,
            "quoted_hours" => entry["quoted_hours"],
            "hours" => entry["actual_minutes"] / 60.0,
            "trouble_hours" => entry["trouble_minutes"] / 60.0,
            "billed_cents" => row[:billed_cents],
            "why" => row[:why]
          }
        end

        # What fought back is apart: it may have been agreed to and paid.
        def told_sums(sums)
          plain = sums[:worked] - sums[:trouble]
          {
            "quoted_hours" => sums[:quoted],
            "worked_hours" => plain,
            "trouble_hours" => sums[:trouble],
            "beyond_cents" => cents(plain - sums[:quoted])
          }
        end

        def cents(hours) = NimbleLedger::Ledger::Scorecard.cents(hours, house)
        def house = @house ||= HouseRules::House.new(@shop).settings

        def entwined(pairs)
          NimbleLedger::Ledger::ConfoundedEffects
            .of(pairs)
            .select { |pair| mine?(pair.technician) }
            .map { |pair| pair.to_h.transform_keys(&:to_s) }
        end

        def told(last)
          answer = last["answer"]
          card = answer["scorecard"]
          {
            "coverage" => answer["backtest"].slice("estimated", "corrected"),
            "engines" => rows_of(card["engines"], answer["engines"]),
            "technicians" => rows_of(card["technicians"].select { |name, _row| mine?(name) }, answer["technicians"]),
            "months" => rows_of(card["months"], {}),
            "tasks" => tasks(last["steps"]),
            "protocols" => last["protocols"],
            "against_guide" => against_guide(card["engines"].values)
          }
        end

        def rows_of(card, effects)
          card.map do |name, row|
            row.slice("jobs", "too_few", "hours_lost", "hours_lost_low", "hours_lost_high", "against_guide").merge(
              "name" => name,
              "over" => effects[name] && NimbleLedger::Time::Correction.share(effects[name]),
              "beyond_cents" => cents(row["hours_lost"]),
              "held" => row["estimated"]["p80"]["share"]
            )
          end
        end

        # Whose hours were nearer, where a guide's were typed beside ours.
        def against_guide(rows)
          told = rows.filter_map { |row| row["against_guide"] }
          told.any? ? told.reduce { |one, other| one.merge(other) { |_key, a, b| a + b } } : nil
        end

        # Steps and work that cost most beyond what was reckoned.
        # @param steps [Array<Hash>] see NimbleLedger::Ledger::StepTimes
        def tasks(steps)
          steps
            .first(FEW)
            .map do |row|
              piece = NimbleLedger::Time::PieceId.read(row["task"])
              row.merge("label" => label(row["engine"], piece), "part" => piece.act.to_s)
            end
        end

        # What a step or work is called on its engine; its id where the engine is no longer here.
        def label(code, piece)
          head = Library.heads(@shop).where(code: code).order(Sequel.desc(:revision)).first or return piece.to_s
          engine = Library.engine(@shop, head[:id])
          (piece.kind == "target" ? engine.target(piece.ref) : engine.step(piece.ref))&.label || piece.to_s
        end
      end
    end
  end
end
