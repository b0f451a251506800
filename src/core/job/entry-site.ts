import { padsOf, partByRef, type Board, type Part } from '../board';
import { judgeFlatness, judgeLifted, planSite } from '../joints';
import { fail, ok, type Result } from '../result';
import { parseFigure } from '../units';
import type { Entry } from './entry-work';
import type { EventBody } from './events';

function partAfter(board: Board, word: string | undefined, head: string): Result<Part> {
  const part = partByRef(board, (word ?? '').toUpperCase());
  return part ? ok(part) : fail(`Expected a part of this board after "${head}"; got "${word ?? ''}".`);
}

/** `lifted u4 12 13`, or `lifted u4 none`: all pads of a part that are off the board. */
export function parseLifted(board: Board, [word, ...names]: string[]): Result<Entry> {
  const part = partAfter(board, word, 'lifted');
  if (!part.ok) return part;
  const known = new Set(padsOf(board, part.value).map((p) => p.pin));
  const pins = names.length === 1 && names[0] === 'none' ? [] : names.map((n) => n.toUpperCase());
  const strange = pins.find((p) => !known.has(p));
  if (names.length === 0 || strange !== undefined) {
    return fail(
      `Expected pads of ${part.value.ref} such as ${[...known].slice(0, 3).join(', ')}, or none; got "${strange ?? ''}".`,
    );
  }
  const { headline } = judgeLifted(board, part.value, pins);
  return ok({ body: { kind: 'lifted', ref: part.value.ref, pins }, echo: `${part.value.ref}: ${headline}.` });
}

/** Heights that a corner can be read at, µm. */
const MOST_UM = 3000;

/** `flat u4 52 55 50 54`: heights of the four corners in µm: top left, top right, bottom left, bottom right. */
export function parseFlat(board: Board, [word, ...figures]: string[]): Result<Entry> {
  const part = partAfter(board, word, 'flat');
  if (!part.ok) return part;
  if (figures.length !== 4)
    return fail(`Expected four heights in µm: top left, top right, bottom left, bottom right; got ${figures.length}.`);
  const heights = figures.map((f) => parseFigure(f));
  const wrong = heights.findIndex((h) => !h.ok || h.value < 0 || h.value > MOST_UM);
  if (wrong >= 0) return fail(`Expected a height from 0 to ${MOST_UM} µm; got "${figures[wrong]}".`);
  const body = flatnessOf(
    board,
    part.value,
    heights.map((h) => (h.ok ? h.value : 0)),
  );
  return ok({ body, echo: `${part.value.ref}: ${body.words}` });
}

/** What is left under a leadless part, mm. Engineering estimate. */
const LEADLESS_STANDOFF_MM = 0.05;

/** Heights of the four corners, µm, judged. */
export function flatnessOf(
  board: Board,
  part: Part,
  cornersUm: readonly number[],
): Extract<EventBody, { kind: 'flatness' }> {
  const { bodyMm } = board.packages[part.package];
  const [w, h] = bodyMm;
  const readings = cornersUm.map((um, i) => ({
    xMm: (i % 2 === 0 ? -1 : 1) * (w / 2),
    yMm: (i < 2 ? -1 : 1) * (h / 2),
    heightMm: um / 1000,
  }));
  const standoffMm = planSite(board, part, board.alloy).reball?.standoffMm ?? LEADLESS_STANDOFF_MM;
  const { words, holds } = judgeFlatness(readings, bodyMm, standoffMm)!;
  return { kind: 'flatness', ref: part.ref, readings, words, holds };
}
