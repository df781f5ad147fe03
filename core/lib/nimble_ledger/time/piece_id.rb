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

        # @param text [String, nil] parts that are not there are nil
        def self.read(text) = new(*text.to_s.split(":", 3))

        def to_s = "#{kind}:#{ref}:#{act}"
      end
  end
end
