# frozen_string_literal: true

require "json"
require "socket"

module NimbleServer
  # An answer whose first line goes out before the rest is worked out. Both together are one JSON object; the first
  # line, closed with a brace, is an object of its own, for a page that cannot wait for the figure that was asked for.
  # The rest is worked out when the request has let go of its connection to the database: it asks it nothing.
  class InTwoParts
    # @param at_once [Hash] what goes out first; not empty
    # @param socket [IO, nil] the client's, which the web server holds back until an answer is whole
    # @param later [Proc] gives the rest, a Hash; not empty
    def initialize(at_once, socket: nil, &later)
      @at_once = at_once
      @socket = socket
      @later = later
      @done = []
    end

    # Runs a block when the whole answer is out, or nobody is there to take it.
    def when_done(&block) = @done << block

    def each
      yield "#{JSON.generate(@at_once).chop}\n"
      let_go
      yield JSON.generate(rest).sub("{", ",")
    end

    def close
      @done.shift.call until @done.empty?
    end

    private

    # What goes wrong now cannot be said any more: the answer breaks off, and a page asks again.
    def rest
      @later.call
    rescue StandardError => e
      ErrorFallback.log(e) unless e.is_a?(Patience::Abandoned)
      raise
    end

    # What is written goes out now, not with the rest.
    def let_go
      @socket.to_io.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_CORK, 0) if @socket && Socket.const_defined?(:TCP_CORK)
    rescue SystemCallError, IOError
      nil
    end
  end
end
