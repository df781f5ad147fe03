# frozen_string_literal: true

module NimbleLedger
  module Picture
    # The reach drawing from the profile alone: where each cylinder stands, which layers lie over which cylinders
    # (a chosen cylinder's chain in the job, the others' own plan), and the sounding: hours if a cylinder were done
    # alone with the work now chosen. Positions are columns and rows; the interface gives them a size.
    class Reach
      MAX_CONTOURS = 5

      # Layers over the same set of cylinders. `partial` is dashed.
      Run = Struct.new(:first_row, :last_row, :first_column, :last_column)
      Contour = Struct.new(:steps, :cylinders, :runs, :partial, :level)

      attr_reader :engine, :contours, :listed_only, :locals, :soundings, :plans

      # @param answers [Hash{Integer=>Estimate::Answer, nil}] each cylinder's own job; nil where there is no plan
      # @param job [Access::Plan, nil] the job as chosen: its routes are drawn for the cylinders in it
      def initialize(engine, answers, job: nil)
        @engine = engine
        @job = job
        @plans = answers.transform_values { |answer| answer&.plan }
        @chains = engine.cylinders.to_h { |cylinder| [cylinder.number, chain(cylinder.number)] }
        @soundings = answers.transform_values { |answer| answer && (answer.plan.job.quoted_tenths / 10.0) }
        @grid = engine.cylinders.to_h { |cylinder| [cylinder.number, [row(cylinder), cylinder.position]] }
        @locals = local_steps
        build_contours
        freeze
      end

      # Rows from the top of the picture: sideways engines show the rear bank above; lengthwise ones, drawn with the
      # front of the vehicle at the left, show the right bank above.
      def rows = engine.cylinders.map { |cylinder| row(cylinder) }.max + 1

      def columns = engine.cylinders.map(&:position).max

      # Which edge of the picture is the front of the vehicle.
      def front = engine.mounting == "sideways" ? "bottom" : "left"

      # @return [Array(Integer, Integer)] row and column of a cylinder
      def place(number) = @grid.fetch(number)

      def bank_names
        return [] if engine.cylinders.none?(&:bank)

        engine.cylinders.group_by { |cylinder| row(cylinder) }.sort.map { |_row, list| list.first.bank }
      end

      # How many layers deep a contour lies: its own and those of every contour around it.
      def depth(contour)
        around = (contours + listed_only).select { |other| (contour.cylinders - other.cylinders).empty? }
        around.sum { |other| other.steps.size }
      end

      # Whether a cylinder's own job is done from beneath.
      def beneath?(number) = plans[number]&.steps&.any? { |step| step.zone == "under" } || false

      # Cylinders a step lies over, as drawn.
      # @return [Array<Integer>]
      def over(step) = @chains.select { |_number, steps| steps.include?(step) }.keys.sort

      # Coils that feed several cylinders: links on the drawing.
      def links = engine.coils.select { |coil| coil.cylinders.size > 1 }

      private

      def row(cylinder)
        case cylinder.bank
        when "front", "left"
          1
        else
          0
        end
      end

      # A step marked with a cylinder that only that cylinder's plan holds is a ring on it.
      def local_steps
        engine.steps.select { |step| step.cylinder && over(step) == [step.cylinder] }.group_by(&:cylinder)
      end

      # What comes off for a cylinder: by the job's route where it is in the job, else by its own.
      # @return [Array<Profile::Step>] in removal order
      def chain(number)
        mine = @job ? @job.targets.select { |target| target.cylinders.include?(number) } : []
        return plans[number]&.steps || [] if mine.empty?

        ids = mine.flat_map { |target| @job.chains.fetch(target) }
        @job.steps.select { |step| ids.include?(step.id) }
      end

      def build_contours
        local = locals.values.flatten
        groups = (engine.steps - local).group_by { |step| over(step) }.reject { |cylinders, _steps| cylinders.empty? }
        ordered = groups.sort_by { |cylinders, steps| [-cylinders.size, first_off(steps), steps.first.position] }
        all =
          ordered.each_with_index.map do |(cylinders, steps), i|
            Contour.new(by_removal(steps), cylinders, runs(cylinders), partial?(cylinders), i + 1)
          end
        @contours = all.first(MAX_CONTOURS)
        @listed_only = all.drop(MAX_CONTOURS)
      end

      def first_off(steps)
        @chains.values.map { |chain| chain.index { |step| steps.include?(step) } || 99 }.min
      end

      def by_removal(steps)
        chain = @chains.values.find { |candidate| (steps - candidate).empty? }
        chain ? chain.select { |step| steps.include?(step) } : steps
      end

      def partial?(cylinders)
        engine
          .cylinders
          .group_by { |cylinder| row(cylinder) }
          .values
          .any? do |bank|
            count = bank.count { |cylinder| cylinders.include?(cylinder.number) }
            count.positive? && count < bank.size
          end
      end

      # A set that fills a block is one run over its rows; otherwise one run for each unbroken stretch of a row.
      def runs(cylinders)
        places = cylinders.map { |number| place(number) }
        rows = places.group_by(&:first).transform_values { |list| list.map(&:last).sort }
        return [Run.new(rows.keys.min, rows.keys.max, *whole(rows))] if whole(rows)

        rows.sort.flat_map do |row, columns|
          stretches(row, columns).map { |first, last| Run.new(row, row, first, last) }
        end
      end

      def whole(rows)
        extents = rows.map { |row, columns| stretches(row, columns) }
        return nil unless extents.all? { |list| list.size == 1 } && extents.map(&:first).uniq.size == 1

        extents.first.first
      end

      # Unbroken within the row: no cylinder of the row stands between.
      def stretches(row, columns)
        present = @grid.values.select { |r, _c| r == row }.map(&:last).sort
        columns.slice_when { |a, b| present.any? { |c| c > a && c < b } }.map { |list| [list.first, list.last] }
      end
    end
  end
end
