# frozen_string_literal: true

module NimbleLedger
  # The engine library: what a shop knows of engines, and what an import would change.
  module Library
    # What one revision of a profile changes against another, in lines a foreman can read (model.md section 1).
    #
    #   Library::Difference.new(older.source, newer.source).lines
    #   #=> ["Cowl tray is new.", "plug: torque nm 25 → 23"]
    class Difference
      LISTS = { "steps" => "Step", "targets" => "Work", "coils" => "Coil", "cylinders" => "Cylinder" }.freeze
      MOST = 60
      # Keys that have words of their own; the rest are said as they are spelled.
      WORDS = {
        "remove" => "off",
        "refit" => "on",
        "after" => "comes after",
        "people" => "people",
        "over" => "lies over",
        "rust_prone" => "rusts",
        "when" => "on cars with",
        "back" => "goes back",
        "through" => "through"
      }.freeze
      # Where figures come from is no difference of what they say.
      UNSAID = %w[origins].freeze

      # @param before [Hash] profile as formats.md has it
      # @param after [Hash]
      def initialize(before, after)
        @before = before
        @after = after
      end

      def same? = @before == @after

      # @return [Array<String>] empty when nothing changes; at most MOST lines, the last saying how many more there are
      def lines
        all = head + plug + LISTS.flat_map { |key, name| list(key, name) }
        all.size > MOST ? all.first(MOST) + ["#{all.size - MOST} more changes"] : all
      end

      private

      def head
        own = ["plug", *LISTS.keys, *UNSAID]
        fields(@before.except(*own), @after.except(*own), "")
      end

      def plug = fields(@before["plug"] || {}, @after["plug"] || {}, "plug: ")

      def list(key, name)
        old = by_id(@before[key])
        new = by_id(@after[key])
        gone = (old.keys - new.keys).map { |id| "#{called(name, old[id])} is gone." }
        fresh = (new.keys - old.keys).map { |id| "#{called(name, new[id])} is new." }
        changed = (new.keys & old.keys).flat_map { |id| fields(old[id], new[id], "#{called(name, new[id])}: ") }
        order = new.keys & old.keys == old.keys & new.keys ? [] : ["#{name}: the order in the file changes."]
        gone + fresh + changed + order
      end

      # A step by its name, all else by what it is and its id.
      def called(name, row) = name == "Step" ? row["label"].to_s : "#{name} #{row["id"] || row["number"]}"

      def by_id(list) = (list || []).to_h { |row| [row["id"] || row["number"], row] }

      def fields(old, new, prefix)
        (old.keys | new.keys)
          .reject { |key| old[key] == new[key] }
          .map { |key| "#{prefix}#{word(key)} #{short(old[key])} → #{short(new[key])}" }
      end

      def word(key) = WORDS.fetch(key) { key.tr("_", " ") }

      def short(value)
        return "none" if value.nil?
        return value ? "yes" : "no" if [true, false].include?(value)

        text = value.is_a?(Array) || value.is_a?(Hash) ? plain(value) : value.to_s
        text.length > 70 ? "#{text[0, 67]}…" : text
      end

      def plain(value)
        case value
        when Hash
          value.map { |key, inner| "#{key} #{plain(inner)}" }.join(", ")
        when Array
          value.map { |inner| plain(inner) }.join(" / ")
        else
          value.to_s
        end
      end
    end
  end
end
