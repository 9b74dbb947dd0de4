import type { Page } from 'playwright-core'

/** Makes every text of the page two fifths longer while something is done, as another language would be. */
export async function withLongerTexts<T>(page: Page, work: () => Promise<T>): Promise<T> {
  await page.evaluate(() => {
    const before = new Map<Text, [was: string, is: string]>()
    Object.assign(window, { textsBefore: before })
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    const nodes: Text[] = []
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) nodes.push(node)
    for (const node of nodes) {
      const text = node.data.trim()
      if (/[a-z]{2}/i.test(text) && !node.parentElement?.closest('script, style')) {
        const was = node.data
        node.data += text.slice(0, Math.ceil(0.4 * text.length)).toLowerCase()
        before.set(node, [was, node.data])
      }
    }
  })
  try {
    return await work()
  } finally {
    await page.evaluate(() => {
      const before = (window as unknown as { textsBefore: Map<Text, [was: string, is: string]> }).textsBefore
      for (const [node, [was, is]] of before) if (node.data === is) node.data = was
    })
  }
}

/** Texts that are cut off, lie beyond the window, or over one another. */
export function unreadable(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    interface Shown {
      readonly words: string
      readonly element: HTMLElement
      readonly box: DOMRect
    }
    const scrolls = (style: CSSStyleDeclaration): boolean => /auto|scroll/.test(style.overflowX + style.overflowY)
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    const texts: Shown[] = []
    const found: string[] = []
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
      const element = node.parentElement!
      if (!node.data.trim() || element.closest('script, style, [aria-hidden=true], option')) continue
      const range = document.createRange()
      range.selectNodeContents(node)
      const box = range.getBoundingClientRect()
      const style = getComputedStyle(element)
      // What is for screen readers only is a pixel large.
      if (box.width < 2 || style.visibility === 'hidden' || element.clientWidth === 1) continue
      const words = node.data.trim().slice(0, 50)
      let within: HTMLElement | null = element
      let seen = box
      let isScrolled = false
      while (within) {
        const its = getComputedStyle(within)
        const [shut, edge] = [its.overflowX === 'hidden' || its.overflowX === 'clip', within.getBoundingClientRect()]
        if (within.clientWidth === 1) break
        if (scrolls(its)) isScrolled = true
        if (shut && !isScrolled && its.textOverflow !== 'ellipsis' && (box.right > edge.right + 1 || box.left < edge.left - 1))
          found.push(`cut off: ${words}`)
        if (shut || scrolls(its)) {
          const [left, right] = [Math.max(seen.left, edge.left), Math.min(seen.right, edge.right)]
          const [top, bottom] = [Math.max(seen.top, edge.top), Math.min(seen.bottom, edge.bottom)]
          seen = new DOMRect(left, top, Math.max(0, right - left), Math.max(0, bottom - top))
        }
        within = within.parentElement
      }
      if (!isScrolled && box.right > innerWidth + 1) found.push(`beyond the window: ${words}`)
      if (seen.width > 0 && seen.height > 0) texts.push({ words, element, box: seen })
    }
    texts.forEach((one, i) => {
      for (const other of texts.slice(i + 1)) {
        const across = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left)
        const down = Math.min(one.box.bottom, other.box.bottom) - Math.max(one.box.top, other.box.top)
        const isRelated = one.element.contains(other.element) || other.element.contains(one.element)
        // Of what lies over something else only the upper one is seen.
        const [x, y] = [Math.max(one.box.left, other.box.left) + across / 2, Math.max(one.box.top, other.box.top) + down / 2]
        const top = across > 3 && down > 4 ? document.elementFromPoint(x, y) : null
        if (top && !isRelated && [one, other].every(({ element }) => element.contains(top) || top.contains(element)))
          found.push(`over one another: ${one.words} | ${other.words}`)
      }
    })
    return [...new Set(found)]
  })
}

/** Buttons and links that no scrolling brings into the window. */
export function outOfReach(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const controls = [...document.querySelectorAll<HTMLElement>('button, a, input, [role=combobox], [role=slider]')]
    return controls.flatMap((element) => {
      const box = element.getBoundingClientRect()
      if (box.width < 3 || element.closest('[aria-hidden=true]') || getComputedStyle(element).visibility === 'hidden') return []
      element.scrollIntoView({ block: 'nearest', inline: 'nearest' })
      const { left, right, top, bottom } = element.getBoundingClientRect()
      const [x, y] = [(left + right) / 2, (top + bottom) / 2]
      return x >= 0 && x <= innerWidth && y >= 0 && y <= innerHeight
        ? []
        : [element.getAttribute('aria-label') ?? element.innerText ?? element.tagName]
    })
  })
}
