# frozen_string_literal: true

module NimbleServer
  module Features
    module Ledger
      # When a job that is brought along may have been finished: not to come, and not before there were such jobs.
      #
      #   FinishDay.fault("2099-01-01T10:00:00Z", now: Time.now)  #=> "is still to come"
      module FinishDay
        EARLIEST = ::Time.utc(1970)
        AHEAD = 86_400 # seconds: somewhere it is tomorrow already

        module_function

        # @param text [String] RFC 3339
        # @return [String, nil] what is wrong with it
        def fault(text, now:)
          at = ::Time.iso8601(text)
          return "is still to come" if at > now + AHEAD

          "is before #{EARLIEST.year}" if at < EARLIEST
        end

        # @param jobs [Array<Hash>] of a history that has been checked
        # @raise [NimbleLedger::InvalidInput] with the path of the first that cannot be
        def check!(jobs, now:)
          jobs.each_with_index do |job, i|
            fault = fault(job["finished"], now: now) or next
            raise NimbleLedger::InvalidInput.at("/jobs/#{i}/finished", fault, what: "history", code: "invalid_request")
          end
        end
      end
    end
  end
end
