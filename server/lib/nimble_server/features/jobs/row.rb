# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A job as the contract shows it.
      module Row
        # @param row [Hash] of jobs
        def self.shown(row)
          {
            "id" => row[:id],
            "number" => row[:number],
            "quote_id" => row[:quote_id],
            "title" => row[:title],
            "agreed_cents" => row[:agreed_cents],
            "limit_cents" => row[:limit_cents],
            "currency" => row[:currency],
            "opened_at" => row[:created_at].iso8601
          }
        end
      end
    end
  end
end
