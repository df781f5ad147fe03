# frozen_string_literal: true

require "i18n"

module NimbleServer
  module Documents
    # What is said to customers, in the language of their shop where there is a texts file for it (server/texts),
    # else in English.
    #
    #   Texts.of("de-AT").say("page.found")  #=> "Was wir gefunden haben"
    class Texts
      FOLDER = File.join(ROOT, "server/texts")
      LANGUAGES = Dir[File.join(FOLDER, "*.yml")].map { |path| File.basename(path, ".yml") }.sort.freeze
      BACKEND = I18n::Backend::Simple.new.tap { |backend| backend.load_translations(*Dir[File.join(FOLDER, "*.yml")]) }

      attr_reader :language

      # @param locale [String] "de-AT"
      def self.of(locale) = new(locale.to_s.split("-").first)

      # @param language [String] "de"; English where there is no file for it
      def initialize(language)
        @language = LANGUAGES.include?(language) ? language : "en"
        freeze
      end

      # @param key [String] "page.found"
      # @return [String]
      # @raise [I18n::ArgumentError] for a key or value that is missing
      def say(key, **values) = BACKEND.translate(@language.to_sym, key, **values)

      # @return [String] "a, b and c"
      def list(words)
        return words.join if words.size < 2

        "#{words[0..-2].join(", ")} #{say("page.why.and")} #{words.last}"
      end
    end
  end
end
