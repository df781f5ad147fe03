# frozen_string_literal: true

require_relative "../lib/nimble_ledger"
Dir[File.join(__dir__, "support", "*.rb")].sort.each { |file| require file }

RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  config.include Profiles
  config.include Effort
end
