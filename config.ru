# frozen_string_literal: true

require_relative "server/lib/nimble_server"

$stdout.sync = true
run NimbleServer::Application.build(
      NimbleServer::Database.connect(ENV.fetch("WEB_DATABASE_URL")),
      door: NimbleServer::Database.connect(ENV.fetch("DOOR_DATABASE_URL"))
    )
