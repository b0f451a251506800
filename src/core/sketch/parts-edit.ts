import type { NetName, PartRef } from '../identities';
import {
  CHIP_KINDS,
  PART_KIND_WORDS,
  groundNet,
  landsOf,
  netNamed,
  partByRef,
  partNamed,
  type Assumption,
  type Board,
  type Part,
  type PartKind,
} from '../board';
import { fail, ok, type Result } from '../result';
import type { BoardEdit, PartPlace } from './board-edit';
import { SIGNAL, changed, known } from './known';
import { merged } from './nets-edit';
import { landPattern } from './packages';

/** Puts a package of the list onto the board's own. */
function withPattern(board: Board, pattern: string): Result<{ readonly board: Board; readonly name: string }> {
  if (board.packages[pattern]) return ok({ board, name: pattern });
  const found = landPattern(pattern);
  if (!found) return fail(`Expected a package of the list or of this board; got "${pattern}".`);
  return ok({ board: { ...board, packages: { ...board.packages, [found.name]: found.package } }, name: found.name });
}

export function add(
  board: Board,
  { ref, part, pattern, nets, at }: Extract<BoardEdit, { kind: 'add' }>,
): Result<Board> {
  const designator = ref.toUpperCase();
  if (partNamed(board, ref) || board.points.some((p) => p.id === designator))
    return fail(`Expected a designator that is free; ${designator} is on the board already.`);
  const dressed = withPattern(board, pattern);
  if (!dressed.ok) return dressed;
  const { board: with_, name } = dressed.value;
  const pins = landsOf(with_.packages[name]).map((p) => p.pin);
  if (nets.length > pins.length) return fail(`Expected at most ${pins.length} nets for ${name}; got ${nets.length}.`);
  const own = nets.map((n) => netNamed(board, n) ?? n.toUpperCase());
  const fresh = own.filter((n) => !board.nets[n]);
  const near = at ?? middleOf(board, own);
  return ok({
    ...with_,
    nets: { ...board.nets, ...Object.fromEntries(fresh.map((n) => [n, SIGNAL])) },
    parts: [
      ...board.parts,
      {
        ref: designator,
        kind: part,
        what: own.length > 0 ? `${PART_KIND_WORDS[part]} at ${own[0]}` : PART_KIND_WORDS[part],
        package: name,
        xMm: near.xMm,
        yMm: near.yMm,
        rotationDeg: at?.rotationDeg ?? 0,
        side: at?.side ?? 'front',
        pins: Object.fromEntries(own.map((n, i) => [pins[i], n])),
        loadsOhm: {},
        underfilled: false,
        optional: false,
        required: false,
        ...(part === 'resistor' && { ohm: UNVALUED_OHM }),
        ...(with_.packages[name].plastic && { bodyLimitC: PLASTIC_C }),
        assumed: [...(at ? [] : (['place'] as const)), 'package', ...(own.length > 2 ? (['pins'] as const) : [])],
      },
    ],
  });
}

/** A resistor whose value nobody has read. Engineering estimate: pull-ups and dividers round a port. */
const UNVALUED_OHM = 10_000;
/** Plastic connectors suffer from here, °C. Common practice, no source. */
const PLASTIC_C = 200;

/** The middle of the parts on some nets, of the whole board where there are none: a place to start from. */
export function middleOf(board: Board, nets: readonly NetName[]): { xMm: number; yMm: number } {
  const ground = groundNet(board);
  const wanted = new Set(nets.filter((n) => n !== ground));
  const on = board.parts.filter((p) => Object.values(p.pins).some((n) => wanted.has(n)));
  const all = on.length > 0 ? on : board.parts;
  const mean = (of: (p: Part) => number): number =>
    Number((all.reduce((s, p) => s + of(p), 0) / all.length).toFixed(2));
  return { xMm: mean((p) => p.xMm), yMm: mean((p) => p.yMm) };
}

/** A part that is not there; what stood in series joins its two nets, and a chip that others rest on has to stay. */
export function remove(board: Board, part: Part): Result<Board> {
  const { ref } = part;
  const port = board.ports.find((p) => p.id === ref || p.controller === ref);
  if (port)
    return fail(
      `Expected a part that the port can do without; ${ref} is its ${port.id === ref ? 'connector' : 'controller'}.`,
    );
  const makes = board.rails.find((r) => r.feeds.some((f) => f.by === ref));
  if (makes) return fail(`Expected a part that makes no rail; ${ref} makes ${makes.id}. Say what makes it first.`);
  const inSeries = board.rails.some((r) => r.feeds.some((f) => f.via.includes(ref)));
  const without: Board = {
    ...board,
    parts: board.parts.filter((p) => p.ref !== ref),
    ports: board.ports.map((p) => (p.imagePart === ref ? { ...p, imagePart: undefined } : p)),
    rails: board.rails.map((r) => ({
      ...r,
      feeds: r.feeds.map((f) => ({
        ...f,
        via: f.via.filter((v) => v !== ref),
        needs: board.ports.some((p) => p.imagePart === ref) ? f.needs.filter((n) => n !== 'image') : f.needs,
      })),
    })),
    functions: board.functions
      .map((f) => ({ ...f, parts: f.parts.filter((p) => p !== ref) }))
      .filter((f) => f.parts.length > 0),
    slots: board.slots.filter((s) => s.ref !== ref),
  };
  const [a, b] =
    part.kind === 'fuse' || part.kind === 'coil' ? [part.pins['1'], part.pins['2']] : [undefined, undefined];
  return inSeries && a !== undefined && b !== undefined ? ok(merged(without, a, b)) : ok(without);
}

/** Another designator, everywhere it stands. A free one, so that no two parts become one. */
export function rename(board: Board, part: Part, to: string): Result<Board> {
  const name = to.toUpperCase();
  const other = partNamed(board, name);
  if (other && other.ref !== part.ref)
    return fail(`Expected a designator that is free; ${name} is on the board already.`);
  const is = (ref: PartRef): string => (ref === part.ref ? name : ref);
  return ok({
    ...board,
    parts: board.parts.map((p) => (p.ref === part.ref ? { ...p, ref: name } : p)),
    ports: board.ports.map((p) => ({
      ...p,
      id: is(p.id),
      controller: is(p.controller),
      ...(p.imagePart !== undefined && { imagePart: is(p.imagePart) }),
      sides: p.sides.map((s) => ({ ...s, path: s.path.map(is) })),
    })),
    rails: board.rails.map((r) => ({
      ...r,
      ...(r.port !== undefined && { port: is(r.port) }),
      feeds: r.feeds.map((f) => ({ ...f, via: f.via.map(is), by: f.by === null ? null : is(f.by) })),
    })),
    functions: board.functions.map((f) => ({ ...f, parts: f.parts.map(is) })),
    slots: board.slots.map((s) => ({
      ...s,
      ref: is(s.ref),
      ...(s.straps && { straps: { top: is(s.straps.top), bottom: is(s.straps.bottom) } }),
      ...(s.image !== undefined && { image: is(s.image) }),
    })),
  });
}

/** Places are kept to a hundredth of a millimetre: finer than any of it is known. */
export const toHundredth = (mm: number): number => Number(mm.toFixed(2));

/** A part where somebody saw it. */
export const place = (board: Board, part: Part, { xMm, yMm, rotationDeg, side }: PartPlace): Result<Board> =>
  ok(
    changed(board, part.ref, {
      xMm: toHundredth(xMm),
      yMm: toHundredth(yMm),
      ...(rotationDeg !== undefined && { rotationDeg: ((rotationDeg % 360) + 360) % 360 }),
      ...(side !== undefined && { side }),
      ...known(part, 'place'),
    }),
  );

/** A part where a body was seen: its package too, unless somebody has said that or its pins do not fit on it. */
export function seenAs(board: Board, part: Part, edit: Extract<BoardEdit, { kind: 'seen' }>): Result<Board> {
  const isOpen = part.assumed?.includes('package') && comesIn(part.kind, edit.pattern);
  const dressed = isOpen ? repackage(board, part, edit.pattern) : ok(board);
  const next = dressed.ok ? dressed.value : board;
  return place(next, partByRef(next, part.ref)!, edit);
}

/** Whether parts of a kind come in a package: chips on pins or balls, what has two ends on two pads. Common practice. */
function comesIn(kind: PartKind, pattern: string): boolean {
  const lands = landPattern(pattern)?.package.lands.kind;
  if (kind === 'coil') return pattern.startsWith('COIL');
  if (kind === 'capacitor' || kind === 'resistor' || kind === 'fuse') return pattern.startsWith('CHIP');
  if (kind === 'mosfet') return pattern.startsWith('FET') || lands === 'dual';
  return CHIP_KINDS.has(kind) && (lands === 'quad' || lands === 'dual' || lands === 'array');
}

/** Another package: pins of the same name keep their nets; others take the next free pins, and are marked as assumed. */
export function repackage(board: Board, part: Part, pattern: string): Result<Board> {
  const dressed = withPattern(board, pattern);
  if (!dressed.ok) return dressed;
  const { board: with_, name } = dressed.value;
  const pins = landsOf(with_.packages[name]).map((p) => p.pin);
  const kept = Object.fromEntries(Object.entries(part.pins).filter(([pin]) => pins.includes(pin)));
  const homeless = [
    ...new Set(Object.entries(part.pins).flatMap(([pin, net]) => (pins.includes(pin) ? [] : [net]))),
  ].filter((net) => !Object.values(kept).includes(net));
  const free = pins.filter((pin) => kept[pin] === undefined);
  if (homeless.length > free.length)
    return fail(
      `${name} has ${pins.length} pins; ${part.ref} needs ${Object.keys(kept).length + homeless.length} of them.`,
    );
  homeless.forEach((net, i) => (kept[free[i]] = net));
  const { assumed } = known(part, 'package');
  return ok(
    changed(with_, part.ref, {
      package: name,
      pins: kept,
      assumed: homeless.length > 0 ? [...new Set<Assumption>([...(assumed ?? []), 'pins'])] : assumed,
      ...(with_.packages[name].plastic && { bodyLimitC: part.bodyLimitC ?? PLASTIC_C }),
    }),
  );
}
