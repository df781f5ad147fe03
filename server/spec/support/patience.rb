# frozen_string_literal: true

# Waits until something is so, for as long as a slow machine may take, and leaves the machine to whoever makes it so.
module Patience
  PAUSE = 0.02 # seconds between two looks

  # @param seconds [Numeric] at most
  # @return [Object] what the block returned last
  def self.until(seconds = 120)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until (found = yield) || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
      sleep PAUSE
    end
    found
  end
end
