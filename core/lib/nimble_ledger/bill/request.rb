# frozen_string_literal: true

require "date"

module NimbleLedger
  module Bill
    # A bill request (formats.md): what was agreed and what came of it, answered with the bill.
    class Request
      FORMAT = "nimble-ledger.bill-request"
      # How money comes in, or goes back.
      MEANS = %w[cash card bank other].freeze
      id = Shape.string(max: 80)
      cents = Shape.integer(max: 100_000_000)
      targets = Shape.list(id, max: Profile::MAX_TARGETS, unique: true)
      pieces =
        Shape.list(
          Shape.object(required: { "part" => Shape.string(max: 60), "quantity" => Shape.integer(min: 1, max: 1000) }),
          max: 400
        )
      counts = Shape.map(Shape.integer(max: 64), max: 64)
      line =
        Shape.object(
          required: Price::HandLine::SHAPE.required,
          optional: Price::HandLine::SHAPE.optional.merge("done" => Shape.boolean)
        )
      scope =
        Shape.object(
          required: {
            "targets" => Shape.list(id, min: 1, max: Profile::MAX_TARGETS, unique: true),
            "agreed_cents" => cents,
            "limit_cents" => cents
          },
          optional: {
            **Estimate::Request::JOB.slice("discount", "override"),
            "lines" => Shape.list(line, max: Price::HandLine::MAX)
          }
        )
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "estimate" =>
              Shape.object(
                required: {
                  "engine" => Estimate::Request::ENGINE,
                  "catalog" => Estimate::Request::CAR["catalog"]
                },
                optional: {
                  **Estimate::Request::CAR,
                  **Estimate::Request::JOB.slice("soak", "codes", "without")
                }
              ),
            "scopes" => Shape.list(scope, max: 40)
          },
          optional: {
            "not_done" => targets,
            "tried" => targets,
            "owed" => targets,
            "unused" => pieces,
            "used" => pieces,
            "happened" =>
              Shape.object(
                optional: {
                  "broken" => counts,
                  "thread" => counts,
                  "mishaps" =>
                    Shape.list(Shape.object(required: { "step" => id, "what" => Shape.string(max: 400) }), max: 80)
                }
              ),
            "worked_minutes" => Shape.number(max: 100_000),
            "diagnosis" =>
              Shape.object(
                required: {
                  "hours" => Shape.number(above: 0, max: 99.9),
                  "worked_minutes" => Shape.number(max: 100_000)
                }
              ),
            "paid" =>
              Shape.list(
                Shape.object(
                  required: {
                    "on" => Shape.string(max: 10, pattern: /\A\d{4}-\d\d-\d\d\z/),
                    "means" => Shape.one_of(*MEANS),
                    "cents" => Shape.integer(min: -100_000_000, max: 100_000_000)
                  }
                ),
                max: 200
              )
          }
        )

      # @param hash [Hash] parsed JSON
      # @param documents [Documents] where engine and catalog come from
      # @param base [House::Settings]
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, documents: Documents.new, base: House::Settings.defaults)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, Estimate::CarPart.new(hash["estimate"], documents: documents, base: base, path: "/estimate"))
      end

      # @param part [Estimate::CarPart]
      def initialize(hash, part)
        @hash = hash
        @part = part
        @engine = part.car.engine
        Checks.new(hash, part).check!
        @not_done = hash["not_done"] || []
        @owed = (hash["owed"] || []) - @not_done
        @scopes = in_force
        @jobs = jobs
        Checks.new(hash, part).check_pieces!(@jobs)
        freeze
      end

      # @return [Hash] see formats.md
      def answer(**)
        bill = self.bill
        answer = {
          "format" => "nimble-ledger.bill",
          "version" => 1,
          "lines" => bill.lines.map { |line| row(line) },
          "hours" => bill.hours,
          "taxes" => bill.taxes.map { |tax| tax.to_h.transform_keys(&:to_s) },
          "classes" => bill.classes,
          "total_cents" => bill.total_cents,
          "agreed_cents" => bill.agreed_cents,
          "limit_cents" => bill.limit_cents,
          "paid_cents" => bill.paid_cents,
          "owed_cents" => bill.owed_cents
        }
        answer["included_tax_cents"] = bill.included_tax_cents if bill.inclusive?
        answer.merge!("incomplete" => true, "missing" => bill.missing) if bill.missing.any?
        answer
      end

      # @return [Bill]
      def bill = Bill.new(work, agreed, paid: (@hash["paid"] || []).map { |row| row["cents"] })

      private

      # A scope of which nothing is billed counts as never agreed.
      def in_force
        left_out = @not_done + @owed
        @hash["scopes"].reject { |scope| (scope["targets"] - left_out).empty? && done_lines(scope).empty? }
      end

      def done_lines(scope) = Price::HandLine.all((scope["lines"] || []).reject { |line| line["done"] == false })

      def jobs
        all = @scopes.flat_map { |scope| scope["targets"] } - @owed
        tried = (@hash["tried"] || []) & all
        Jobs.new(@hash["estimate"], @part, all: all, done: all - @not_done, tried: tried)
      end

      def override_tenths
        @scopes.filter_map { |scope| Estimate::Override.from(scope["override"]) }.sum(&:tenths)
      end

      def work
        BillLines.new(
          @jobs,
          happened: happened,
          unused: counted("unused"),
          used: counted("used"),
          owed: @owed.map { |id| @engine.target(id) },
          override_tenths: override_tenths,
          by_hand: @scopes.flat_map { |scope| done_lines(scope) },
          worked_minutes: @hash["worked_minutes"],
          diagnosis:
            @hash["diagnosis"] && BillLines::Diagnosis.new(*@hash["diagnosis"].values_at("hours", "worked_minutes"))
        )
      end

      def counted(key) =
        (@hash[key] || []).group_by { |row| row["part"] }.transform_values { |rows| rows.sum { |row| row["quantity"] } }

      def happened
        given = @hash["happened"] || {}
        plugs = ->(key) { (given[key] || {}).to_h { |id, count| [@engine.target(id), count] } }
        mishaps = (given["mishaps"] || []).map { |row| row.values_at("step", "what") }
        BillLines::Happened.new(plugs.call("broken"), plugs.call("thread"), mishaps)
      end

      def agreed
        lines = Price::HandLine.all(@scopes.flat_map { |scope| scope["lines"] || [] })
        done = @scopes.flat_map { |scope| done_lines(scope) }
        YesesInForce.new(@scopes, all_cents: price(@jobs.all, lines), done_cents: price(@jobs.done, done))
      end

      # Section 7's total of a job without trouble, with the discounts and hours by hand in force.
      def price(job, lines)
        return 0 if job.nil? && lines.empty?

        tenths = job ? [job.plan.job.quoted_tenths + override_tenths, 0].max : 0
        off = @scopes.sum { |scope| scope.dig("discount", "cents") || 0 }
        Price::Lines.new(
          tenths,
          job ? job.needed : Parts::Nothing,
          @part.car.catalog,
          house: @part.car.house,
          discount: off.positive? ? { "cents" => off } : nil,
          by_hand: lines,
          used_parts_as_singles: @part.car.rules.used_parts_as_singles?
        ).total_cents
      end

      def row(line)
        row = { "kind" => line.kind, "label" => line.label }
        row["part"] = line.part if line.part
        row["quantity"] = line.quantity
        row.merge("cents" => line.cents)
      end
    end
  end
end
