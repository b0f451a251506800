import { netNamed, parseBoard, partNamed, railOfNet, type Board, type Part } from '../board';
import { fail, ok, type Result } from '../result';
import type { BoardEdit } from './board-edit';
import { changed, known, learned } from './known';
import { join } from './nets-edit';
import { add, middleOf, place, remove, rename, repackage, seenAs, toHundredth } from './parts-edit';

/**
 * The board with an edit made. What an edit says is known from then on and no longer marked as assumed; nothing else becomes
 * known by it.
 * @returns the new board, checked as any board file is, or a sentence with what was expected and got.
 */
export function applyBoardEdit(board: Board, edit: BoardEdit): Result<Board> {
  const made = make(board, edit);
  return made.ok ? parseBoard(made.value) : made;
}

function make(board: Board, edit: BoardEdit): Result<Board> {
  switch (edit.kind) {
    case 'add':
      return add(board, edit);
    case 'remove':
      return withPart(board, edit.ref, (part) => remove(board, part));
    case 'rename':
      return withPart(board, edit.ref, (part) => rename(board, part, edit.to));
    case 'what':
      return withPart(board, edit.ref, (part) => ok(changed(board, part.ref, { kind: edit.part, what: part.what })));
    case 'place':
      return withPart(board, edit.ref, (part) => place(board, part, edit));
    case 'seen':
      return withPart(board, edit.ref, (part) => seenAs(board, part, edit));
    case 'package':
      return withPart(board, edit.ref, (part) => repackage(board, part, edit.pattern));
    case 'join':
      return join(board, edit.a, edit.b);
    case 'point':
      return point(board, edit);
    case 'level':
      return level(board, edit.net, edit.volts);
    case 'sound':
      return sound(board, edit);
    case 'value':
      return withPart(board, edit.ref, (part) =>
        part.kind === 'resistor'
          ? ok(changed(board, part.ref, { ohm: edit.ohm, ...known(part, 'value') }))
          : fail(`Expected a resistor to have a value in ohm; ${part.ref} is not one.`),
      );
    case 'size':
      return resize(board, edit.sizeMm);
    case 'stack':
      return ok({ ...learned(board, 'stack'), ...stackOf(board, edit) });
    case 'complete':
      return ok(learned(board, 'parts'));
    case 'name':
      return ok({ ...board, device: edit.device, name: edit.name, revision: edit.revision });
  }
}

const withPart = (board: Board, name: string, then: (part: Part) => Result<Board>): Result<Board> => {
  const part = partNamed(board, name);
  return part ? then(part) : fail(`Expected a part of this board; got "${name}".`);
};

function point(board: Board, { id, net: typed, at }: Extract<BoardEdit, { kind: 'point' }>): Result<Board> {
  const net = netNamed(board, typed);
  if (net === undefined) return fail(`Expected a net of this board; got "${typed}".`);
  const name = id.toUpperCase();
  if (partNamed(board, name)) return fail(`Expected the name of a test point; ${name} is a part.`);
  const before = board.points.find((p) => p.id === name);
  const lies = at ?? before ?? { ...middleOf(board, [net]), side: 'front' as const };
  return ok({
    ...board,
    points: [
      ...board.points.filter((p) => p.id !== name),
      { id: name, net, xMm: toHundredth(lies.xMm), yMm: toHundredth(lies.yMm), side: lies.side },
    ],
  });
}

/** A rail holds its level that closely once somebody has read it. Common practice: 5 % of converters. */
const READ_TOLERANCE = 0.05;

function level(board: Board, typed: string, volts: number): Result<Board> {
  const net = netNamed(board, typed);
  const rail = net === undefined ? undefined : railOfNet(board, net);
  if (!rail) return fail(`Expected a rail of this board; got "${typed}".`);
  if (!(volts > 0)) return fail(`Expected a level above 0 V; got ${volts}.`);
  if (rail.expect.kind === 'bus')
    return fail(`${rail.id} follows the port: its level is the port’s, and is not set by itself.`);
  return ok({
    ...board,
    rails: board.rails.map((r) =>
      r.id === rail.id ? { ...r, expect: { kind: 'fixed' as const, volts }, tolerance: READ_TOLERANCE } : r,
    ),
  });
}

/** One good board tells its sisters within so much: a factor for ohms, and volts for drops. Common practice: twins agree within 10 %. */
const ONE_BOARD = { within: 1.25, dropV: 0.02 };

/** What a good board reads: loads are moved so that the net reads it, and what was a range becomes as narrow as one board tells. */
function sound(board: Board, { net: typed, ohm, dropV }: Extract<BoardEdit, { kind: 'sound' }>): Result<Board> {
  const net = netNamed(board, typed);
  if (net === undefined) return fail(`Expected a net of this board; got "${typed}".`);
  let next = board;
  if (dropV !== undefined)
    next = {
      ...next,
      nets: { ...next.nets, [net]: { ...next.nets[net], diodeV: dropV, diodeWithinV: ONE_BOARD.dropV } },
    };
  if (ohm === undefined) return ok(next);
  const loaded = board.parts.filter((p) => p.loadsOhm[net] !== undefined);
  if (loaded.length === 0)
    return fail(`Expected a net that a chip loads; nothing on the sketch loads ${net}. Add the chip first.`);
  const now = 1 / loaded.reduce((sum, p) => sum + 1 / p.loadsOhm[net], 0);
  return ok({
    ...next,
    parts: next.parts.map((p) =>
      p.loadsOhm[net] === undefined
        ? p
        : {
            ...p,
            loadsOhm: { ...p.loadsOhm, [net]: Number(((p.loadsOhm[net] * ohm) / now).toPrecision(3)) },
            loadsWithin: { ...p.loadsWithin, [net]: ONE_BOARD.within },
          },
    ),
  });
}

/** Another size: what is only assumed to lie somewhere keeps its share of the board, what was placed stays where it is. */
function resize(board: Board, [width, height]: readonly [number, number]): Result<Board> {
  if (!(width > 0 && height > 0)) return fail(`Expected a width and a height above 0 mm; got ${width} × ${height}.`);
  const xs = board.outlineMm.map((p) => p[0]);
  const ys = board.outlineMm.map((p) => p[1]);
  const [w, h] = [Math.max(...xs), Math.max(...ys)];
  return ok({
    ...learned(board, 'outline'),
    outlineMm: [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ],
    parts: board.parts.map((p) =>
      p.assumed?.includes('place')
        ? { ...p, xMm: toHundredth((p.xMm / w) * width), yMm: toHundredth((p.yMm / h) * height) }
        : p,
    ),
  });
}

const stackOf = (
  board: Board,
  { thicknessMm, layers }: Extract<BoardEdit, { kind: 'stack' }>,
): Pick<Board, 'thicknessMm' | 'layers'> => ({
  thicknessMm,
  layers: Array.from({ length: layers }, (_, i) => board.layers[i] ?? { ...board.layers[0], name: `L${i + 1}` }),
});
