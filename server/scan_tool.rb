# frozen_string_literal: true

# The scan tool's stand-in as a process of its own (bin/start runs it): SCAN_TOOL_PORT says where it listens.
require_relative "lib/nimble_server"

NimbleServer::StandIns::ScanTool.new(port: Integer(ENV.fetch("SCAN_TOOL_PORT"))).run
