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
