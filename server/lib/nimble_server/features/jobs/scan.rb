# frozen_string_literal: true

require "json"
require "socket"
require "io/wait"

module NimbleServer
  module Features
    module Jobs
      # Reads the codes of a job's car through the scan tool.
      class Scan
        VARIABLE = "SCAN_TOOL_PORT"
        PATIENCE = 3

        def initialize(shop, port: ENV.fetch(VARIABLE, nil))
          @shop = shop
          @port = port
        end

        # @param card [Cards::Card]
        # @param state [Hash] the card's fold
        # @return [Hash] see the contract, ScanReport
        # @raise [Refusal] 503 while the tool is away: codes can be typed
        def read(card, state)
          work = card.work
          asked = {
            "plate" => plate(card.job),
            "cylinders" => work.car.engine.cylinders.map(&:number),
            "mended" => mended(work, state)
          }
          answered(asked)
        end

        # The codes of a car no job is open for.
        # @param numbers [Array<Integer>] of its cylinders
        # @return [Hash] see the contract, ScanReport
        def ask_for(plate, numbers) = answered({ "plate" => plate, "cylinders" => numbers, "mended" => [] })

        private

        def answered(asked)
          unless @shop.stand_ins?
            raise Refusal.new(
                    503,
                    "no_scan_tool",
                    "No scan tool is connected. Read the codes with yours and type them."
                  )
          end

          answer = ask(JSON.generate(asked)) or raise SocketError
          JSON.parse(answer)
        rescue SystemCallError, SocketError, JSON::ParserError
          raise Refusal.new(503, "scan_tool_away", "The scan tool does not answer. Try again, or type the codes.")
        end

        def plate(job)
          vehicle = @shop[:quotes].where(id: job[:quote_id]).get(:vehicle_id)
          @shop[:vehicles].where(id: vehicle).get(:plate)
        end

        def mended(work, state) =
          NimbleLedger::Card::WorkDone.of(work.targets, state["done"]).flat_map(&:cylinders).uniq

        def ask(line)
          raise SocketError if @port.to_s.empty?

          Socket.tcp("127.0.0.1", Integer(@port), connect_timeout: PATIENCE) do |tool|
            tool.puts(line)
            tool.wait_readable(PATIENCE) && tool.gets
          end
        end
      end
    end
  end
end
