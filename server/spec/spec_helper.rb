# frozen_string_literal: true

require "pdf/inspector"
require_relative "../../core/spec/support/effort"
require_relative "support/test_server"

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  config.include Effort
end
