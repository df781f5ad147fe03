# frozen_string_literal: true

module NimbleServer
  module Features
    module Quotes
      # Rows of the quote tables as the contract shows them.
      module Rows
        # @param vehicle [Hash] row with its customer's name
        def self.card(row, vehicle)
          quote(row).merge(
            "plate" => vehicle[:plate],
            "description" => vehicle[:description],
            "engine_code" => vehicle[:engine_code],
            "vehicle_id" => row[:vehicle_id],
            "customer" => vehicle[:customer_name]
          )
        end

        def self.quote(row)
          {
            "id" => row[:id],
            "number" => row[:number],
            "status" => row[:status],
            "latest_revision" => row[:latest_revision],
            "total_cents" => row[:total_cents],
            "currency" => row[:currency],
            "summary" => row[:summary],
            "updated_at" => row[:updated_at].iso8601
          }
        end

        def self.draft(draft)
          {
            "version" => draft[:version],
            "base_revision" => draft[:base_revision],
            "content" => draft[:content].to_h,
            "updated_at" => draft[:updated_at].iso8601
          }
        end

        def self.revision(row)
          {
            "revision" => row[:revision],
            "created_at" => row[:created_at].iso8601,
            "by" => row[:actor],
            "total_cents" => row[:total_cents],
            "currency" => row[:currency]
          }
        end
      end
    end
  end
end
