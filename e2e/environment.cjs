/** Where a test fails, what its pages showed stands in the report: a machine's screen cannot be looked at afterwards. */
const { TestEnvironment } = require('jest-environment-node')

module.exports = class BrowserEnvironment extends TestEnvironment {
  async setup() {
    await super.setup()
    /** Open pages; `visit` adds to them. */
    this.global.openPages = new Set()
  }

  async handleTestEvent({ name, error }) {
    if (name !== 'test_fn_failure' || typeof error !== 'object' || !error) return
    for (const page of this.global.openPages) {
      if (page.isClosed()) continue
      const shown = await page
        .locator('body')
        .ariaSnapshot({ timeout: 5000 })
        .catch(() => 'nothing that can be read')
      // Dialogs come last.
      const said = `\n\n${page.url()} showed:\n${shown.slice(0, 1000)}\n[...]\n${shown.slice(1000).slice(-2500)}`
      error.message += said
      if (error.stack) error.stack += said
    }
  }
}
