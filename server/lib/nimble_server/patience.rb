# frozen_string_literal: true

require "socket"

module NimbleServer
  # How long work goes on: it lets others run in between, and ends when its client is gone.
  #
  #   effort = NimbleLedger::Access::Effort.new(tick: Patience.new(env).method(:tick).to_proc)
  class Patience
    # Nobody waits for the answer any more.
    class Abandoned < StandardError
    end

    LOOK_EVERY = 25

    # @param env [Hash] Rack environment
    def initialize(env)
      @socket = env["puma.socket"]
      @ticks = 0
    end

    # Called often while something is computed.
    # @raise [Abandoned]
    def tick
      Thread.pass
      @ticks += 1
      return unless (@ticks % LOOK_EVERY).zero?

      raise Abandoned if gone?
    end

    private

    def gone?
      return false unless @socket.respond_to?(:recv_nonblock)

      @socket.recv_nonblock(1, Socket::MSG_PEEK).to_s.empty?
    rescue IO::WaitReadable
      false
    rescue SystemCallError, IOError
      true
    end
  end
end
