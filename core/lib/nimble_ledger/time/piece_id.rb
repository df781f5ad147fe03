# frozen_string_literal: true

module NimbleLedger
  module Time
    # What a piece of a job is called, the same on drawing, card and ledger (model.md section 15): a step coming off,
    # going on or being closed up, or the work on a target.
    #
    #   PieceId.step("upper-manifold", "remove").to_s    #=> "step:upper-manifold:remove"
    #   PieceId.read("target:plug-5:work").ref           #=> "plug-5"
    PieceId =
      Struct.new(:kind, :ref, :act) do
        # @param act ["remove", "refit", "closing"]
        def self.step(id, act) = new("step", id, act)

        # @param id [String] of a target
        def self.work(id) = new("target", id, "work")

        # What is done at two moments is one task all the same, in the hours and in the ledger (model.md section 15).
        #
        #   PieceId.task("target:plug-5:out")  #=> "target:plug-5:work"
        def self.task(id)
          HALVES.fetch(id) { id.sub(/\A(target:.+):(?:out|in)\z/, '\1:work') }
        end

        # @param text [String, nil] parts that are not there are nil
        def self.read(text) = new(*text.to_s.split(":", 3))

        def to_s = "#{kind}:#{ref}:#{act}"
      end

    # Pieces that are a part of a task of the house.
    HALVES = {
      "house:battery-off" => "house:battery",
      "house:battery-on" => "house:battery",
      "house:clear" => "house:scan_clear",
      "house:read" => "house:scan_clear"
    }.freeze
  end
end
