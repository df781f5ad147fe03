# frozen_string_literal: true

module NimbleLedger
  # One door for every request format (formats.md, "Other requests").
  #
  #   Answers.to({ "format" => "nimble-ledger.estimate-request", ... })  #=> Hash, the answer of that format
  module Answers
    # format to what reads its requests: `build(hash, documents:)`, whose value answers `answer(effort:)` with a Hash.
    KINDS = {
      "nimble-ledger.estimate-request" => Estimate::Request,
      Bench::Request::FORMAT => Bench::Request,
      Scope::Request::FORMAT => Scope::Request,
      Trace::Request::FORMAT => Trace::Request,
      Ledger::History::FORMAT => Ledger::History,
      Day::Request::FORMAT => Day::Request,
      Day::PaceRequest::FORMAT => Day::PaceRequest,
      Bill::Request::FORMAT => Bill::Request,
      Parts::PurchaseRequest::FORMAT => Parts::PurchaseRequest,
      Ledger::PoolRequest::FORMAT => Ledger::PoolRequest
    }.freeze

    module_function

    # @param hash [Object] parsed JSON
    # @param documents [Documents] where engines and catalogs come from
    # @raise [InvalidInput] for a format nobody knows, and for what the request gets wrong
    # @raise [ImpossiblePlan]
    # @return [Hash]
    def to(hash, documents: Documents.new, effort: Access::NodeBudget.new)
      Shape.open_object.check!(hash, what: "request", code: "invalid_request")
      kind = KINDS[hash["format"]] or refuse(hash["format"])
      kind.build(hash, documents: documents).answer(effort: effort)
    end

    def refuse(format)
      message =
        "#{format.is_a?(String) ? "#{format[0, 60]} is" : "must be"} " \
          "#{format.is_a?(String) ? "no request format; known are" : "one of"} #{KINDS.keys.join(", ")}"
      raise InvalidInput.at("/format", message)
    end
    private_class_method :refuse
  end
end
