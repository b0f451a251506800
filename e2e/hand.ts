/** A hand at keyboard and mouse, counted as the keystroke-level model counts. */
import type { Page, Locator } from '@playwright/test';

/** Operators, s: key, pointing, press of a button, from mouse to keyboard or back, and the thought before each new step. Card, Moran, Newell (1980). */
const KEYSTROKE_LEVEL = { key: 0.28, point: 1.1, button: 0.1, home: 0.4, think: 1.35 };

/** Does what a person would do, and counts it: actions are clicks, keys pressed as commands, and texts typed at one go. */
export class Hand {
  actions = 0;
  seconds = 0;
  private at: 'keys' | 'mouse' = 'mouse';

  constructor(private readonly page: Page) {}

  private goTo(place: 'keys' | 'mouse'): void {
    if (this.at !== place) this.seconds += KEYSTROKE_LEVEL.home;
    this.at = place;
  }

  private pointed(): void {
    this.goTo('mouse');
    this.actions++;
    this.seconds += KEYSTROKE_LEVEL.think + KEYSTROKE_LEVEL.point + KEYSTROKE_LEVEL.button;
  }

  async click(target: Locator): Promise<void> {
    this.pointed();
    await target.click();
  }

  /** A click at a place of something, as shares of its width and height. */
  async clickAt(target: Locator, x: number, y: number): Promise<void> {
    this.pointed();
    const box = (await target.boundingBox())!;
    await this.page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  }

  async clickPoint(x: number, y: number): Promise<void> {
    this.pointed();
    await this.page.mouse.click(x, y);
  }

  private typed(keys: number): void {
    this.goTo('keys');
    this.actions++;
    this.seconds += KEYSTROKE_LEVEL.think + keys * KEYSTROKE_LEVEL.key;
  }

  /** Clicks into a field and types over what stands there. */
  async fill(field: Locator, text: string): Promise<void> {
    await this.click(field);
    this.typed(text.length + 1);
    await field.fill(text);
  }

  /** A line typed at the entry line, with Enter. */
  async line(text: string): Promise<void> {
    this.typed(text.length + 1);
    const entry = this.page.getByLabel('Entry line');
    await entry.fill(text);
    await entry.press('Enter');
  }

  /** One key as a command. */
  async key(name: string): Promise<void> {
    this.typed(name.startsWith('Shift+') ? 2 : 1);
    await this.page.keyboard.press(name);
  }

  /** A file from the dialog: its button, the file in the list, and "open". */
  async file(input: Locator, file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
    this.pointed();
    this.pointed();
    this.pointed();
    await input.setInputFiles(file);
  }

  /** What the machine lets the hand wait for counts as well. */
  async wait(until: Promise<unknown>): Promise<void> {
    const start = performance.now();
    await until;
    this.seconds += (performance.now() - start) / 1000;
  }
}
