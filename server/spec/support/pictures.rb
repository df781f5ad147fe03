# frozen_string_literal: true

require "zlib"

# Pictures made here, good and bad.
module Pictures
  module_function

  def chunk(type, data) = [data.bytesize].pack("N") + type + data + [Zlib.crc32(type + data)].pack("N")

  # @return [String] a gray PNG
  def png(width, height, extra: "".b)
    head = [width, height, 8, 0, 0, 0, 0].pack("NNCCCCC")
    rows = Zlib::Deflate.deflate("\0#{"\x80" * width}".b * height)
    "\x89PNG\r\n\x1A\n".b + chunk("IHDR".b, head) + extra + chunk("IDAT".b, rows) + chunk("IEND".b, "".b)
  end

  # @return [Hash{String=>String}] pictures with something in them that is none
  def laden
    whole = png(20, 20)
    {
      "with a script behind it" => "#{whole}<script>alert(1)</script>#{chunk("IEND".b, "".b)}".b,
      "with notes" => png(20, 20, extra: chunk("tEXt".b, "Location\0quay".b)),
      "with a chunk nobody knows" => png(20, 20, extra: chunk("quAy".b, "quay".b))
    }
  end

  # @return [Hash{String=>String}] what each is, and its bytes
  def bad
    whole = png(200, 200)
    {
      "nothing" => "".b,
      "words" => "not a picture".b,
      "a drawing with a script" => "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>".b,
      "huge in bytes" => whole + ("\0".b * 1_600_000),
      "huge in points" => png(2_401, 4),
      "cut off" => whole.byteslice(0, 60),
      "half a JPEG" => "\xFF\xD8\xFF\xE0\x00\x10JFIF".b
    }
  end
end
