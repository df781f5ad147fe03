# frozen_string_literal: true

# Work counted in seconds of processor time, so that a machine busy with something else changes no result.
module Effort
  # @return [Float] processor seconds this process spent on the block, in all its threads
  def processor_seconds
    before = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)
    yield
    Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) - before
  end
end
