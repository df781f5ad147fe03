# frozen_string_literal: true

require "rqrcode_core"

module NimbleServer
  module Documents
    # A code to scan, as squares on a Prawn page.
    module QrDrawing
      module_function

      # @param pdf [Prawn::Document]
      # @param text [String] an address
      # @param at [Array(Float, Float)] its top left corner
      # @param size [Float] points
      def draw(pdf, text, at:, size:)
        rows = RQRCodeCore::QRCode.new(text, level: :m).modules
        step = size / rows.size
        left, top = at
        pdf.fill_color = "000000"
        rows.each_with_index do |row, y|
          row.each_with_index do |dark, x|
            pdf.fill_rectangle([left + (x * step), top - (y * step)], step + 0.05, step + 0.05) if dark
          end
        end
        pdf.fill_color = PaperPage::INK
      end
    end
  end
end
