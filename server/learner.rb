# frozen_string_literal: true

# The process that learns from finished jobs in the background (bin/start runs it): WEB_DATABASE_URL says where.
require_relative "lib/nimble_server"

$stdout.sync = true
url = ENV.fetch("WEB_DATABASE_URL")
NimbleServer::Background.work(NimbleServer::Database.connect(url, connections: 3), url)
