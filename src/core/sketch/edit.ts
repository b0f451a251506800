import {
  CHIP_KINDS,
  PART_KIND_WORDS,
  groundNet,
  landsOf,
  named,
  netNamed,
  parseBoard,
  partByRef,
  partNamed,
  pinNamed,
  railOfNet,
  type Assumption,
  type Board,
  type Part,
  type PartKind,
  type Side,
} from '../board';
import { fail, ok, type Result } from '../result';
import { USUAL_SIGNAL_DROP_V } from './levels';
import { landPattern } from './packages';

/** A place that is named on a board in the making: a pin, or a net. */
export type Node = { readonly ref: string; readonly pin: string } | { readonly net: string };

/** One thing that was learned of a board and is written into its file. Typed lines, drags and fields make the same edits. */
export type BoardEdit =
  | {
      readonly kind: 'add';
      readonly ref: string;
      readonly part: PartKind;
      readonly pattern: string;
      readonly nets: readonly string[];
      readonly at?: PartPlace;
    }
  | { readonly kind: 'remove'; readonly ref: string }
  | { readonly kind: 'rename'; readonly ref: string; readonly to: string }
  | { readonly kind: 'what'; readonly ref: string; readonly part: PartKind }
  | ({ readonly kind: 'place'; readonly ref: string } & PartPlace)
  | ({ readonly kind: 'seen'; readonly ref: string; readonly pattern: string } & PartPlace)
  | { readonly kind: 'package'; readonly ref: string; readonly pattern: string }
  | { readonly kind: 'join'; readonly a: Node; readonly b: Node }
  | {
      readonly kind: 'point';
      readonly id: string;
      readonly net: string;
      readonly at?: { readonly xMm: number; readonly yMm: number; readonly side: Side };
    }
  | { readonly kind: 'level'; readonly net: string; readonly volts: number }
  | { readonly kind: 'sound'; readonly net: string; readonly ohm?: number; readonly dropV?: number }
  | { readonly kind: 'value'; readonly ref: string; readonly ohm: number }
  | { readonly kind: 'size'; readonly sizeMm: readonly [number, number] }
  | { readonly kind: 'stack'; readonly thicknessMm: number; readonly layers: number }
  | { readonly kind: 'complete' }
  | { readonly kind: 'name'; readonly device: string; readonly name: string; readonly revision: string };

export interface PartPlace {
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg?: number;
  readonly side?: Side;
}

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
          ? ok(changed(board, part.ref, { ohm: edit.ohm }))
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

const changed = (board: Board, ref: string, change: Partial<Part>): Board => ({
  ...board,
  parts: board.parts.map((p) => (p.ref === ref ? { ...p, ...change } : p)),
});

/** What is assumed of a part, with one thing less. */
const known = ({ assumed = [] }: Part, what: Assumption): Pick<Part, 'assumed'> => {
  const left = assumed.filter((a) => a !== what);
  return { assumed: left.length > 0 ? left : undefined };
};

const learned = (board: Board, what: NonNullable<Board['assumed']>[number]): Board => {
  const left = (board.assumed ?? []).filter((a) => a !== what);
  return { ...board, assumed: left.length > 0 ? left : undefined };
};

const SIGNAL = {
  role: 'signal',
  diodeV: USUAL_SIGNAL_DROP_V[0],
  diodeWithinV: USUAL_SIGNAL_DROP_V[1],
  lowByNature: false,
} as const;

/** Puts a package of the list onto the board's own. */
function withPattern(board: Board, pattern: string): Result<{ readonly board: Board; readonly name: string }> {
  if (board.packages[pattern]) return ok({ board, name: pattern });
  const found = landPattern(pattern);
  if (!found) return fail(`Expected a package of the list or of this board; got "${pattern}".`);
  return ok({ board: { ...board, packages: { ...board.packages, [found.name]: found.package } }, name: found.name });
}

function add(board: Board, { ref, part, pattern, nets, at }: Extract<BoardEdit, { kind: 'add' }>): Result<Board> {
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
function middleOf(board: Board, nets: readonly string[]): { xMm: number; yMm: number } {
  const ground = groundNet(board);
  const wanted = new Set(nets.filter((n) => n !== ground));
  const on = board.parts.filter((p) => Object.values(p.pins).some((n) => wanted.has(n)));
  const all = on.length > 0 ? on : board.parts;
  const mean = (of: (p: Part) => number): number =>
    Number((all.reduce((s, p) => s + of(p), 0) / all.length).toFixed(2));
  return { xMm: mean((p) => p.xMm), yMm: mean((p) => p.yMm) };
}

/** A part that is not there; what stood in series joins its two nets, and a chip that others rest on has to stay. */
function remove(board: Board, part: Part): Result<Board> {
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
function rename(board: Board, part: Part, to: string): Result<Board> {
  const name = to.toUpperCase();
  const other = partNamed(board, name);
  if (other && other.ref !== part.ref)
    return fail(`Expected a designator that is free; ${name} is on the board already.`);
  const is = (ref: string): string => (ref === part.ref ? name : ref);
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
const toHundredth = (mm: number): number => Number(mm.toFixed(2));

const place = (board: Board, part: Part, { xMm, yMm, rotationDeg, side }: PartPlace): Result<Board> =>
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
function seenAs(board: Board, part: Part, edit: Extract<BoardEdit, { kind: 'seen' }>): Result<Board> {
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
function repackage(board: Board, part: Part, pattern: string): Result<Board> {
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

/** What was found to be one: two pins, a pin and a net, or two nets. */
function join(board: Board, a: Node, b: Node): Result<Board> {
  const first = netAt(board, a);
  if (!first.ok) return first;
  const second = netAt(board, b);
  if (!second.ok) return second;
  const [x, y] = [first.value, second.value];
  if (x.net === undefined && y.net === undefined) {
    const net = nextNet(board);
    return ok(onNet(onNet({ ...board, nets: { ...board.nets, [net]: SIGNAL } }, x, net), y, net));
  }
  if (x.net === undefined) return ok(onNet(board, x, y.net!));
  if (y.net === undefined) return ok(onNet(board, y, x.net));
  if (x.net === y.net) return ok(board);
  // A pin whose net was only assumed is moved; what was read before is never overruled by it.
  if (isAssumed(board, x)) return ok(onNet(board, x, y.net));
  if (isAssumed(board, y)) return ok(onNet(board, y, x.net));
  const ground = groundNet(board);
  const [keep, go] = y.net === ground ? [y.net, x.net] : [x.net, y.net];
  if (railOfNet(board, x.net) && railOfNet(board, y.net))
    return fail(
      `Expected two places of one net; ${x.net} and ${y.net} are two rails: joined they would be a short. Remove the one that is not there.`,
    );
  if (go !== ground && railOfNet(board, go) && keep === ground)
    return fail(`Expected a net that may lie on ground; ${go} is a rail: at ground it would be a short.`);
  return ok(railOfNet(board, go) ? merged(board, go, keep) : merged(board, keep, go));
}

interface Found {
  readonly ref?: string;
  readonly pin?: string;
  readonly net: string | undefined;
}

const isAssumed = (board: Board, { ref }: Found): boolean =>
  ref !== undefined && partByRef(board, ref)!.assumed?.includes('pins') === true;

function netAt(board: Board, node: Node): Result<Found> {
  if ('net' in node) {
    const net = netNamed(board, node.net);
    return net === undefined ? fail(`Expected a net of this board; got "${node.net}".`) : ok({ net });
  }
  const part = partNamed(board, node.ref);
  if (!part) return fail(`Expected a part of this board; got "${node.ref}".`);
  const all = landsOf(board.packages[part.package]).map((p) => p.pin);
  const pin = pinNamed(part, node.pin) ?? named(all, node.pin);
  if (pin === undefined)
    return fail(`Expected a pin of ${part.ref}, ${all[0]} to ${all[all.length - 1]}; got "${node.pin}".`);
  return ok({ ref: part.ref, pin, net: part.pins[pin] });
}

const onNet = (board: Board, { ref, pin }: Found, net: string): Board => {
  const part = partByRef(board, ref!)!;
  const pins = { ...part.pins, [pin!]: net };
  const loads = Object.entries(part.loadsOhm).filter(([n]) => Object.values(pins).includes(n));
  return changed(board, part.ref, {
    pins,
    loadsOhm: Object.fromEntries(loads),
    ...keptFactors(
      part,
      loads.map(([n]) => n),
    ),
  });
};

const keptFactors = ({ loadsWithin }: Part, nets: readonly string[]): Pick<Part, 'loadsWithin'> =>
  loadsWithin ? { loadsWithin: Object.fromEntries(Object.entries(loadsWithin).filter(([n]) => nets.includes(n))) } : {};

function nextNet(board: Board): string {
  let n = 1;
  while (board.nets[`N${n}`]) n++;
  return `N${n}`;
}

/** One net in place of two; a rail of the one that goes is passed over by what it fed. */
function merged(board: Board, keep: string, go: string): Board {
  const is = (net: string): string => (net === go ? keep : net);
  const gone = railOfNet(board, go);
  const stays = railOfNet(board, keep);
  const rail = (id: string): string => (gone && stays && id === gone.id ? stays.id : id);
  const nets = Object.fromEntries(Object.entries(board.nets).filter(([n]) => n !== go));
  return {
    ...board,
    nets,
    parts: board.parts.map((p) => ({
      ...p,
      pins: Object.fromEntries(Object.entries(p.pins).map(([pin, net]) => [pin, is(net)])),
      loadsOhm: inParallel(p.loadsOhm, is),
      ...(p.loadsWithin && { loadsWithin: widest(p.loadsWithin, is) }),
    })),
    points: board.points.map((p) => ({ ...p, net: is(p.net) })),
    rails: board.rails
      .filter((r) => !(gone && stays && r.id === gone.id))
      .map((r) => ({
        ...r,
        net: is(r.net),
        feeds: r.feeds.map((f) => ({ ...f, from: f.from === null ? null : rail(f.from) })),
      })),
    ports: board.ports.map((p) => ({
      ...p,
      vbusRail: rail(p.vbusRail),
      controllerRails: [...new Set(p.controllerRails.map(rail))],
      sides: p.sides.map((s) => ({ ...s, ccNet: is(s.ccNet) })),
    })),
    functions: board.functions.map((f) => ({ ...f, rails: [...new Set(f.rails.map(rail))] })),
  };
}

function inParallel(loads: Part['loadsOhm'], is: (net: string) => string): Part['loadsOhm'] {
  const sums = new Map<string, number>();
  for (const [net, ohm] of Object.entries(loads)) sums.set(is(net), (sums.get(is(net)) ?? 0) + 1 / ohm);
  return Object.fromEntries([...sums].map(([net, siemens]) => [net, 1 / siemens]));
}

function widest(
  factors: NonNullable<Part['loadsWithin']>,
  is: (net: string) => string,
): NonNullable<Part['loadsWithin']> {
  const found: Record<string, number> = {};
  for (const [net, factor] of Object.entries(factors)) found[is(net)] = Math.max(found[is(net)] ?? 1, factor);
  return found;
}

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
