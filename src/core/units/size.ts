import { fail, ok, type Result } from '../result';
import { parseFigure } from './parse';

/** Width and height of a board as they are typed: `60 40`, `60 × 40`, `60x40`; both above zero, mm. */
export function parseSizeMm(text: string): Result<readonly [number, number]> {
  const [width, height, ...rest] = text
    .split(/[\s;×x]+/)
    .filter(Boolean)
    .map((figure) => parseFigure(figure));
  if (!width?.ok || !height?.ok || rest.length > 0 || width.value <= 0 || height.value <= 0)
    return fail(`Expected width and height in mm, as in 60 40; got "${text}".`);
  return ok([width.value, height.value]);
}
