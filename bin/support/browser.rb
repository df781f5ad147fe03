# frozen_string_literal: true

require "selenium-webdriver"

# Debian's headless Chromium, driven through ChromeDriver; used by the browser tests, the screenshots and the bench.
module Browser
  FLAGS = %w[
    --headless=new
    --no-sandbox
    --disable-gpu
    --disable-quic
    --no-first-run
    --disable-background-networking
    --disable-component-update
    --disable-sync
    --disable-dev-shm-usage
    --force-device-scale-factor=1
    --hide-scrollbars
  ].freeze

  module_function

  def options(width: 1280, height: 800)
    Selenium::WebDriver::Chrome::Options.new(
      binary: "/usr/bin/chromium",
      args: FLAGS + ["--window-size=#{width},#{height}"]
    )
  end

  def service = Selenium::WebDriver::Service.chrome(path: "/usr/bin/chromedriver")

  # How long a single order to the browser may take: a machine that stalls for a while fails nothing.
  def patient = Selenium::WebDriver::Remote::Http::Default.new(open_timeout: 120, read_timeout: 300)

  # The inside of the window, exactly.
  def resize(driver, width, height)
    driver.execute_cdp(
      "Emulation.setDeviceMetricsOverride",
      width: width,
      height: height,
      deviceScaleFactor: 1,
      mobile: false
    )
  end
end
