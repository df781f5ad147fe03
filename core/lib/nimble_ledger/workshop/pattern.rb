# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # An engine with nothing left of it but how it is built: no name, no part numbers, no figures of its own
    # (model.md section 1). Every minute is what its kind takes, and says that it comes from a pattern.
    module Pattern
      # Said in place of a part number that nobody has typed.
      PART = "part: "
      FIGURES = %w[torque_nm torque_range_nm torque_assumes gap_mm reach_mm hex_mm part].freeze

      module_function

      # @param source [Hash] a sound profile
      # @param kinds [UsualTimes]
      # @param code [String] the code of the new engine
      # @param name [String]
      # @return [Hash] a profile
      def of(source, kinds:, code:, name:)
        copy = JSON.parse(JSON.generate(source)).except("notes", "house_overrides", "origins", "provisional")
        copy.merge!("code" => code, "name" => name, "notes" => "")
        copy["plug"] = plug(copy["plug"]).merge("part" => "#{PART}plug")
        copy["coils"]&.each { |coil| coil["part"] = "#{PART}coil" }
        copy["steps"].each { |step| bare_step(step) }
        copy["targets"].each { |target| bare_target(target) }
        Profile::Origins::KEYS.each do |list, keys|
          copy[list].product(keys).each { |row, key| figure(copy, list, row, key, kinds) }
        end
        copy
      end

      def plug(plug) = plug.except(*FIGURES, "interval_km", "interval_months")

      def bare_step(step)
        step["seals"]&.each { |seal| seal["part"] = "#{PART}seal, #{step["label"]}"[0, 60] }
        step["clips"]&.each { |clip| clip["part"] = "#{PART}clip, #{step["label"]}"[0, 60] }
        step["fasteners"]&.each { |fastener| bare_fastener(fastener, step) }
        step["mishaps"]&.each { |mishap| mishap.delete("parts") }
      end

      # A single-use bolt stays one.
      def bare_fastener(fastener, step)
        fastener.delete("torque_nm")
        fastener["part"] = "#{PART}bolt, #{step["label"]}"[0, 60] if fastener["part"]
      end

      def bare_target(target)
        target["parts"]&.each { |row| row["part"] = "#{PART}#{target["label"] || target["work"]}"[0, 60] }
        return unless target["plug"]

        target["plug"] = plug(target["plug"]).merge(
          "part" => "#{PART}plug, #{target["position"] || target["id"]}"[0, 60]
        )
      end

      def figure(copy, list, row, key, kinds)
        row[key] = kinds.typical(UsualTimes.of(row), key)
        Profile::Origins.note(copy, list, row["id"], key, "pattern")
      end
      private_class_method :plug, :bare_step, :bare_fastener, :bare_target, :figure
    end
  end
end
