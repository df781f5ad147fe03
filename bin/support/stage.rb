# frozen_string_literal: true

ENV["RACK_ENV"] = "test"
require_relative "browser"
require_relative "../../server/spec/support/test_server"
require_relative "../../server/spec/support/web_process"
require "puma"
require "puma/server"

# The whole program with demo data and a browser before it, for pictures and measurements.
class Stage
  attr_reader :driver, :client, :base

  # Yields a stage and clears everything away afterwards.
  # @param apart [Boolean] whether the program runs in a process of its own, as bin/start runs it
  def self.open(apart: false)
    server = apart ? Apart.new : Within.new
    stage = new(server.port)
    yield stage
  ensure
    stage&.close
    server&.stop
  end

  # The program in this process.
  class Within
    attr_reader :port

    def initialize
      @server = Puma::Server.new(TestServer.app, nil, min_threads: 2, max_threads: 6)
      @port = @server.add_tcp_listener("127.0.0.1", 0).addr[1]
      @server.run
    end

    def stop = @server.stop(true)
  end

  # The program in a process of its own, over the same database.
  class Apart
    def initialize
      TestServer.app
      @process = WebProcess.new(TestServer.cluster).ready
    end

    def port = @process.port
    def stop = @process.kill
  end

  # @param port [Integer] where the program answers
  def initialize(port)
    @base = "http://127.0.0.1:#{port}"
    @driver = Selenium::WebDriver.for(:chrome, options: Browser.options, service: Browser.service)
    @wait = Selenium::WebDriver::Wait.new(timeout: 15)
  end

  def close = @driver.quit

  def go(path, text = nil)
    @driver.navigate.to("#{@base}#{path}")
    see(text) if text
  end

  # A page that is just being replaced has no text to read: looked at again.
  def see(text)
    @wait.until do
      @driver.find_element(css: "body").text.include?(text)
    rescue Selenium::WebDriver::Error::WebDriverError
      false
    end
  end

  def sign_in(email)
    @client = Client.as(email)
    go("/", "Sign in")
    @driver.find_element(css: "input[type=email]").send_keys(email)
    @driver.find_element(css: "input[type=password]").send_keys(TestServer::PASSWORD, :enter)
    see("what needs you")
  end

  # @return [String] id of a quote made over the API
  def quote(plate, cylinders, works: %w[plug coil], save: false)
    page = @client.start_quote(plate)
    @client.choose(page, cylinders, works: works)
    @client.save(page["quote"]["id"]) if save
    page["quote"]["id"]
  end

  def open(id)
    go("/quotes/#{id}", "Down, work, and back up")
    settled
  end

  # Until every figure on the page belongs to what is chosen.
  def settled
    @wait.until do
      @driver.find_elements(css: "[data-testid=total][aria-busy=false]").any? &&
        @driver.find_elements(css: "main [aria-busy=true]").none?
    end
  end

  # Until fonts are there and two frames are painted.
  def painted
    @driver.execute_async_script(
      "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() => " \
        "requestAnimationFrame(done)))"
    )
  end

  def press(*keys) = @driver.action.tap { |action| keys.each { |key| action.send_keys(key) } }.perform
end
