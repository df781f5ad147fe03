# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A picture as it came from a device: what its bytes say it is, however it was called. Nothing but a small JPEG,
      # PNG or WebP without notes inside (where, when, with what it was taken) is taken.
      #
      #   Picture.read(bytes).type  #=> "image/jpeg"
      #   Picture.read("<svg>")     # raises Refused
      class Picture
        # Why a picture was not taken.
        class Refused < StandardError
        end

        LARGEST = 1_500_000
        LONGEST = 2_400
        # Where notes stand in each kind of file.
        NOTES = {
          "image/jpeg" => ["Exif\0", "http://ns.adobe.com/", "Photoshop 3.0"],
          "image/png" => %w[eXIf tEXt iTXt zTXt],
          "image/webp" => ["EXIF", "XMP "]
        }.freeze

        attr_reader :type, :width, :height, :bytes

        # @param bytes [String]
        # @return [Picture]
        # @raise [Refused] in words
        def self.read(bytes)
          raise Refused, "The picture is larger than #{LARGEST / 1_000_000.0} MB." if bytes.bytesize > LARGEST

          type = kind(bytes) or raise Refused, "That is no JPEG, PNG or WebP picture."
          size = send("size_of_#{type.split("/").last}", bytes) or raise Refused, "The picture is damaged."
          new(type, *size, bytes).tap(&:check)
        end

        def self.kind(bytes)
          return "image/jpeg" if bytes.start_with?("\xFF\xD8\xFF".b)
          return "image/png" if bytes.start_with?("\x89PNG\r\n\x1A\n".b)

          "image/webp" if bytes.start_with?("RIFF".b) && bytes.byteslice(8, 4) == "WEBP"
        end
        private_class_method :kind

        # Walks the segments up to the frame header.
        def self.size_of_jpeg(bytes)
          at = 2
          while at + 9 < bytes.bytesize && bytes.getbyte(at) == 0xFF
            marker = bytes.getbyte(at + 1)
            return bytes.byteslice(at + 5, 4).unpack("nn").reverse if frame?(marker)

            at += 2 + bytes.byteslice(at + 2, 2).unpack1("n")
          end
          nil
        end
        private_class_method :size_of_jpeg

        def self.frame?(marker) = marker.between?(0xC0, 0xCF) && ![0xC4, 0xC8, 0xCC].include?(marker)
        private_class_method :frame?

        def self.size_of_png(bytes) =
          bytes.bytesize >= 33 && bytes.byteslice(12, 4) == "IHDR" ? bytes.byteslice(16, 8).unpack("NN") : nil
        private_class_method :size_of_png

        def self.size_of_webp(bytes)
          return nil if bytes.bytesize < 30

          case bytes.byteslice(12, 4)
          when "VP8 "
            bytes.byteslice(26, 4).unpack("vv").map { |side| side & 0x3FFF }
          when "VP8L"
            packed = bytes.byteslice(21, 4).unpack1("V")
            [(packed & 0x3FFF) + 1, ((packed >> 14) & 0x3FFF) + 1]
          when "VP8X"
            [bytes.byteslice(24, 3), bytes.byteslice(27, 3)].map { |side| "#{side}\0".unpack1("V") + 1 }
          end
        end
        private_class_method :size_of_webp

        def initialize(type, width, height, bytes)
          @type = type
          @width = width
          @height = height
          @bytes = bytes
          freeze
        end

        # @raise [Refused]
        def check
          unless [width, height].all? { |side| side.between?(1, LONGEST) }
            raise Refused, "A picture has at most #{LONGEST} points a side; this one has #{width} × #{height}."
          end
          raise Refused, "The picture does not end where it should: something hangs on to it." unless whole?
          return unless NOTES.fetch(type).any? { |note| bytes.include?(note.b) }

          raise Refused, "The picture still holds notes (where and when it was taken). Take it anew from the card."
        end

        private

        def whole?
          case type
          when "image/jpeg"
            bytes.end_with?("\xFF\xD9".b)
          when "image/png"
            bytes.byteslice(-8, 4) == "IEND"
          else
            bytes.byteslice(4, 4).unpack1("V") + 8 == bytes.bytesize
          end
        end
      end
    end
  end
end
