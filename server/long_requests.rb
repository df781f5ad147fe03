# frozen_string_literal: true

# The process that works off what takes long, beside the web processes (bin/start runs one for each queue):
#   ruby server/long_requests.rb papers
# WEB_DATABASE_URL and DOOR_DATABASE_URL say where. It steps back for whoever answers the shop.
require_relative "lib/nimble_server"

$stdout.sync = true
queue = ARGV.fetch(0)
Process.setpriority(Process::PRIO_PROCESS, 0, 10)
url = ENV.fetch("WEB_DATABASE_URL")
db = NimbleServer::Database.connect(url, connections: 3)
door = NimbleServer::Database.connect(ENV.fetch("DOOR_DATABASE_URL"), connections: 1)
api = NimbleServer::Application.api(db, door: door)
NimbleServer::LongRequest::Runner.current = NimbleServer::LongRequest::Runner.new(db, api)
NimbleServer::Background.work(db, url, queue: queue)
