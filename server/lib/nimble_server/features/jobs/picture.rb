# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A picture as it came from a device, decoded and written anew by libvips: what is kept is points and nothing
      # else. Notes inside (where, when, with what it was taken), whatever hangs on behind it, and files that only look
      # like pictures do not get through.
      #
      #   Picture.read(bytes).type  #=> "image/jpeg"
      #   Picture.read("<svg>")     # raises Refused
      class Picture
        # Why a picture was not taken.
        class Refused < StandardError
        end

        LARGEST = 1_500_000
        LONGEST = 2_400
        QUALITY = 85

        # How each kind begins, what decodes it, and as what it is written.
        Kind = Struct.new(:begins, :loader, :type)
        KINDS = [
          Kind.new(/\A\xFF\xD8\xFF/n, :jpegload_buffer, "image/jpeg"),
          Kind.new(/\A\x89PNG\r\n\x1A\n/n, :pngload_buffer, "image/png"),
          Kind.new(/\ARIFF....WEBP/mn, :webpload_buffer, "image/jpeg")
        ].freeze

        attr_reader :type, :width, :height, :bytes

        # @param given [String]
        # @return [Picture]
        # @raise [Refused] in words
        def self.read(given)
          raise Refused, "The picture is larger than #{LARGEST / 1_000_000.0} MB." if given.bytesize > LARGEST

          kind = KINDS.find { |one| one.begins.match?(given.b) } or
            raise Refused, "That is no JPEG, PNG or WebP picture."
          written(kind, given)
        end

        # Loaded when the first picture comes: most web processes never see one.
        def self.vips
          @vips ||=
            begin
              require "vips"
              Vips.concurrency_set(1)
              Vips.cache_set_max(0)
              Vips
            end
        end
        private_class_method :vips

        def self.written(kind, given)
          picture = vips::Image.public_send(kind.loader, given, fail_on: :warning)
          refuse_size(picture)
          picture = picture.autorot
          bytes = kind.type == "image/png" ? png(picture) : jpeg(picture)
          new(kind.type, picture.width, picture.height, bytes.b)
        rescue vips::Error
          raise Refused, "The picture is damaged."
        end

        def self.jpeg(picture) = picture.flatten(background: [255]).jpegsave_buffer(Q: QUALITY, strip: true)
        def self.png(picture) = picture.pngsave_buffer(strip: true, compression: 6)

        # Before a point of it is decoded.
        def self.refuse_size(picture)
          return if [picture.width, picture.height].all? { |side| side.between?(1, LONGEST) }

          raise Refused,
                "A picture has at most #{LONGEST} points a side; this one has #{picture.width} × #{picture.height}."
        end
        private_class_method :written, :jpeg, :png, :refuse_size

        def initialize(type, width, height, bytes)
          @type = type
          @width = width
          @height = height
          @bytes = bytes
          freeze
        end
      end
    end
  end
end
