import { expect, type Locator, type Page } from '@playwright/test';

/** Smallest side of what a thumb presses, in CSS pixels. */
const THUMB = 44;

/**
 * The hands of whoever works: by keyboard alone or by touch alone. They count every press, see that the focus is never
 * lost, and write down what is said aloud.
 */
export class Hands {
  /** Presses so far: keys with their letters, or touches without them. */
  presses = 0;

  constructor(
    readonly page: Page,
    readonly by: 'keys' | 'touch',
  ) {}

  /** Begins to listen; the page is open. */
  async begin(): Promise<void> {
    await this.page.evaluate(() => {
      const heard: string[] = [];
      Object.assign(window, { heard });
      const regions = '[role="status"], [role="alert"], [aria-live="polite"], [aria-live="assertive"]';
      const said = new WeakMap<Element, string>();
      const listen = (): void => {
        for (const region of document.querySelectorAll(regions)) {
          const text = (region.textContent ?? '').replace(/\s+/g, ' ').trim();
          const before = said.get(region) ?? (region.hasAttribute('data-announcer') ? '' : undefined);
          said.set(region, text);
          if (text !== '' && text !== before) heard.push(text);
        }
      };
      listen();
      heard.length = 0;
      new MutationObserver(listen).observe(document.body, { childList: true, subtree: true, characterData: true });
    });
  }

  /** What was said aloud since the beginning or since it was asked last. */
  heard(): Promise<string[]> {
    return this.page.evaluate(() => (window as unknown as { heard: string[] }).heard.splice(0));
  }

  /** The focus is somewhere, whatever has just gone away. */
  async settled(): Promise<void> {
    if (this.by === 'touch') return;
    await expect
      .poll(() => this.page.evaluate(() => document.activeElement?.tagName ?? 'BODY'), {
        message: 'where the focus is',
      })
      .not.toBe('BODY');
  }

  /** One key. */
  async key(key: string, times = 1): Promise<void> {
    for (let i = 0; i < times; i++) {
      await this.page.keyboard.press(key);
      this.presses++;
      await this.settled();
    }
  }

  /** Goes to something, by Tab or not at all: a touch needs no way there. */
  async to(wanted: Locator, most = 60): Promise<void> {
    await wanted.first().waitFor({ timeout: 15_000 });
    if (this.by === 'touch') return;
    for (let i = 0; i < most; i++) {
      const here = await wanted.evaluate(
        (element) =>
          element === document.activeElement ||
          // In a group the arrows go on.
          (element.getAttribute('role') === 'radio' &&
            (element.parentElement?.contains(document.activeElement) ?? false)),
      );
      if (here) return;
      const isBefore = await wanted.evaluate(
        (element) =>
          document.activeElement !== null &&
          (document.activeElement.compareDocumentPosition(element) & Node.DOCUMENT_POSITION_PRECEDING) !== 0 &&
          !document.activeElement.contains(element),
      );
      await this.key(isBefore ? 'Shift+Tab' : 'Tab');
    }
    throw new Error(`Tab does not reach ${String(wanted)}.`);
  }

  /** Presses a button, a link or a word of a choice. */
  async press(wanted: Locator): Promise<void> {
    if (this.by === 'touch') {
      await this.tap(wanted);
      return;
    }
    await this.to(wanted);
    await this.arrows(wanted);
    if ((await wanted.getAttribute('role')) !== 'radio') await this.key('Enter');
    else if ((await wanted.getAttribute('aria-checked')) !== 'true') await this.key('Space');
  }

  /** Chooses a word of a group and goes on: Enter takes it and leads to what is next. */
  async choose(wanted: Locator): Promise<void> {
    if (this.by === 'touch') {
      await this.tap(wanted);
      return;
    }
    await this.to(wanted);
    await this.arrows(wanted);
    await this.key('Enter');
  }

  /** In a group the arrows go on. */
  private async arrows(wanted: Locator): Promise<void> {
    const isHere = () => wanted.evaluate((element) => element === document.activeElement);
    for (let i = 0; i < 12 && !(await isHere()); i++) await this.key('ArrowRight');
  }

  /** Types into a box. */
  async type(wanted: Locator, text: string): Promise<void> {
    if (this.by === 'touch') {
      await this.tap(wanted);
      await wanted.fill(text);
      return;
    }
    await this.to(wanted);
    await this.write(text);
  }

  /** Types where the focus is. */
  async write(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    this.presses += text.length;
    await this.settled();
  }

  private async tap(wanted: Locator): Promise<void> {
    await wanted.scrollIntoViewIfNeeded();
    const reach = await wanted.evaluate((element, thumb) => {
      const box = element.getBoundingClientRect();
      const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
      const label =
        element.closest('label') ?? (element.id ? document.querySelector(`label[for="${element.id}"]`) : null);
      const hits = (dx: number, dy: number): boolean => {
        const at = document.elementFromPoint(x + dx, y + dy);
        return at !== null && (element.contains(at) || (label?.contains(at) ?? false) || at.contains(element));
      };
      const half = thumb / 2 - 1;
      const wide = box.width >= thumb || (hits(-half, 0) && hits(half, 0));
      const high =
        box.height >= thumb ||
        (label?.getBoundingClientRect().height ?? 0) >= thumb ||
        (hits(0, -half) && hits(0, half));
      return wide && high ? null : `${Math.round(box.width)} × ${Math.round(box.height)}`;
    }, THUMB);
    expect(reach, `too small for a thumb: ${String(wanted)}`).toBeNull();
    await wanted.tap();
    this.presses++;
  }
}
