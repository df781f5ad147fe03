# frozen_string_literal: true

require "socket"

module NimbleServer
  # How long work goes on: it lets others run in between, and ends when its client is gone.
  #
  #   effort = NimbleLedger::Access::NodeBudget.new(tick: Patience.new(env).method(:tick).to_proc)
  class Patience
    # Nobody waits for the answer any more.
    class Abandoned < StandardError
    end

    LOOK_EVERY = 25

    GONE_EVERY = 0.3 # seconds between two looks that cost a question

    # @param env [Hash] Rack environment; "nimble.gone" where somebody else knows whether anybody waits (LongRequest)
    def initialize(env)
      @socket = env["puma.socket"]
      @gone = env["nimble.gone"]
      @ticks = 0
    end

    # Called often while something is computed.
    # @raise [Abandoned]
    def tick
      Thread.pass
      @ticks += 1
      return unless (@ticks % LOOK_EVERY).zero?

      look
    end

    # @raise [Abandoned]
    def look
      raise Abandoned if gone?
    end

    private

    def gone?
      return told_gone? if @gone
      return false unless @socket.respond_to?(:recv_nonblock)

      @socket.recv_nonblock(1, Socket::MSG_PEEK).to_s.empty?
    rescue IO::WaitReadable
      false
    rescue SystemCallError, IOError
      true
    end

    def told_gone?
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return false if @asked && now - @asked < GONE_EVERY

      @asked = now
      @gone.call
    end
  end
end
