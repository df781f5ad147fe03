# frozen_string_literal: true

module NimbleServer
  module Features
    module Everything
      # All the shop owns, to take along. Adds: GET /api/everything.
      module Routes
        def self.registered(app)
          app.api(:get, "/api/everything", role: :owner, beside: "long") do
            content_type "application/zip"
            headers "content-disposition" => "attachment; filename=\"everything.zip\""
            file = Archive.new(shop).write
            File.unlink(file.path)
            file
          end
        end
      end
    end
  end
end
