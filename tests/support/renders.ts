import type { Page } from 'playwright-core'

/** What React computed anew, by the part of the screen that it lies in. */
export interface Renders {
  readonly [part: string]: number
}

/** The parts of the screen, the innermost that holds a component counts. */
const parts: Readonly<Record<string, string>> = {
  'top bar': 'header',
  'watch column': '[aria-label="Watch column"]',
  steps: '[aria-label="Steps"]',
  picture: 'main',
  'depth line': '[aria-label="Depth line"]',
}

/** Begins to count which components React computes anew, in a page that is not loaded yet: by the hook that it calls after each commit. */
export async function countRenders(page: Page): Promise<void> {
  await page.addInitScript((selectors) => {
    interface Fiber {
      readonly tag: number
      readonly flags: number
      readonly child: Fiber | null
      readonly sibling: Fiber | null
      readonly return: Fiber | null
      readonly alternate: Fiber | null
      readonly stateNode: unknown
    }
    const [FUNCTION, FORWARD_REF, MEMO, SIMPLE_MEMO] = [0, 11, 14, 15]
    const PERFORMED_WORK = 1
    const counts: Record<string, number> = {}
    const partOf = (fiber: Fiber): string => {
      for (let at: Fiber | null = fiber; at; at = at.return) {
        if (!(at.stateNode instanceof Element)) continue
        const element = at.stateNode
        const found = Object.entries(selectors).find(([, selector]) => element.matches(selector))
        if (found) return found[0]
      }
      return 'page'
    }
    const visit = (fiber: Fiber): void => {
      const before = fiber.alternate
      const isComponent = [FUNCTION, FORWARD_REF, MEMO, SIMPLE_MEMO].includes(fiber.tag)
      if (isComponent && fiber.flags & PERFORMED_WORK) counts[partOf(fiber)] = (counts[partOf(fiber)] ?? 0) + 1
      // Children that are the same objects were not looked at.
      if (before && before.child === fiber.child) return
      for (let child = fiber.child; child; child = child.sibling) visit(child)
    }
    Object.assign(window, {
      renderCounts: counts,
      __REACT_DEVTOOLS_GLOBAL_HOOK__: {
        supportsFiber: true,
        inject: () => 1,
        checkDCE: () => undefined,
        onCommitFiberUnmount: () => undefined,
        onPostCommitFiberRoot: () => undefined,
        onCommitFiberRoot: (_: number, root: { readonly current: Fiber }) => visit(root.current),
      },
    })
  }, parts)
}

/** What was computed anew since it was asked for last. */
export function rendersSince(page: Page): Promise<Renders> {
  return page.evaluate(() => {
    const { renderCounts } = window as unknown as { renderCounts: Record<string, number> }
    const found = { ...renderCounts }
    for (const part of Object.keys(renderCounts)) delete renderCounts[part]
    return found
  })
}
