# frozen_string_literal: true

require_relative "stage"

# Every engine's reach drawing and deepest descent on a few sheets, to be looked at engine by engine. Written to
# tmp/contact/, which is not kept.
class ContactSheet
  FOLDER = File.join(NimbleServer::ROOT, "tmp/contact")
  PER_SHEET = 6
  TOP = 560

  def initialize(stage)
    @stage = stage
    @driver = stage.driver
  end

  def take
    FileUtils.mkdir_p(FOLDER)
    @stage.sign_in("owner@merrow.example")
    codes = @stage.client.call(:get, "/api/engines").last["engines"].map { |engine| engine["code"] }
    pictures = codes.map { |code| picture(code) }
    pictures.each_slice(PER_SHEET).with_index(1) { |slice, i| sheet(slice, "sheet-#{i}") }
  end

  private

  def picture(code)
    Browser.resize(@driver, 1180, TOP)
    @stage.go("/engines/#{code}", "What lies over each cylinder")
    @stage.painted
    File.join(FOLDER, "#{code}.png").tap { |path| @driver.save_screenshot(path) }
  end

  def sheet(pictures, name)
    cells = pictures.map { |path| "<img src=\"file://#{path}\" width=900>" }.join
    page = File.join(FOLDER, "#{name}.html")
    File.write(
      page,
      "<body style=\"margin:0;display:grid;grid-template-columns:900px 900px;gap:6px;background:#888\">#{cells}</body>"
    )
    @driver.navigate.to("file://#{page}")
    Browser.resize(@driver, 1806, @driver.execute_script("return document.body.scrollHeight"))
    path = File.join(FOLDER, "#{name}.png")
    @driver.save_screenshot(path)
    puts path
  end
end

Stage.open { |stage| ContactSheet.new(stage).take }
