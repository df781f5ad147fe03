# frozen_string_literal: true

# The process that carries messages (bin/start runs it): POST_DATABASE_URL, LINK_SECRET and PUBLIC_URL say how,
# SMTP_URL by which mail server (Outbox::MailServer).
require_relative "lib/nimble_server"

$stdout.sync = true
db = NimbleServer::Database.connect(ENV.fetch("POST_DATABASE_URL"), connections: 2)
outbox = NimbleServer::Features::Outbox
mail = outbox::MailServer.new(db, ENV.fetch("SMTP_URL")) if outbox::MailServer.set?
outbox::Post.new(db, outbox::Carriers.new(NimbleServer::StandIns::Carrier.new(db), mail)).run
