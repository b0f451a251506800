import { expect, type Locator, type Page } from '@playwright/test';

/** What the entry line says: it stands last on every page, whatever else reports something above it. */
const status = (page: Page) => page.getByRole('status').last();

/** The entry line once keys act on it: the page is there, and typed into, a moment before its script is. */
export async function readyLine(page: Page): Promise<Locator> {
  const line = page.getByLabel('Entry line');
  await line.waitFor();
  await expect
    .poll(() => line.evaluate((input) => Object.keys(input).some((key) => key.startsWith('__reactProps'))))
    .toBe(true);
  return line;
}

/** Types a line into the entry line with the keyboard alone and waits until it is kept on disk. */
export async function enterLine(page: Page, text: string): Promise<void> {
  await (await readyLine(page)).focus();
  await page.keyboard.press('Escape');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Kept:');
}

/** Types a line that must be refused, and returns the sentence. */
export async function refusedLine(page: Page, text: string): Promise<string> {
  await (await readyLine(page)).focus();
  await page.keyboard.press('Escape');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('Expected');
  return (await status(page).innerText()).trim();
}

/** Goes to a stage: the key that asks for one, then its number. */
export async function stageKey(page: Page, digit: number, name: string): Promise<void> {
  await (await readyLine(page)).focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+G');
  await page.keyboard.press(String(digit));
  await expect(page.locator('[aria-current="step"]')).toContainText(name);
}

export const headline = (page: Page) => page.getByRole('heading', { level: 1 });

/** What stands in focus, as it is named on the screen. */
const focusedName = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    const label = at?.getAttribute('aria-label') ?? at?.closest('label')?.innerText ?? at?.textContent ?? '';
    return label.trim().split('\n')[0];
  });

/** Goes on by the Tab key to what is named so, as a hand without a mouse does. */
export async function tabTo(page: Page, name: string, most = 250): Promise<void> {
  for (let k = 0; k < most && (await focusedName(page)) !== name; k++) await page.keyboard.press('Tab');
  expect(await focusedName(page)).toBe(name);
}
