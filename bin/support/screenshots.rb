# frozen_string_literal: true

require_relative "stage"
require_relative "../../server/spec/support/started"

# The current picture of each main view, from the demo shop.
class Screenshots
  FOLDER = File.join(NimbleServer::ROOT, "docs/screenshots")

  def initialize(stage)
    @stage = stage
    @driver = stage.driver
  end

  def take
    FileUtils.mkdir_p(FOLDER)
    first_run
    @stage.sign_in("advisor@merrow.example")
    picture("counter") { @stage.go("/", "Waiting for a yes") }
    picture("day") { day }
    yes
    bay
    quotes
    library
    @stage.go("/house", "two-post lift")
    click("Sign out")
    @stage.see("Sign in")
    @stage.sign_in("owner@merrow.example")
    picture("house") { @stage.go("/house", "two-post lift") }
    workshop
    picture("ledger") { ledger }
    picture("practice") { practice }
  end

  private

  # A server with no shop, as bin/start --empty has it.
  def first_run
    empty = Started.new("--empty")
    picture("first-run") do
      @driver.navigate.to(empty.address)
      @stage.see("Open the ledger")
      fill("Name" => "Vane and Daughter", "Labor rate per hour, USD" => "139.50", "Tax rate, %" => "7.5")
    end
  ensure
    empty&.close
  end

  def fill(texts)
    texts.each do |label, text|
      @driver.find_element(xpath: "//label[normalize-space()='#{label}']/following-sibling::input").send_keys(text)
    end
  end

  def quotes
    rear = @stage.quote("4-TRE-1M", [5], save: true)
    picture("quote-rear-bank") { @stage.open(rear) }
    paper("quote-paper", "/api/quotes/#{rear}/print.pdf")
    picture("trace") { trace(rear) }
  end

  def library
    picture("engines") { @stage.go("/engines", "AS04") }
    picture("engine") { @stage.go("/engines/IXO6", "What comes off") }
    picture("prices") { @stage.go("/prices", "COI-80409") }
  end

  # With what its jobs teach, as the learner works it out.
  def ledger
    TestServer.learn(TestServer.db[:accounts].where(email: "owner@merrow.example").get(:shop_id))
    @stage.go("/ledger", "A lesson is waiting")
  end

  # A made-up car at its end.
  def practice
    @stage.go("/practice/4", "A made-up car")
    { "Do" => "Exchange coil", "at" => "3", "with" => "1" }.each { |label, option| pick(label, option) }
    click("Do it")
    @stage.see("Exchange coil 3 with 1:")
    @driver.find_element(css: "button[aria-label^='Cylinder 1,']").click
    click("Coil 1")
    @stage.see("quoted")
    words = "The coil of number 3, which sits at 1 now, is at fault. The engine cover comes off for it."
    @driver.find_element(css: "textarea").send_keys(words)
    click("Show the truth")
    @stage.see("It was the")
  end

  # The same car before its coil was known to be at fault.
  def trace(quote)
    content = {
      complaint: "Shakes when I pull away, the light blinks",
      when: "load",
      lamp: "blinking",
      codes: [{ code: "P0305", status: "stored" }],
      evidence: [{ test: "balance-injector", cylinder: 5, outcome: "good", minutes: 12 }]
    }
    @stage.client.call(:put, "/api/quotes/#{quote}/trace", { version: 0, content: content })
    @stage.go("/quotes/#{quote}/trace", "Guess or know")
  end

  # A sideways V6 as docs/learn-an-engine.md draws it: begun, and with its six layers.
  def workshop
    built = { arrangement: "vee", mounting: "sideways", cylinders: 6, ignition: "coil-on-plug" }
    begun = { code: "QUAY-6", name: "Sideways V6, rear bank buried", bare: built }
    draft = @stage.client.call(:post, "/api/workshop", begun).last
    profile = LAYERS.reduce(draft["profile"]) { |so_far, layer| drawn(so_far, *layer) }
    @stage.client.call(:put, "/api/workshop/QUAY-6", { version: 1, profile: profile })
    picture("workshop") do
      @stage.go("/workshop/QUAY-6", "Does it quote true?")
      @driver.find_element(css: "button[aria-label^='Layer 6']").click
      @stage.see("rear bank")
    end
  end

  REAR = [1, 3, 5].freeze
  LAYERS = [
    ["Engine cover", [1, 2, 3, 4, 5, 6], 2, 2],
    ["Air pipe", REAR, 5, 5],
    ["Throttle body", REAR, 6, 7],
    ["Harness", REAR, 9, 10],
    ["Upper manifold", REAR, 14, 17],
    ["Wiper arms and tray", [3, 5], 14, 15]
  ].freeze

  def drawn(profile, label, over, off, on)
    made = act(profile, { do: "add", label: label, cylinders: over })
    at = made["steps"].index { |step| step["label"] == label }
    { "remove" => off, "refit" => on }.reduce(made) do |so_far, (key, minutes)|
      act(so_far, { do: "about", at: "/steps/#{at}/#{key}", minutes: minutes })
    end
  end

  def act(profile, act) =
    @stage.client.call(:post, "/api/workshop/acts", { profile: profile, act: act }).last["profile"]

  def picture(name, width: 1280, height: 800, chart: "day")
    Browser.resize(@driver, width, height)
    yield
    @driver.execute_script(
      "document.documentElement.dataset.chart = arguments[0]; document.activeElement?.blur()",
      chart
    )
    @stage.painted
    @driver.save_screenshot(File.join(FOLDER, "#{name}.png"))
    puts name
  end

  # From a list that opens.
  def pick(label, option)
    field = "//*[normalize-space(text())='#{label}']/following-sibling::button[@aria-haspopup='listbox']"
    @driver.find_element(xpath: field).click
    @stage.see(option)
    @driver.find_element(xpath: "//*[@role='option'][normalize-space()='#{option}']").click
  end

  def click(text) =
    @driver
      .find_elements(css: "button")
      .find { |button| button.text.include?(text) || button.attribute("textContent").include?(text) }
      .click

  # What waits for a yes, and the customer's page.
  def yes
    waiting = @stage.client.call(:get, "/api/counter").last["waiting"].find { |row| row["scopes"].size == 2 }
    offer = @stage.client.call(:get, "/api/quotes/#{waiting["quote_id"]}/yes").last["offers"].first
    picture("yes") { @stage.go("/quotes/#{waiting["quote_id"]}/yes", "Waiting for a yes") }
    picture("customer", width: 390, height: 1180) { @stage.go(URI(offer["link"]).path, "What could happen") }
  end

  # A card in work on the tablet, the same on paper, the bench, and what the customer is told in the end.
  def bay
    jobs = @stage.client.call(:get, "/api/jobs").last["jobs"]
    working = jobs.find { |row| row["started_at"] && row["finished_at"].nil? }
    done = jobs.find { |row| row["finished_at"] }
    picture("bay-card", width: 820, height: 1180) { @stage.go("/bay/#{working["id"]}", "in hand") }
    picture("bench") { bench }
    stop(working)
    hand_over(done)
  end

  # The day on which most stands, one job in hand.
  def day
    @stage.go("/day", "as it will go")
    @driver.find_element(css: "body").send_keys("n")
    @stage.see("Whose work")
  end

  # The end of a job, and its bill.
  def hand_over(done)
    @stage.client.call(:post, "/api/jobs/#{done["id"]}/hand-over", { odometer_km: 287_420 })
    picture("bill") { @stage.go("/bills/#{done["id"]}", "Agreed beside billed") }
  end

  # Plugs broke above the limit: the ways on, as the customer gets them.
  def stop(job)
    break_plugs(job)
    quote = @stage.client.call(:post, "/api/jobs/#{job["id"]}/ways-on").last["quote_id"]
    revision = @stage.client.call(:get, "/api/quotes/#{quote}/yes").last["proposal"]["revision"]
    given = { revision: revision, channel: "text", address: job["phone"] || "555 0104", recipient: job["customer"] }
    offer = @stage.client.call(:post, "/api/quotes/#{quote}/offers", given).last["offers"].first
    picture("stop", width: 390, height: 1300) { @stage.go(URI(offer["link"]).path, "What now?") }
  end

  # One plug after another, until it is more than was agreed.
  def break_plugs(job)
    card = @stage.client.call(:get, "/api/jobs/#{job["id"]}").last
    left = card["sheet"]["plugs"].reject { |plug| card["state"]["plugs"].dig(plug["key"], "out") }
    left.each_with_index.find { |plug, i| broken(job, plug, i)["standing"]["money"]["over"] }
  end

  def broken(job, plug, index)
    at = (Time.now.utc + index).strftime("%FT%T.000Z")
    mark = { id: "stop#{index}", at: at, kind: "out", plug: plug["target"], outcome: "broken" }
    @stage.client.call(:post, "/api/jobs/#{job["id"]}/marks", { device: "tablet", marks: [mark] }).last
  end

  def bench
    @stage.go("/bench", "Bench")
    @driver.find_element(css: "input[role=combobox]").send_keys("JIV6", :arrow_down, :enter)
    @stage.see("N·m")
    field = ->(label) { @driver.find_element(xpath: "//label[normalize-space()='#{label}']/following::input[1]") }
    field.call("Leaf that passes").send_keys("1.18", :tab)
    field.call("Wrench, full scale N·m").send_keys("100", :tab)
    @stage.see("too wide")
  end

  def paper(name, path)
    pdf = "/tmp/nimble-#{name}.pdf"
    File.binwrite(pdf, @stage.client.call(:get, path).last)
    system("pdftoppm", "-png", "-r", "80", "-singlefile", pdf, File.join(FOLDER, name), exception: true)
    puts name
  end
end

Stage.open { |stage| Screenshots.new(stage).take }
