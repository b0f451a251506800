/** A board that nobody has a file of, begun and laid out as a hand would. */
import { expect, type Page } from '@playwright/test';
import { headline } from './bench';
import type { Hand } from './hand';
import { TERN_CORNERS, TERN_MM, TERN_PARTS, ternPhoto } from './tern-photo';

/** Answers the eight questions, on their page, and comes to the board. */
export async function beginTern(page: Page, hand: Hand): Promise<void> {
  await hand.fill(page.getByLabel('What is the device called?'), 'Tern 1');
  await hand.fill(page.getByLabel('Width and height, mm'), `${TERN_MM[0]} ${TERN_MM[1]}`);
  await hand.click(page.getByRole('button', { name: 'Begin the board' }));
  await hand.wait(page.waitForURL(/library\/tern-1\/edit$/));
}

/** Takes the photograph of the front from a file and lays it under the drawing by its four corners. */
export async function layTernPhoto(page: Page, hand: Hand): Promise<void> {
  const picture = { name: 'front.png', mimeType: 'image/png', buffer: ternPhoto() };
  await hand.file(page.getByLabel('Photograph of the front'), picture);
  const photo = page.getByAltText('Photograph of the front');
  await hand.wait(expect(page.getByText('front, 0 of 4 corners')).toBeVisible());
  for (const { x, y } of TERN_CORNERS) await hand.clickAt(photo, x, y);
  await hand.click(page.getByRole('button', { name: 'Lay it under the drawing' }));
  const seen = page.getByRole('img', { name: /front side/ }).locator('rect[stroke-dasharray]');
  await hand.wait(expect.poll(() => seen.count(), { timeout: 20_000 }).toBeGreaterThanOrEqual(12));
}

/** What the renderer calls the parts of the first sketch. */
const DRAWN_AS: Readonly<Record<string, string>> = { U1: 'U4', U3: 'U9' };
const drawn = (ref: string) => TERN_PARTS.find((p) => p.ref === (DRAWN_AS[ref] ?? ref));

/** Lays every part that the program asks for where the photograph shows it; what this side does not show is left for later. */
export async function placeAll(page: Page, hand: Hand): Promise<string[]> {
  const photo = (await page
    .getByRole('img', { name: /front side/ })
    .locator('image')
    .boundingBox())!;
  const later: string[] = [];
  for (;;) {
    const asked = /^Where is (\w+),/.exec(await headline(page).innerText())?.[1];
    if (asked === undefined || later.includes(asked)) return later;
    const part = drawn(asked);
    if (part) {
      const [w, h] = TERN_MM;
      // A hand does not hit the middle: the body that was seen does.
      await hand.clickPoint(
        photo.x + ((part.xMm + 0.2) / w) * photo.width,
        photo.y + ((part.yMm - 0.15) / h) * photo.height,
      );
    } else {
      later.push(asked);
      await hand.key('Shift+S');
    }
    await expect(headline(page)).not.toHaveText(new RegExp(`^Where is ${asked},`));
  }
}
