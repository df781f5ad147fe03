# frozen_string_literal: true

# The web processes: several behind one port, each with a few threads. Bodies are cut at the socket; stopping never
# waits longer than a few seconds for whatever is still being computed.
require "sequel"

threads 2, 8
workers Integer(ENV.fetch("WEB_PROCESSES", "2"))
preload_app!
http_content_length_limit 4_200_000
force_shutdown_after 8
worker_shutdown_timeout 12
silence_single_worker_warning
before_fork { Sequel::DATABASES.each(&:disconnect) }
