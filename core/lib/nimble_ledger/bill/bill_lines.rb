# frozen_string_literal: true

module NimbleLedger
  module Bill
    # What was done on a job, as the lines of its bill before reductions and tax (model.md section 16): hours with what
    # happened for certain, parts with what came back and what was used, trouble that is the customer's.
    class BillLines
      # One line before tax. unit_cents: of a part.
      Line = Struct.new(:kind, :label, :part, :quantity, :unit_cents, :cents, :tax_class)

      # What fought back: broken and thread are counts by target, mishaps are [step id, what].
      Happened = Struct.new(:broken, :thread, :mishaps)

      # What was agreed to find out: hours at most, minutes it took.
      Diagnosis = Struct.new(:hours, :worked_minutes)

      attr_reader :house, :missing

      # @param jobs [Jobs]
      # @param happened [Happened]
      # @param unused [Hash{String=>Integer}] pieces that came back, by part
      # @param used [Hash{String=>Integer}] pieces used of those "if needed"
      # @param owed [Array<Profile::Target>] under our warranty
      # @param override_tenths [Integer] hours by hand of the scopes in force
      # @param by_hand [Array<Price::HandLine>] those that were done
      # @param worked_minutes [Numeric, nil]
      # @param diagnosis [Diagnosis, nil]
      def initialize(
        jobs,
        happened:,
        unused: {},
        used: {},
        owed: [],
        override_tenths: 0,
        by_hand: [],
        worked_minutes: nil,
        diagnosis: nil
      )
        @jobs = jobs
        @job = jobs.done
        @house = jobs.car.house
        @happened = happened
        @unused = unused
        @used = used
        @owed = owed
        @override_tenths = override_tenths
        @by_hand = by_hand
        @worked_minutes = worked_minutes
        @diagnosis = diagnosis
        @missing = []
        @material = material
        freeze
      end

      # Whether anything but finding out is billed.
      def anything? = !@job.nil? || @by_hand.any?

      # @return [Integer] tenths of an hour that are billed
      def tenths
        return quoted_tenths if @worked_minutes.nil? || @house["bill_hours"] == "quoted"

        [quoted_tenths, Time::QuotedHours.new(@house).up(@worked_minutes)].min
      end

      # @return [Integer] tenths by the estimate, with what happened for certain and hours by hand
      def quoted_tenths
        return 0 unless @job

        points = certain
        total = @job.plan.job.total.plus(points.sum(0.0, &:mean), points.sum(0.0, &:variance))
        [Time::QuotedHours.new(@house).tenths(total) + @override_tenths, 0].max
      end

      # @param tenths [Integer]
      # @return [Array<Line>] before reductions and tax
      def lines(tenths)
        labor = labor(tenths)
        [*labor, *diagnosis_lines, *@material.reject { |line| line.kind == "fee" }, *supplies(labor), *fees]
      end

      # What we owe, at nothing.
      # @return [Array<Bill::Line>]
      def owed_lines = @owed.map { |target| Bill::Line.new("warranty", target.label, nil, 1, 0) }

      # Finding out, where it is credited because something else is billed.
      # @return [Array<Bill::Line>]
      def credited_lines
        credited? ? [Bill::Line.new("diagnosis", "Diagnosis, credited with the repair", nil, diagnosis_hours, 0)] : []
      end

      # What finding out comes to alone, with its taxes; 0 where it is credited.
      def diagnosis_alone_cents
        return 0 if @diagnosis.nil? || credited?

        cents = diagnosis_cents
        cents + Price::Tax.new(@house).added_cents(Hash.new(0).merge("labor" => cents))
      end

      private

      def credited? = @diagnosis && @house["diagnosis_credited"] && anything?

      # Minutes worked rounded up to the increment, at most the agreed hours.
      def diagnosis_hours
        increment = @house["increment_hours"]
        worked = ((@diagnosis.worked_minutes / 60.0 / increment) - 1e-9).ceil * ThreePoints.exact(increment)
        [worked, ThreePoints.exact(@diagnosis.hours)].min.to_f
      end

      def diagnosis_cents = Money.round(ThreePoints.exact(diagnosis_hours) * @house["diagnosis_rate_cents"])

      def diagnosis_lines
        return [] if @diagnosis.nil? || credited?

        cents = diagnosis_cents
        [Line.new("diagnosis", "Diagnosis", nil, diagnosis_hours, @house["diagnosis_rate_cents"], cents, "labor")]
      end

      def labor(tenths)
        return [] unless @job

        rate = @house["rate_cents"]
        [Line.new("labor", "Labor", nil, tenths / 10.0, rate, Money.round(Rational(tenths * rate, 10)), "labor")]
      end

      def supplies(labor)
        share = ThreePoints.exact(@house["supplies_percent"]) / 100
        cents = [Money.round(labor.sum(&:cents) * share), @house["supplies_cap_cents"]].min
        cents.positive? ? [Line.new("supplies", "Shop supplies", nil, 1, cents, cents, "fees")] : []
      end

      def fees = @material.select { |line| line.kind == "fee" }

      # Extra minutes of what happened and is the customer's, stubborn plugs never.
      # @return [Array<ThreePoints>]
      def certain =
        each_plug(@happened.broken) do |target|
          ThreePoints.from(@house["extraction_minutes"]) * target.extraction_factor
        end + each_plug(@happened.thread) { |_target| ThreePoints.from(@house["insert_minutes"]) } +
          mishaps.map(&:minutes)

      def each_plug(counts) =
        counts.flat_map { |target, count| @jobs.customers?(target) ? Array.new(count) { yield target } : [] }

      # Of steps that were opened for what is billed.
      def mishaps
        @happened.mishaps.filter_map do |step, what|
          found = @job && @job.plan.steps.find { |one| one.id == step }
          found&.mishaps&.find { |one| one.what == what }
        end
      end

      # Parts, lines by hand, consumables, fees: as they are priced, with what came back and what was used.
      def material
        return @by_hand.map { |hand| converted(Price::Lines.by_hand(hand)) } unless @job

        price = @job.price
        @missing.concat(price.missing)
        own = price.list.group_by(&:kind)
        parts = returned((own["part"] || []).map { |line| converted(line) })
        [
          *with_trouble(parts),
          *@by_hand.map { |hand| converted(Price::Lines.by_hand(hand)) },
          *%w[consumable fee].flat_map { |kind| (own[kind] || []).map { |line| converted(line) } }
        ]
      end

      def converted(line) =
        Line.new(
          line.kind,
          line.label,
          line.part,
          line.quantity,
          line.unit_cents,
          line.cents,
          line.tax_class || Price::Tax.class_of(line.kind)
        )

      # What all needs more than was done counts first; the rest comes off the part's own line.
      def returned(lines)
        more = @jobs.saved_pieces
        lines.filter_map do |line|
          rest = [@unused.fetch(line.part, 0) - more.fetch(line.part, 0), 0].max
          next line if rest.zero?

          left = line.quantity - rest
          next if left <= 0

          line.cents = Money.round(Rational(line.cents * left, line.quantity))
          line.quantity = left
          line
        end
      end

      def with_trouble(lines)
        lines += extraction
        added = Hash.new(0)
        mishaps.flat_map(&:parts).each { |part| added[part["part"]] += part["quantity"].to_i }
        @used.each { |part, count| added[part] += [count, @jobs.if_needed.fetch(part, 0)].min }
        added.each { |part, count| add(lines, part, count) if count.positive? }
        lines
      end

      # A set for each broken plug, the kit once, an insert for each thread.
      def extraction
        broken = each_plug(@happened.broken) { 1 }.size
        threads = each_plug(@happened.thread) { 1 }.size
        [
          set("Extraction set", broken, @house["extraction_set_cents"]),
          set("Extraction kit", [broken, 1].min, @house["extraction_kit_cents"]),
          set("Thread insert", threads, @house["insert_cents"])
        ].compact
      end

      def set(label, count, cents) =
        count.positive? ? Line.new("part", label, nil, count, cents, cents * count, "parts") : nil

      def add(lines, part, count)
        unit = @job.selling_price(part)
        return @missing << { "part" => part, "because" => [] } if unit.nil?

        line = lines.find { |one| one.part == part }
        if line
          line.quantity += count
          line.cents += unit * count
        else
          text = @job.car.catalog.description(part)
          lines << Line.new("part", text.empty? ? part : text, part, count, unit, unit * count, "parts")
        end
      end
    end
  end
end
