import type { PartRef, RailId } from '../identities';
import { partByRef, type Board, type Rail } from '../board';
import { holdsRipple, railWindow, type Unsteady } from '../diagnose';
import { formatVolt } from '../units';

export interface RailWindow {
  readonly rail: Rail;
  readonly expectV: number;
  readonly minV: number;
  readonly maxV: number;
}

/** Rails in the order of the feeding tree (the board file lists sources first), each with its window. */
export function railWindows(board: Board): RailWindow[] {
  return board.rails.map((rail) => ({ rail, ...railWindow(board, rail.id) }));
}

export type RailState = 'untested' | 'passes' | 'fails';

export interface RailResult extends RailWindow {
  readonly measuredV?: number;
  /** What else was seen of it. */
  readonly unsteady?: Unsteady;
  readonly state: RailState;
  readonly label: string;
}

export interface RailProof {
  readonly rails: readonly RailResult[];
  /** The rail to measure next, in tree order; none when all are measured or a failure should be followed first. */
  readonly next?: string;
  readonly failures: readonly RailFailure[];
  readonly allPass: boolean;
}

export interface RailFailure {
  readonly rail: RailId;
  /** The nearest good rail up the tree, or the port. */
  readonly lastGood: string;
  /** The smallest set of parts that can explain it, likeliest kind of part not ranked. */
  readonly suspects: readonly string[];
}

/**
 * @param measured volts by rail id, the latest reading of each.
 * @param notes what else was seen of a rail: one that swings fails, and one that leaves its window by its ripple.
 */
export function proveRails(
  board: Board,
  measured: ReadonlyMap<string, number>,
  notes: ReadonlyMap<string, Unsteady> = new Map(),
): RailProof {
  const rails = railWindows(board).map((w): RailResult => {
    const volts = measured.get(w.rail.id);
    if (volts === undefined)
      return { ...w, state: 'untested', label: `${formatVolt(w.minV)} to ${formatVolt(w.maxV)}` };
    const unsteady = notes.get(w.rail.id) ?? {};
    const words = faultOf(w, volts, unsteady);
    return {
      ...w,
      measuredV: volts,
      unsteady,
      state: words === undefined ? 'passes' : 'fails',
      label: words ?? 'in its window',
    };
  });
  const stateOf = new Map(rails.map((r) => [r.rail.id, r.state]));
  const failures = rails
    .filter((r) => r.state === 'fails' && !r.rail.feeds.some((f) => f.from !== null && stateOf.get(f.from) === 'fails'))
    .map((r) => failureOf(board, r.rail, stateOf));
  return {
    rails,
    next: rails.find((r) => r.state === 'untested')?.rail.id,
    failures,
    allPass: rails.every((r) => r.state === 'passes'),
  };
}

/** What is wrong with a rail's voltage, in words; nothing where it holds. */
function faultOf(window: RailWindow, volts: number, { swings, ripplePpV = 0 }: Unsteady): string | undefined {
  const { minV, maxV } = window;
  if (swings) return 'it comes and goes';
  if (volts < minV || volts > maxV)
    return `${volts < minV ? 'low' : 'high'}: wanted ${formatVolt(minV)} to ${formatVolt(maxV)}`;
  return holdsRipple(window, volts, ripplePpV)
    ? undefined
    : `with its ripple of ${formatVolt(ripplePpV)} it leaves ${formatVolt(minV)} to ${formatVolt(maxV)}`;
}

/**
 * The first bad rail of a branch: suspects are what lies between it and its sources (series parts, converter), the
 * controller where the feed waits for it, and every part that hangs on the rail and could drag it down.
 */
function failureOf(board: Board, rail: Rail, stateOf: ReadonlyMap<string, RailState>): RailFailure {
  const between = new Set<string>();
  for (const feed of rail.feeds) {
    feed.via.forEach((ref) => between.add(ref));
    if (feed.by) between.add(feed.by);
    for (const port of board.ports) {
      // A controller without a memory of its own keeps its program itself.
      const image = port.imagePart ?? port.controller;
      if (feed.needs.includes('talk')) [port.controller, image].forEach((ref) => between.add(ref));
      if (feed.needs.includes('image') && (feed.by === null || feed.by === port.controller)) between.add(image);
    }
  }
  // A short drags down every rail that is joined by switches alone: with a good one joined, it lies elsewhere.
  const joinedToGood = rail.feeds.some((f) => f.by === null && f.from !== null && stateOf.get(f.from) === 'passes');
  const nets = new Set(joinedToGood ? [] : passedOn(board, rail, stateOf).map((r) => r.net));
  for (const part of board.parts) {
    if (canDragDown(part.kind) && Object.values(part.pins).some((net) => nets.has(net))) between.add(part.ref);
  }
  if (rail.feeds.every((f) => f.from === null))
    board.ports.filter((p) => p.vbusRail === rail.id).forEach((p) => between.add(p.id));
  // A part that also serves a rail known to be good, and only passes current on to it, is cleared.
  const cleared = [...between].filter((ref) => clearedByGoodRails(board, ref, rail, stateOf));
  const sources = rail.feeds.flatMap((f) => (f.from ? [f.from] : []));
  const lastGood =
    sources.find((id) => stateOf.get(id) === 'passes') ?? (sources.length === 0 ? 'the port' : sources[0]);
  return { rail: rail.id, lastGood, suspects: [...between].filter((ref) => !cleared.includes(ref)) };
}

/** The rail and the failing rails that it is passed on to by switches alone: a short on any of them drags all down. */
function passedOn(board: Board, rail: Rail, stateOf: ReadonlyMap<string, RailState>): Rail[] {
  const below = board.rails.filter(
    (r) => stateOf.get(r.id) === 'fails' && r.feeds.some((f) => f.from === rail.id && f.by === null),
  );
  return [rail, ...below.flatMap((r) => passedOn(board, r, stateOf))];
}

const canDragDown = (kind: NonNullable<ReturnType<typeof partByRef>>['kind']): boolean =>
  !['fuse', 'coil', 'resistor', 'lineFilter', 'connector', 'batteryConnector', 'crystal', 'esdArray'].includes(kind);

/** Image and talk are proven by any good rail that waits for them. */
function clearedByGoodRails(
  board: Board,
  ref: PartRef,
  failing: Rail,
  stateOf: ReadonlyMap<string, RailState>,
): boolean {
  const isImage = board.ports.some((p) => p.imagePart === ref);
  if (!isImage || Object.values(partByRef(board, ref)!.pins).includes(failing.net)) return false;
  return board.rails.some((r) => stateOf.get(r.id) === 'passes' && r.feeds.some((f) => f.needs.length > 0));
}
