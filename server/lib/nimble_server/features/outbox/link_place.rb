# frozen_string_literal: true

module NimbleServer
  module Features
    module Outbox
      # The place of the link in a message that waits: "{link}". Braces of everything else are written twice, so that
      # no name, car or word is ever taken for that place.
      #
      #   body = LinkPlace.plain("{link}") + " " + LinkPlace::MARK  #=> "{{link}} {link}"
      #   LinkPlace.fill(body, "https://…")                         #=> "{link} https://…"
      module LinkPlace
        MARK = "{link}"

        module_function

        # @param text [String] that holds no link
        def plain(text) = text.to_s.gsub(/[{}]/) { |brace| brace * 2 }

        # @param link [String] what stands in the link's place
        def fill(body, link) = body.gsub(/\{\{|\}\}|\{link\}/) { |found| found == MARK ? link : found[0] }

        # Puts values into a text, each once and in one pass.
        # @param template [String] with places like "{name}", and MARK
        # @param values [Hash{String=>String}]
        # @return [String] as it waits
        def compose(template, values)
          template.gsub(/\{(\w+)\}|[{}]/) do |found|
            next found if found == MARK

            values.key?(::Regexp.last_match(1)) ? plain(values[::Regexp.last_match(1)]) : plain(found)
          end
        end
      end
    end
  end
end
