# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A customer no longer wants what was agreed. Where no work has begun the yeses are struck with it, so that
      # nothing binds anybody; where it has, they stand for what was done. Either can be taken up again as it was.
      class CallingOff
        def initialize(shop)
          @shop = shop
        end

        # @param reason [String]
        # @return [String] id of the job's quote
        # @raise [Refusal] 404, 409 where it was handed over or is called off already
        def call_off(id, reason)
          @shop.transaction do
            job = locked(id)
            refuse(job)
            called_off = off(job, reason)
            striking.of_job(job, reason, called_off) unless job[:started_at]
            striking.tell(job, "called-off", reason)
            settled(job)
          end
        end

        # A yes of a quote was struck: what is agreed follows from those that are left, and without any the job is off.
        def after_strike(quote_id:, reason:)
          job = @shop[:jobs].where(quote_id: quote_id).first
          off(job, reason, struck: true) if Opening.new(@shop).settle(job).zero? && job[:called_off_at].nil?
        end

        # Nothing is left of what was agreed.
        # @param job [Hash] row, locked
        # @param struck [Boolean] nobody called it off: its only yes was a mistake
        # @return [String] id of the row that says so
        def off(job, reason, struck: false)
          id = @shop.insert(:called_off_jobs, job_id: job[:id], reason: reason.strip, struck: struck)
          @shop[:jobs].where(id: job[:id]).update(called_off_at: @shop.now, updated_at: @shop.now)
          Record::ActLog.new(@shop).append(
            "job-called-off",
            "job #{job[:number]}",
            { "reason" => reason.strip, "begun" => !job[:started_at].nil? }
          )
          id
        end

        # @return [String] id of the job's quote
        # @raise [Refusal] 404, 409 where it is not called off, or its yes was struck as a mistake
        def take_up(id)
          @shop.transaction do
            job = locked(id)
            raise Refusal.new(409, "not_called_off", "This job was not called off.") unless job[:called_off_at]

            striking.undo(called_off(job)[:id])
            raise Refusal.new(409, "no_yes", NO_YES) if Opening.new(@shop).settle(job).zero?

            over(job)
            settled(job)
          end
        end

        NO_YES = "Nothing is agreed to any more: its yes was struck. Offer it again."
        private_constant :NO_YES

        # It is no longer called off.
        def over(job)
          values = { undone_at: @shop.now, undone_by: @shop.actor.account_id }
          @shop[:called_off_jobs].where(job_id: job[:id], undone_at: nil).update(values)
          @shop[:jobs].where(id: job[:id]).update(called_off_at: nil, updated_at: @shop.now)
          Record::ActLog.new(@shop).append("job-taken-up", "job #{job[:number]}", {})
        end

        # Why a job is called off.
        # @return [Hash, nil] row of called_off_jobs
        def called_off(job) = @shop[:called_off_jobs].where(job_id: job[:id], undone_at: nil).first

        private

        def striking = Offers::Striking.new(@shop)

        def locked(id)
          quote_id = @shop[:jobs].where(id: id).get(:quote_id) or raise Refusal.not_found("job")
          @shop[:quotes].where(id: quote_id).for_update.first
          @shop[:jobs].where(id: id).for_update.first
        end

        def refuse(job)
          raise Refusal.new(409, "handed_over", "The car was handed over already.") if job[:handed_over_at]
          raise Refusal.new(409, "called_off", "This job was called off already.") if job[:called_off_at]
        end

        def settled(job)
          Offers::Sending.new(@shop).settle(@shop[:quotes].where(id: job[:quote_id]).first)
          Live.tell(@shop, "quotes")
          Live.tell(@shop, "jobs")
          job[:quote_id]
        end
      end
    end
  end
end
