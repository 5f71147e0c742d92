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
    Object.assign(this.global, { TextEncoder, TextDecoder, MessageChannel })
  }
}
