# frozen_string_literal: true

require "zip"
require "tempfile"

module NimbleServer
  module Features
    module Workshop
      # A whole library in one archive of engine profiles, out and in. Nothing in an archive is trusted: not its names,
      # not the sizes it claims, not how much it grows; each profile is checked as a single file would be, and a report
      # says for each what would become of it. A code that is known becomes a revision, is left out, or takes another
      # code, row by row.
      #
      #   Archive.new(shop, library: library).report(bytes)
      class Archive
        MOST_FILES = 400
        LARGEST_FILE = 400_000
        LARGEST = 16_000_000
        NAME = 120 # characters of a file's name that are shown
        TAKES = %w[take skip].freeze

        # One file of an archive: its name, the profile, or what is wrong with it.
        Row = Struct.new(:name, :profile, :fault)

        def initialize(shop, library:)
          @shop = shop
          @library = library
        end

        # @return [Tempfile] the newest revision of every engine, at its beginning
        def write
          file = Tempfile.new(%w[library .zip], binmode: true)
          Zip::OutputStream.open(file.path) do |zip|
            Library
              .newest_of_each(@shop)
              .each_with_index do |head, i|
                zip.put_next_entry("#{format("%03d", i + 1)}-#{safe(head[:code])}.engine.json")
                zip.write(JSON.pretty_generate(Library.engine(@shop, head[:id]).source))
              end
          end
          file.tap(&:rewind)
        end

        # What an archive would change, file by file; nothing is stored.
        # @param bytes [String]
        # @return [Hash] see the contract, ArchiveReport
        # @raise [Refusal] 422 for what is no archive or too large
        def report(bytes) = { "rows" => rows(bytes).map { |row| said(row) } }

        # @param choices [Array<Hash>] see the contract, KeepArchive
        # @return [Hash] see the contract, ArchiveKept
        def keep(bytes, choices)
          chosen = choices.to_h { |choice| [choice["file"], choice] }
          @shop.transaction do
            taken = rows(bytes).select { |row| row.profile && chosen.dig(row.name, "do") == "take" }
            { "kept" => taken.filter_map { |row| take(row, chosen.fetch(row.name)) } }
          end
        end

        private

        def take(row, choice)
          code = choice["code"].to_s.strip
          profile = code.empty? ? row.profile : row.profile.merge("code" => code)
          return if @library.report(profile)["same"]

          @library.import(profile, why: "From an archive").slice("code", "revision")
        end

        def said(row)
          empty = {
            "file" => row.name,
            "code" => nil,
            "name" => nil,
            "revision" => nil,
            "same" => false,
            "changes" => []
          }
          return empty.merge("fault" => row.fault) if row.fault

          report = @library.report(row.profile)
          empty.merge(report.slice("code", "name", "revision", "same", "changes"), "fault" => nil)
        rescue NimbleLedger::InvalidInput => e
          empty.merge("fault" => e.message)
        end

        # Every profile in it, read no further than it may be.
        def rows(bytes)
          left = LARGEST
          entries(bytes).map do |entry|
            text = unpacked { entry.get_input_stream { |stream| stream.read(LARGEST_FILE + 1) }.to_s }
            left -= text.bytesize
            raise refused("It unpacks to more than #{LARGEST / 1_000_000} MB.") if left.negative?

            row(name(entry), text)
          end
        end

        # What a stranger's archive makes the library stumble over is one thing: it is none we read.
        def unpacked
          yield
        rescue StandardError
          raise refused("It cannot be unpacked as a ZIP archive.")
        end

        def name(entry) = entry.name.b.force_encoding("UTF-8").scrub("?").gsub(/[[:cntrl:]]/, "").chars.last(NAME).join

        def entries(bytes)
          files =
            unpacked do
              Zip::File
                .open_buffer(StringIO.new(bytes))
                .entries
                .select { |entry| entry.file? && entry.name.b.end_with?(".json") }
            end
          raise refused("It holds no .json file.") if files.empty?
          raise refused("It holds #{files.size} profiles; at most #{MOST_FILES} are read.") if files.size > MOST_FILES

          files
        end

        def row(name, text)
          return Row.new(name, nil, "is larger than #{LARGEST_FILE / 1000} kB") if text.bytesize > LARGEST_FILE

          profile = JSON.parse(text, max_nesting: 20)
          return Row.new(name, nil, "is no engine profile") unless profile.is_a?(Hash)

          NimbleLedger::Profile::Engine.build(profile)
          Row.new(name, profile, nil)
        rescue JSON::ParserError, EncodingError
          Row.new(name, nil, "is not JSON")
        rescue NimbleLedger::InvalidInput => e
          Row.new(name, nil, e.message)
        end

        def refused(why) = Refusal.new(422, "invalid_archive", "This archive is not read. #{why} Nothing was stored.")
        def safe(code) = code.downcase.gsub(/[^a-z0-9.-]+/, "-")
      end
    end
  end
end
