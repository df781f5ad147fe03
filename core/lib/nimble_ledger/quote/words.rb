# frozen_string_literal: true

module NimbleLedger
  module Quote
    # Small pieces of plain wording, shared by the explanation, the labels of bundles and the printed page.
    module Words
      COUNT = %w[No One Two Three Four Five Six Seven Eight Nine Ten Eleven Twelve].freeze
      PLURAL = {
        "plug" => "plugs",
        "coil" => "coils",
        "wire" => "wires",
        "boot" => "boots",
        "cap-and-rotor" => "cap and rotor",
        "tube-seal" => "tube seals",
        "cover-gasket" => "cover gaskets",
        "compression" => "compression tests",
        "look" => "looks inside"
      }.freeze

      module_function

      # "1", "1 and 3", "1, 3 and 5"
      def list(items)
        items.size < 3 ? items.join(" and ") : "#{items[0..-2].join(", ")} and #{items.last}"
      end

      def count(number) = COUNT[number] || number.to_s

      # Cylinders: "1 to 8" for four and more in an unbroken row, a list otherwise.
      def cylinders(numbers)
        row = numbers.sort
        row.size > 3 && row == (row.first..row.last).to_a ? "#{row.first} to #{row.last}" : list(row)
      end

      # The same at the start of a sentence: "Number 5", "Numbers 1, 3 and 5"
      def subject(numbers) = "#{numbers.size == 1 ? "Number" : "Numbers"} #{cylinders(numbers)}"

      # "Plug 5", "Plugs and coils 1 and 3"
      def work_on(works, cylinders)
        names = works.map { |work| cylinders.size == 1 ? work.tr("-", " ") : PLURAL.fetch(work, work) }
        "#{list(names).capitalize} #{self.cylinders(cylinders)}"
      end

      # @param decimal [String] the mark before decimals
      def hours(value, decimal = ".") = format("%.1f", value).sub(".", decimal)

      # The id of a way as words: "From beneath"
      def way(id) = id.tr("-", " ").capitalize

      # The id of a piece of equipment as words: "two-post lift", "strap and block"
      def equipment(id) = id.tr("-", " ").gsub(/\b(two|four|thin) (?=post|wall)/, "\\1-")

      # The label in a sentence, without what stands behind a comma: "the upper intake manifold", "coil 3"
      def layer(step)
        name = step.label.split(",").first
        name = "#{name[0].downcase}#{name[1..]}"
        name.match?(/\A(coil|wire|plug) \d+\z/) ? name : "the #{name}"
      end
    end
  end
end
