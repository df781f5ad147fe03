# frozen_string_literal: true

require "json"
require "socket"
require "digest"

module NimbleServer
  module StandIns
    # In place of the tool that reads fault codes out of a car: a small server of its own on loopback. One line asks,
    # one line answers. It is away now and then, like the one that is always in the other bay.
    #
    # What it says of a car follows from the plate and what was mended: before the work one cylinder misfires, after it
    # nothing does, and a code that the car itself clears over its next drives stays as "permanent".
    class ScanTool
      # How many of a hundred askings find it away.
      AWAY = 12

      # @param away [Integer] of a hundred; 0: always there
      def initialize(away: AWAY, port: 0)
        @away = away
        @server = TCPServer.new("127.0.0.1", port)
        @asked = 0
      end

      def port = @server.addr[1]

      # Answers until the server is closed.
      def run
        loop { serve(@server.accept) }
      rescue IOError, Errno::EBADF
        nil
      end

      def close = @server.close

      # What the tool reads of a car.
      # @param plate [String]
      # @param cylinders [Array<Integer>]
      # @param mended [Array<Integer>] cylinders that were worked on since the fault came up
      # @return [Hash] codes, lamp, misfires, freeze
      def self.report(plate, cylinders, mended)
        seed = Digest::SHA256.hexdigest(plate).to_i(16)
        return quiet(cylinders) if cylinders.empty? || (seed % 5).zero?

        sick = (mended & cylinders).first || cylinders[seed % cylinders.size]
        code = format("P03%02d", sick)
        healed = mended.include?(sick)
        {
          "codes" => [{ "code" => code, "status" => healed ? "permanent" : "stored" }],
          "lamp" => healed ? "off" : "steady",
          "misfires" => cylinders.to_h { |number| [number.to_s, number == sick && !healed ? 40 + (seed % 90) : 0] },
          "freeze" => healed ? nil : { "load_percent" => 60 + (seed % 30), "rpm" => 1_500 + (seed % 1_200) }
        }
      end

      def self.quiet(cylinders) =
        { "codes" => [], "lamp" => "off", "misfires" => cylinders.to_h { |number| [number.to_s, 0] }, "freeze" => nil }
      private_class_method :quiet

      private

      def serve(client)
        asked = JSON.parse(client.gets.to_s)
        @asked += 1
        return client.close if (@asked * 37 % 100) < @away

        client.puts(JSON.generate(ScanTool.report(asked["plate"].to_s, asked["cylinders"].to_a, asked["mended"].to_a)))
        client.close
      rescue JSON::ParserError, SystemCallError
        client.close
      end
    end
  end
end
