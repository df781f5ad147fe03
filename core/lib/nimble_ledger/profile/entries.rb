# frozen_string_literal: true

module NimbleLedger
  module Profile
    # {"any" => [...]}: one of the members is enough. `position` is its place among the holder's entries.
    Choice = Struct.new(:members, :position)

    # Splits an `after` or `through` list into plain step ids and choices.
    module Entries
      module_function

      def plain(list) = (list || []).grep(String)

      def choices(list)
        (list || []).each_with_index.filter_map { |entry, i| Choice.new(entry["any"], i) if entry.is_a?(Hash) }
      end
    end
  end
end
