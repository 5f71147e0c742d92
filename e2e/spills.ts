import type { Page } from 'playwright-core'

/** Text that runs out of the box that is drawn round it, or off the page: the first words of each, with the box's class. */
export const spills = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const drawn = (style: CSSStyleDeclaration) =>
      Number.parseFloat(style.borderTopWidth) > 0 || !/^rgba\(0, 0, 0, 0\)$/.test(style.backgroundColor)
    /** It is in something that can be scrolled sideways, where it can be come by. */
    const scrolled = (within: HTMLElement | null): boolean => {
      // Tabs that have no room are in a menu at the end of their row.
      if (within?.closest('.ant-tabs-nav')) return true
      for (let box = within; box; box = box.parentElement)
        if (/auto|scroll/.test(getComputedStyle(box).overflowX) && box.scrollWidth > box.clientWidth) return true
      return false
    }
    const found: string[] = []
    const page = document.documentElement
    if (page.scrollWidth > page.clientWidth + 1)
      found.push(`the page is ${page.scrollWidth - page.clientWidth} px too wide`)
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const words = node.textContent?.trim() ?? ''
      const parent = node.parentElement
      if (words === '' || !parent?.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
      // Only said, to who does not see it.
      if (parent.closest('.visually-hidden')) continue
      const range = document.createRange()
      range.selectNodeContents(node)
      const text = range.getBoundingClientRect()
      if (text.width < 2 || text.height < 2) continue
      for (let box: HTMLElement | null = parent; box; box = box.parentElement) {
        const style = getComputedStyle(box)
        // What is cut off or scrolled is another matter; so is what is laid over the page.
        if (style.overflowX !== 'visible' || style.position === 'absolute' || style.position === 'fixed') break
        if (style.display === 'inline' || !drawn(style)) continue
        const { left, right } = box.getBoundingClientRect()
        if (text.right > right + 1.5 || text.left < left - 1.5)
          found.push(`"${words.slice(0, 30)}" out of ${box.tagName.toLowerCase()}.${box.className}`)
        break
      }
      if (text.right > document.documentElement.clientWidth + 1.5 && !scrolled(parent))
        found.push(`"${words.slice(0, 30)}" off the page`)
    }
    return found
  })

/** What can be clicked, and is not to be got at: something else lies over its middle, or it is cut off where nothing scrolls. */
export const covered = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = []
    const clickable = 'a[href], button:not([disabled]), input:not([type=hidden]):not([disabled]), textarea, summary'
    for (const each of document.querySelectorAll<HTMLElement>(clickable)) {
      if (!each.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
      // Of a link over two lines, its first.
      const [box] = each.getClientRects()
      if (!box || box.width < 2 || box.height < 2) continue
      const [x, y] = [box.left + box.width / 2, box.top + box.height / 2]
      let inSight = true
      for (let around = each.parentElement; around && inSight; around = around.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(around)
        const seen = around.getBoundingClientRect()
        const beyond = { x: x < seen.left || x > seen.right, y: y < seen.top || y > seen.bottom }
        if ((beyond.x && overflowX !== 'visible') || (beyond.y && overflowY !== 'visible')) {
          inSight = false
          if ((beyond.x && overflowX === 'hidden') || (beyond.y && overflowY === 'hidden' && around !== document.body))
            if (!around.closest('.ant-tabs-nav, .ant-select-dropdown'))
              found.push(
                `"${each.textContent || each.ariaLabel}" is cut off by ${around.tagName.toLowerCase()}.${around.className}`,
              )
        }
      }
      if (!inSight || x < 0 || y < 0 || x >= innerWidth || y >= innerHeight) continue
      const there = document.elementFromPoint(x, y)
      const own = there && (each.contains(there) || there.contains(each) || there.closest('label')?.contains(each))
      // A field of Ant Design's has what is shown laid over what is typed into.
      const frame = each.closest(
        '.ant-select, .ant-picker, .ant-input-affix-wrapper, .ant-segmented, .ant-color-picker-trigger',
      )
      if (there && !own && !frame?.contains(there))
        found.push(
          `"${each.textContent || each.ariaLabel}" lies under ${there.tagName.toLowerCase()}.${there.className}`,
        )
    }
    return found
  })

/** Text that lies on other text: the first words of both. What is laid over the page on purpose, and drawings, are not looked at. */
export const overlaps = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const seen: { readonly words: string; readonly box: DOMRect }[] = []
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const words = node.textContent?.trim() ?? ''
      const parent = node.parentElement
      if (words === '' || !parent?.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
      if (parent.closest('svg, .visually-hidden, .cm-editor, [aria-hidden=true]')) continue
      const range = document.createRange()
      range.selectNodeContents(node)
      for (const box of range.getClientRects()) {
        const [x, y] = [box.left + box.width / 2, box.top + box.height / 2]
        // Only what is really to be seen there: not what is scrolled away, cut off or behind.
        const there = document.elementFromPoint(x, y)
        if (box.width > 2 && there && (parent.contains(there) || there.contains(parent))) seen.push({ words, box })
      }
    }
    const found: string[] = []
    for (const [i, a] of seen.entries())
      for (const b of seen.slice(i + 1)) {
        if (a.words === b.words) continue
        const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left)
        const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top)
        // Lines of text stand close, and their boxes are higher than their letters.
        if (wide > 2 && high > 0.35 * Math.min(a.box.height, b.box.height))
          found.push(`"${a.words.slice(0, 24)}" lies on "${b.words.slice(0, 24)}"`)
      }
    return found
  })

/** All text twice as large as it is, and nothing else: as a browser does that enlarges text alone. */
export const enlargeText = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const all = [...document.querySelectorAll<HTMLElement>('body *')].filter((each) => !(each instanceof SVGElement))
    const was = all.map((each) => getComputedStyle(each)).map(({ fontSize, lineHeight }) => ({ fontSize, lineHeight }))
    const twice = (length: string) => `${2 * Number.parseFloat(length)}px`
    for (const [i, each] of all.entries()) {
      const { fontSize = '', lineHeight = '' } = was[i] ?? {}
      each.style.setProperty('font-size', twice(fontSize), 'important')
      if (lineHeight !== 'normal') each.style.setProperty('line-height', twice(lineHeight), 'important')
    }
  })

/**
 * Until nothing on the page has moved for a while, counted in frames that are drawn and not by the clock.
 *
 * @param frames so many alike: few where nothing is fetched, as when the window has changed its size
 */
export const still = (page: Page, frames = 20): Promise<void> =>
  page.evaluate(async (enough) => {
    let [before, alike] = ['', 0]
    while (alike < enough) {
      await new Promise(requestAnimationFrame)
      const main = document.querySelector('main') ?? document.body
      const now = [innerWidth, main.scrollHeight, main.scrollWidth, main.querySelectorAll('*').length].join()
      alike = now === before ? alike + 1 : 0
      before = now
    }
  }, frames)
