/** A page without a browser, with what our libraries want of one and it has not. */
const { TestEnvironment } = require('jest-environment-jsdom')

/** Node's own would keep the tests from ending. */
class MessageChannel {
  port1 = { onmessage: undefined }
  port2 = { postMessage: (data) => setTimeout(() => this.port1.onmessage?.({ data }), 0) }
}

module.exports = class extends TestEnvironment {
  async setup() {
    await super.setup()
    // jsdom knows no styles of ::before and ::after, and says so each time.
    const styleOf = this.global.getComputedStyle
    const getComputedStyle = (element) => styleOf(element)
    Object.assign(this.global, { TextEncoder, TextDecoder, MessageChannel, getComputedStyle })
  }
}
