# frozen_string_literal: true

# A web process: a few threads behind a socket that bin/start has opened for all of them. Bodies are cut at the socket;
# stopping never waits longer than a few seconds for whatever is still being computed.
threads 2, 8
workers 0
http_content_length_limit 4_200_000
force_shutdown_after 8
