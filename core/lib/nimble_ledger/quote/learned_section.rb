# frozen_string_literal: true

module NimbleLedger
  module Quote
    # What finished jobs have taught about these hours, beside the hours as they were estimated: both stay on the quote
    # (model.md section 12).
    module LearnedSection
      module_function

      # @param answer [Job]
      # @return [Hash, nil] jobs of this engine; over_low, over_high: between which shares its work takes longer;
      #   hours, estimated_hours: quoted with it and without; nil where nothing learned is in force
      def of(answer)
        correction = answer.car.correction or return nil
        tasks = answer.plan.job
        {
          "jobs" => correction.jobs,
          "over_low" => correction.over.begin,
          "over_high" => correction.over.end,
          "hours" => tasks.quoted_tenths / 10.0,
          "estimated_hours" => tasks.estimated_tenths / 10.0
        }
      end
    end
  end
end
