# frozen_string_literal: true

# The process that carries messages (bin/start runs it): POST_DATABASE_URL, LINK_SECRET and PUBLIC_URL say how.
require_relative "lib/nimble_server"

$stdout.sync = true
db = NimbleServer::Database.connect(ENV.fetch("POST_DATABASE_URL"), connections: 2)
NimbleServer::Features::Outbox::Post.new(db, NimbleServer::StandIns::Carrier.new(db)).run
