/** A page without a browser, with what our libraries want of one and it has not. */
const { TestEnvironment } = require('jest-environment-jsdom')

/** Node's own would keep the tests from ending. */
class MessageChannel {
  port1 = { onmessage: undefined }
  port2 = { postMessage: (data) => setTimeout(() => this.port1.onmessage?.({ data }), 0) }
}

/** As much of it as a router asks for that fetches nothing. */
class Request {
  method = 'GET'
  constructor(url, { signal }) {
    Object.assign(this, { url, signal })
  }
}

module.exports = class extends TestEnvironment {
  async setup() {
    await super.setup()
    // What is hidden is all that tests ask of styles. Working them out from thousands of rules takes most of a test's time.
    const getComputedStyle = (element) => {
      if (
        element.hidden ||
        /\bant-(form-item|[a-z-]*dropdown|popover|tooltip)-hidden\b/.test(element.getAttribute?.('class') ?? '')
      )
        return Object.assign(this.global.document.createElement('i').style, { display: 'none' })
      return element.style
    }
    Object.assign(this.global, { TextEncoder, TextDecoder, MessageChannel, Request, getComputedStyle })
  }
}
