import type { Browser, CDPSession, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { drawn, launch, saved, settled, shelfReady, visit } from './support/browser'

// What a screen reader is told of the page: Chromium's own accessibility tree. Nothing is found or pressed but by role and name.

interface AxNode {
  readonly ignored: boolean
  readonly role?: { readonly value: string }
  readonly name?: { readonly value: string }
  readonly value?: { readonly value: unknown }
  readonly properties?: readonly { readonly name: string; readonly value: { readonly value: unknown } }[]
  readonly backendDOMNodeId?: number
}

/** What can be worked has a name; so has what is shown as a picture. */
const named = [
  'button',
  'link',
  'textbox',
  'slider',
  'combobox',
  'checkbox',
  'switch',
  'radio',
  'menuitem',
  'tab',
  'spinbutton',
  'image',
  'region',
]

describe('by what a screen reader is told', () => {
  let browser: Browser
  let page: Page
  let devtools: CDPSession
  beforeAll(async () => {
    browser = await launch()
    ;({ page } = await visit(browser))
    await shelfReady(page)
    devtools = await page.context().newCDPSession(page)
  })
  afterAll(() => browser.close())

  const tree = async (): Promise<AxNode[]> => {
    const { nodes } = (await devtools.send('Accessibility.getFullAXTree')) as unknown as { nodes: AxNode[] }
    return nodes.filter(({ ignored }) => !ignored)
  }
  const is = (role: string, name: RegExp | string) => (node: AxNode) =>
    node.role?.value === role && (typeof name === 'string' ? node.name?.value === name : name.test(node.name?.value ?? ''))
  /** Waits until something of the role and name is there. */
  const node = (role: string, name: RegExp | string): Promise<AxNode> =>
    expect
      .poll(async () => (await tree()).find(is(role, name)), { message: `${role} ${name}` })
      .toBeDefined()
      .then(async () => (await tree()).find(is(role, name))!)
  const property = ({ properties }: AxNode, wanted: string) => properties?.find(({ name }) => name === wanted)?.value.value
  const focus = async (role: string, name: RegExp | string): Promise<void> => {
    const { backendDOMNodeId } = await node(role, name)
    await devtools.send('DOM.focus', { backendNodeId: backendDOMNodeId! })
  }
  const press = async (role: string, name: RegExp | string): Promise<void> => {
    await focus(role, name)
    await page.keyboard.press('Enter')
  }
  /** What has no name though it can be worked, or is a picture. */
  const nameless = async () =>
    (await tree()).filter(({ role, name }) => named.includes(role?.value ?? '') && !name?.value.trim()).map(({ role }) => role?.value)

  it('the Shelf says what it is and what lies on it', async () => {
    await node('main', /.*/)
    await node('heading', /Welkinar|Shelf/)
    await node('link', 'Open Last crossing, heavy rain')
    await node('button', /^Open a photo/)
    expect(await nameless()).toEqual([])
  })

  it('a scene is opened, an effect added, its dial and mask changed, undone, and the picture exported', async () => {
    await press('link', 'Open Last crossing, heavy rain')
    await settled(page)
    await node('heading', 'Workbench')
    for (const [role, name] of [
      ['banner', ''],
      ['main', ''],
      ['complementary', 'Steps'],
      ['region', 'Depth line'],
    ] as const)
      await node(role, name)
    expect(await nameless()).toEqual([])
    await press('button', 'Add an effect: Middle')
    await node('navigation', 'Kinds of effect')
    await press('button', 'Snow')
    await press('button', 'Quiet snowfall')
    const card = await node('button', /^Snow, Quiet snowfall, \d+ %$/)
    expect(property(card, 'pressed')).toBe('true')
    await focus('textbox', 'Amount')
    await page.keyboard.press('ArrowUp')
    await drawn(page)
    const amount = await node('textbox', 'Amount')
    await node('button', new RegExp(`^Snow, Quiet snowfall, ${parseInt(String(amount.value?.value), 10)} %$`))
    expect(property(await node('button', /Where/), 'expanded')).toBe(false)
    await press('button', /Where/)
    expect(property(await node('button', /Where/), 'expanded')).toBe(true)
    expect(await nameless()).toEqual([])
    await press('button', /^Undo/)
    await saved(page)
    await press('link', 'Export')
    await node('heading', 'Export')
    expect(await nameless()).toEqual([])
    const file = page.waitForEvent('download', { timeout: 60_000 })
    await press('button', 'Make the PNG file')
    expect((await file).suggestedFilename()).toMatch(/\.png$/)
    await node('status', /.*/)
  })
})
