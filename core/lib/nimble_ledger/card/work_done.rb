# frozen_string_literal: true

module NimbleLedger
  module Card
    # Which work of a job its card says is done: the piece of the work, or, where all plugs are out together, the plug
    # in again (model.md section 15, 6).
    #
    #   Card::WorkDone.of(job.targets, { "target:plug-1:in" => at }).map(&:id)   #=> ["plug-1"]
    module WorkDone
      # @param targets [Array<Profile::Target>]
      # @param done [Hash{String=>String}] the fold's "done"
      # @return [Array<Profile::Target>]
      def self.of(targets, done) = targets.select { |target| pieces(target).any? { |id| done.key?(id) } }

      def self.pieces(target) = [Time::PieceId.work(target.id).to_s, Time::PieceId.new("target", target.id, "in").to_s]
      private_class_method :pieces
    end
  end
end
