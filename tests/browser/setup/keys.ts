import type { Locator, Page } from '@playwright/test'

/** Keys pressed on a page, counted; texts are typed besides. */
export class Keys {
  count = 0
  constructor(private readonly page: Page) {}

  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.count += 1
      await this.page.keyboard.press(key)
    }
  }

  /** A press of the mouse counts as one of a key. */
  async click(what: Locator): Promise<void> {
    this.count += 1
    await what.click()
  }

  type(text: string): Promise<void> {
    return this.page.keyboard.type(text)
  }

  /** Goes from field to field, backwards unless told otherwise, until one of that name has the focus. */
  async to(name: RegExp, key = 'Shift+Tab'): Promise<void> {
    for (let i = 0; i < 40; i += 1) {
      const label = await this.page.evaluate(
        () =>
          document.activeElement?.getAttribute('aria-label') ??
          (document.activeElement as HTMLElement | null)?.innerText ??
          '',
      )
      if (name.test(label)) return
      await this.press(key)
    }
    throw new Error(`no way to ${String(name)}`)
  }
}
