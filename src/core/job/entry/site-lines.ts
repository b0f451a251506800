import { named, padsOf, partNamed, type Board, type Part } from '../../board';
import { partNames } from '../../diagnose';
import { judgeLifted } from '../../joints';
import { fail, ok, type Result } from '../../result';
import { parseFigure } from '../../units';
import { judgeSeat } from '../proof/site-verdicts';
import { record } from '../decide/command';
import type { EventBody } from '../log';
import { defineJobLine } from './context';

/** Lines for pads and seats. */

function partAfter(board: Board, word: string | undefined, head: string): Result<Part> {
  const part = partNamed(board, word ?? '');
  return part ? ok(part) : fail(`Expected a part of this board after "${head}"; got "${word ?? ''}".`);
}

const liftedLine = defineJobLine({
  name: 'lifted',
  usage: [
    { example: 'lifted u4 12 13', help: 'all pads of a part that are off the board' },
    { example: 'lifted u4 none', help: 'all its pads hold' },
  ],
  parse({ board }, { args: [word, ...names] }) {
    const part = partAfter(board, word, 'lifted');
    if (!part.ok) return part;
    const { ref } = part.value;
    const known = new Set(padsOf(board, part.value).map((p) => p.pin));
    const pins = names.length === 1 && names[0] === 'none' ? [] : names.map((n) => named(known, n) ?? n.toUpperCase());
    const strange = pins.find((p) => !known.has(p));
    if (names.length === 0 || strange !== undefined)
      return fail(
        `Expected pads of ${ref} such as ${[...known].slice(0, 3).join(', ')}, or none; got "${strange ?? ''}".`,
      );
    const { headline } = judgeLifted(board, part.value, pins);
    return ok({ command: record({ kind: 'lifted', ref, pins }), echo: `${ref}: ${headline}.` });
  },
  complete({ board }, words) {
    if (words.length === 2) return partNames(board);
    return words.length === 3 ? ['none'] : [];
  },
});

/** Heights that a corner can be read at, µm. */
const MOST_UM = 3000;

const flatLine = defineJobLine({
  name: 'flat',
  usage: [
    {
      example: 'flat u4 52 55 50 54',
      help: 'heights of its corners in µm: top left, top right, bottom left, bottom right',
    },
  ],
  parse({ board }, { args: [word, ...figures] }) {
    const part = partAfter(board, word, 'flat');
    if (!part.ok) return part;
    if (figures.length !== 4)
      return fail(
        `Expected four heights in µm: top left, top right, bottom left, bottom right; got ${figures.length}.`,
      );
    const heights = figures.map((f) => parseFigure(f));
    const wrong = heights.findIndex((h) => !h.ok || h.value < 0 || h.value > MOST_UM);
    if (wrong >= 0) return fail(`Expected a height from 0 to ${MOST_UM} µm; got "${figures[wrong]}".`);
    const body = flatnessOf(
      board,
      part.value,
      heights.map((h) => (h.ok ? h.value : 0)),
    );
    return ok({ command: record(body), echo: `${part.value.ref}: ${judgeSeat(board, body)!.summary}` });
  },
  complete: ({ board }, words) => (words.length === 2 ? partNames(board) : []),
});

/** Heights of the four corners, µm, as an entry. */
export function flatnessOf(
  board: Board,
  part: Part,
  cornersUm: readonly number[],
): Extract<EventBody, { kind: 'flatness' }> {
  const [w, h] = board.packages[part.package].bodyMm;
  const readings = cornersUm.map((um, i) => ({
    xMm: (i % 2 === 0 ? -1 : 1) * (w / 2),
    yMm: (i < 2 ? -1 : 1) * (h / 2),
    heightMm: um / 1000,
  }));
  return { kind: 'flatness', ref: part.ref, readings };
}

export const siteLines = [liftedLine, flatLine];
