# frozen_string_literal: true

module NimbleLedger
  module Time
    # One task of the job: a label, a kind (remove, work, refit, closing, soak, house), its points and how many people.
    Task =
      Struct.new(:kind, :ref, :label, :points, :people, :reasons) do
        def mean = points.mean * people
        def variance = points.variance * people * people
      end
  end
end
