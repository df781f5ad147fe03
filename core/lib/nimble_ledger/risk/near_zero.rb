# frozen_string_literal: true

module NimbleLedger
  module Risk
    # Logarithm and exponential of what differs little from 1, without losing digits (Kahan's way).
    #
    #   NearZero.log1p(1e-20)  #=> 1.0e-20
    #   NearZero.expm1(1e-20)  #=> 1.0e-20
    module NearZero
      # rubocop:disable Lint/FloatComparison -- the very number is meant: where nothing is left to lose
      module_function

      # @return [Float] ln(1 + x)
      def log1p(x)
        whole = 1.0 + x
        whole == 1.0 ? x.to_f : Math.log(whole) * x / (whole - 1.0)
      end

      # @return [Float] e^x − 1
      def expm1(x)
        whole = Math.exp(x)
        return x.to_f if whole == 1.0
        return whole - 1.0 if x.abs > 1 || whole - 1.0 == -1.0

        (whole - 1.0) * x / Math.log(whole)
      end
      # rubocop:enable Lint/FloatComparison
    end
  end
end
