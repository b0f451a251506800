import type { PartRef } from '../identities';
import { partByRef, type Board, type Port } from '../board';
import type { Effect } from './faults';
import { METER_WORDS } from './meter';
import type { MeterCase } from './power';
import { PowerSolver, type QuickSolution } from './power-solver';
import { numberKeys } from './outcome-partition';

/** A way the port and its rails can behave. */
export interface PowerState {
  readonly meter: MeterCase;
  readonly talks: boolean;
  readonly up: Uint8Array;
}

/** Plug way and pack: closed devices carry their pack; rails are read on the bench with it out, where the way is all one. */
export type Way = 'A in' | 'B in' | 'A out';

/** Powered behaviour at one port under every pair of faults: keys of what matters there, states by pair of keys. */
export class PowerTable {
  readonly keyOf: Uint16Array;
  readonly keys: number;
  /** The effects that a key stands for. */
  readonly effects: readonly (readonly Effect[])[];
  readonly states: PowerState[] = [];
  /** The rails of {@link PowerState.up}; any other stays down. */
  readonly railIds: readonly string[];
  private readonly byCode = new Map<number | string, number>();
  private solved?: Readonly<Record<Way, Uint16Array>>;
  private readonly solver: PowerSolver;
  private readonly marks: readonly Uint8Array[];

  constructor(board: Board, port: Port, active: readonly (readonly Effect[])[], absent: ReadonlySet<PartRef>) {
    this.solver = new PowerSolver(board, port, absent);
    this.railIds = this.solver.railIds;
    const marks = active.map((effects) => this.solver.mark(effects));
    const texts = active.map((effects, f) => {
      const mark = damageText(marks[f]);
      const flags = besideFlags(board, port, effects);
      return mark === '' && flags === '' ? '' : `${mark} ${flags}`;
    });
    const { keyOf, keys, standsFor } = numberKeys(texts);
    this.keyOf = keyOf;
    this.keys = keys;
    this.effects = standsFor.map((f) => (f < 0 ? [] : active[f]));
    this.marks = standsFor.map((f) => (f < 0 ? this.solver.mark([]) : marks[f]));
  }

  /** Numbers into {@link states}: one for each pair of keys, as a · keys + b. */
  stateOf(way: Way): Uint16Array {
    return (this.solved ??= this.solveAll())[way];
  }

  /** Every way of plugging at once: the rails are brought up once for a pair, and once for all keys with one damage. */
  private solveAll(): Readonly<Record<Way, Uint16Array>> {
    const { keys, marks, solver } = this;
    const { keyOf: damageOf, keys: count, standsFor } = numberKeys(marks.map((mark) => damageText(mark)));
    const damages = standsFor.map((key) => (key < 0 ? solver.mark([]) : marks[key]));
    const damaged = damages.map((mark) => [...mark.keys()].filter((i) => mark[i] === 1));
    const [inA, inB, outA] = [0, 1, 2].map(() => new Uint16Array(count * count));
    const both = new Uint8Array(marks[0].length);
    for (let a = 0; a < count; a++) {
      both.set(damages[a]);
      for (let b = 0; b <= a; b++) {
        const [at, mirrored] = [a * count + b, b * count + a];
        for (const i of damaged[b]) both[i] = 1;
        solver.settle(both);
        inA[at] = inA[mirrored] = this.numberOf(solver.at('A', 'in'));
        inB[at] = inB[mirrored] = this.numberOf(solver.at('B', 'in'));
        outA[at] = outA[mirrored] = this.numberOf(solver.at('A', 'out'));
        for (const i of damaged[b]) both[i] = damages[a][i];
      }
    }
    const spread = (states: Uint16Array): Uint16Array => {
      const wide = new Uint16Array(keys * keys);
      for (let a = 0; a < keys; a++)
        for (let b = 0; b < keys; b++) wide[a * keys + b] = states[damageOf[a] * count + damageOf[b]];
      return wide;
    };
    return { 'A in': spread(inA), 'B in': spread(inB), 'A out': spread(outA) };
  }

  private numberOf({ meter, talks, up }: QuickSolution): number {
    const code = codeOf(meter, talks, up);
    let number = this.byCode.get(code);
    if (number === undefined) {
      this.byCode.set(code, (number = this.states.length));
      this.states.push({ meter, talks, up: up.slice() });
    }
    return number;
  }
}

/** A name for what is damaged; empty where nothing is. */
const damageText = (mark: Uint8Array): string => (mark.indexOf(1) < 0 ? '' : mark.join(''));

const METERS = Object.keys(METER_WORDS) as MeterCase[];
/** So many rails fit into one exact number beside meter and talk. */
const MOST_BITS = 44;

/** One number for a state; text where there are more rails than fit. */
function codeOf(meter: MeterCase, talks: boolean, up: Uint8Array): number | string {
  if (up.length > MOST_BITS) return `${meter} ${talks} ${up.join('')}`;
  let code = 2 * METERS.indexOf(meter) + Number(talks);
  for (let i = 0; i < up.length; i++) code = 2 * code + up[i];
  return code;
}

/** What the port's tests ask beside the power state: things outside, a missing part that is required, single contacts. */
function besideFlags(board: Board, port: Port, effects: readonly Effect[]): string {
  return effects
    .flatMap((e) => {
      if (e.kind === 'outside') return [e.what];
      if (e.kind === 'pinOpen' && e.ref === port.id) return ['contact'];
      if (e.kind === 'dirty' && e.ref === port.id) return [`dirty ${e.net}`];
      const missing = (e.kind === 'dead' || e.kind === 'open') && partByRef(board, e.ref)?.required === true;
      return missing ? ['missing'] : e.kind === 'imageBad' ? ['image'] : [];
    })
    .join(' ');
}

export const effectsText = (effects: readonly Effect[]): string =>
  effects.map((e) => Object.values(e).join(' ')).join('|');
