# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # The bill of a job as its card and its yeses make it: what was agreed, less what was not done, plus what happened
      # and was allowed (NimbleLedger::Bill). Nothing is typed that the card knows.
      class JobBill
        # A line as it was agreed and as it is billed. why: codes of what made the difference.
        Row = Struct.new(:kind, :label, :part, :agreed_cents, :quantity, :cents, :why, keyword_init: true)

        # @param card [Jobs::Cards::Card]
        # @param paid [Array<Hash>] on, means, cents
        def initialize(shop, card, paid: [])
          @shop = shop
          @card = card
          @fold = Jobs::Marks.new(shop).fold(card.job)
          @standing = Jobs::Standings.new(shop).standing(card, @fold)
          @paid = paid
        end

        # Whether all that will be done is done.
        def ready? =
          !@fold.state["finished_at"].nil? || (!@card.job[:called_off_at].nil? && !@card.job[:started_at].nil?)

        # @return [Hash] nimble-ledger.bill-request
        def request =
          @request ||= plain.merge(facts, { "paid" => @paid }.reject { |_, rows| rows.empty? }).merge(found_out)

        # @return [Hash] nimble-ledger.bill
        def answer = @answer ||= NimbleLedger::Bill::Request.build(request).answer

        # What came of the job, for whoever reads the bill: labels of the work, where it happened.
        # @return [Hash{String=>Array<String>}]
        def facts_in_words
          engine = @card.work.car.engine
          labels = ->(ids) { ids.map { |id| engine.target(id).label } }
          happened = facts.fetch("happened", {})
          {
            "not_done" => labels.call(facts.fetch("not_done", [])),
            "tried" => labels.call(facts.fetch("tried", [])),
            "owed" => labels.call(facts.fetch("owed", [])),
            "broken" => labels.call(happened.fetch("broken", {}).keys),
            "thread" => labels.call(happened.fetch("thread", {}).keys),
            "mishaps" => happened.fetch("mishaps", []).map { |one| one["what"] }
          }
        end

        # Agreed beside billed, line by line.
        # @return [Array<Row>]
        def rows
          agreed = as_agreed["lines"].group_by { |line| key(line) }
          billed = answer["lines"].group_by { |line| key(line) }
          (billed.keys | agreed.keys).map { |one| row(agreed[one].to_a, billed[one].to_a) }
        end

        private

        ESTIMATE = (NimbleLedger::Estimate::Request::CAR.keys - %w[warranty] + %w[engine soak codes without]).freeze
        private_constant :ESTIMATE

        def facts = @facts ||= NimbleLedger::Card::Billable.new(@standing, owed: @card.request["warranty"].to_a).to_h

        # As if all of it had been done and nothing had happened; what we owe was left out already.
        def as_agreed
          request = plain.merge(facts.slice("owed")).merge(found_out)
          NimbleLedger::Bill::Request.build(request).answer
        end

        # What was agreed.
        def plain
          @plain ||= {
            "format" => NimbleLedger::Bill::Request::FORMAT,
            "version" => 1,
            "estimate" => @card.request.slice(*ESTIMATE),
            "scopes" => agreed.map { |scope| scope(scope) }
          }
        end

        def agreed = @agreed ||= Jobs::Cards.new(@shop).agreed(@card.job)

        def scope(row)
          request = row.request
          alone = diagnosis_alone(request["diagnosis"])
          {
            "targets" => request["targets"],
            "agreed_cents" => row.total_cents - alone,
            "limit_cents" => row.limit_cents - alone,
            **request.slice("discount", "override", "lines")
          }
        end

        # What finding out comes to alone: it stands beside the scopes on a bill, where it is not credited.
        def diagnosis_alone(diagnosis)
          return 0 unless diagnosis
          return 0 if NimbleLedger::Price::Diagnosis.new(diagnosis["hours"], house: @card.work.car.house).credited?

          alone = plain_of(diagnosis).merge("scopes" => [])
          NimbleLedger::Bill::Request.build(alone).answer["total_cents"]
        end

        def plain_of(diagnosis)
          {
            "format" => NimbleLedger::Bill::Request::FORMAT,
            "version" => 1,
            "estimate" => @card.request.slice(*ESTIMATE),
            "diagnosis" => {
              "hours" => diagnosis["hours"],
              "worked_minutes" => diagnosis["hours"] * 60
            }
          }
        end

        # Finding out as it was agreed; minutes as the trace has them.
        def found_out
          hours = agreed.filter_map { |row| row.request.dig("diagnosis", "hours") }.first or return {}
          { "diagnosis" => { "hours" => hours, "worked_minutes" => traced_minutes || (hours * 60) } }
        end

        def traced_minutes
          content = @shop[:traces].where(quote_id: @card.job[:quote_id]).get(:content)
          minutes = content.to_h.fetch("evidence", []).sum { |one| one["minutes"] || 0 }
          minutes.positive? ? minutes : nil
        end

        def key(line) = [line["kind"], line["part"] || line["label"]]

        def row(agreed, billed)
          line = billed.first || agreed.first
          before, now = [agreed, billed].map { |lines| lines.sum { |one| one["cents"] } }
          Row.new(
            kind: line["kind"],
            label: line["label"],
            part: line["part"],
            agreed_cents: agreed.empty? ? nil : before,
            quantity: billed.sum { |one| one["quantity"] || 0 },
            cents: billed.empty? ? nil : now,
            why: before == now ? [] : why(line["kind"], now - before)
          )
        end

        # What may have made a line another: more comes of what happened, less of what was not done.
        def why(kind, difference)
          return ["limit"] if kind == "above-limit"
          return ["follows"] if %w[tax supplies discount fee].include?(kind)

          happened = facts.key?("happened") ? ["happened"] : []
          less = facts.keys & %w[not_done tried owed]
          return happened + less if kind == "labor"

          difference.positive? ? happened : less
        end
      end
    end
  end
end
