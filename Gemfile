# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1.0"

# Web
gem "puma"
gem "rack"
gem "rack-attack"
gem "rack-protection"
gem "sinatra"
gem "zeitwerk", "~> 2.6.0"

# Accounts
gem "argon2"
gem "roda"
gem "rodauth"

# Data
gem "pg"
gem "que", "2.4.1"
gem "sequel"
gem "sequel_pg"

# Contract, documents
gem "csv"
gem "erubi"
gem "highs", "~> 0.2.6", require: false # loaded when an order is computed (core parts/)
gem "holidays"
gem "i18n"
gem "icalendar"
gem "json", "~> 2.10" # multi_json (openapi_first) does not know json 3
gem "mail"
gem "openapi_first", "~> 1.4" # its later majors need Ruby 3.2
gem "prawn"
gem "rqrcode_core"
gem "ruby-vips", require: false # loaded with the first picture
gem "rubyzip", "~> 2.3", require: "zip"
gem "twitter_cldr"
gem "tzinfo"
gem "tzinfo-data"

group :test do
  gem "axe-core-rspec"
  gem "capybara"
  gem "json_schemer"
  gem "pdf-inspector", require: "pdf/inspector"
  gem "prop_check"
  gem "rack-test"
  gem "rspec"
  gem "rubocop", require: false
  gem "selenium-webdriver", "< 4.28"
  gem "syntax_tree", require: false
end
