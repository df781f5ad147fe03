# frozen_string_literal: true

module NimbleLedger
  module Profile
    # Work with the plugs out is work of another kind than the trade's own, and an engine is cranked clear in one way
    # (formats.md, rules 3).
    module PlugsOut
      module_function

      # @param targets [Array<Hash>] of a profile
      # @param faults [Shape::Faults]
      def check(targets, faults)
        cranks = 0
        targets.each_with_index do |target, i|
          %w[crank plugs_out].each do |key|
            next unless target[key] && target["work"] != "other"

            faults.add("/targets/#{i}/#{key}", "is for other work, not for #{target["work"]}")
          end
          next unless target["crank"] && (cranks += 1) > 1

          faults.add("/targets/#{i}/crank", "is a second one: an engine has at most one clearing crank")
        end
      end
    end
  end
end
