import type { Belief } from './belief';
import { openingMinutes, type Access } from './access';
import { isGone, targetKey, type RepairTarget } from './faults';
import { proofMinutes, repairCost, type RepairCost } from './repair-cost';
import { DEFAULT_PRACTICE, type Practice } from './practice';
import type { Likely } from './space';

/** What has to be done, and what it costs. */
export interface RepairOption extends RepairCost {
  readonly target: RepairTarget;
}

const NOTHING = 0;

/**
 * The work that the faults of a case need in the present state of the board, and what it costs to do it with and without
 * knowing. A belief is first gathered into chances of needs, alone and in pairs: {@link gather}.
 */
export class RepairCosting {
  readonly needs: readonly RepairOption[];
  /** Number of the need of each fault, from 1; 0 where the fault no longer counts. */
  private readonly needOfFault: Uint16Array;
  private readonly size: number;
  private readonly proof: number;
  private placed?: { readonly first: Uint16Array; readonly places: Uint32Array };

  constructor(
    belief: Belief,
    absent: ReadonlySet<string>,
    cleared: ReadonlySet<string>,
    practice: Practice = DEFAULT_PRACTICE,
    worth?: number,
  ) {
    const { board } = belief.case.predictor;
    this.proof = proofMinutes(board);
    const numbers = new Map<string, number>();
    const needs: RepairOption[] = [];
    const ofFault = belief.faults.map((f) => {
      if (isGone(f, absent, cleared)) return NOTHING;
      const target = f.mendedBy;
      const key = targetKey(target);
      let number = numbers.get(key);
      if (number === undefined)
        numbers.set(key, (number = needs.push({ target, ...repairCost(board, target, practice, worth) })));
      return number;
    });
    // One entry more: the second fault of those that are alone.
    this.needOfFault = Uint16Array.from([...ofFault, NOTHING]);
    this.needs = needs;
    this.size = needs.length + 1;
  }

  /** Chances of needs: entry low · size + high for two at once, 0 · size + n for need n alone. */
  gather(likely: Likely): Float64Array {
    const { p } = likely;
    const places = this.placesOf(likely);
    const chances = new Float64Array(this.size * this.size);
    for (let k = 0; k < p.length; k++) chances[places[k]] += p[k];
    return chances;
  }

  /** The same after an outcome of a test: rows of the likely hypotheses, and the outcome's chance by row. */
  gatherAfter(likely: Likely, rows: Uint16Array, given: Float64Array): Float64Array {
    const { p } = likely;
    const places = this.placesOf(likely);
    const chances = new Float64Array(this.size * this.size);
    let total = 0;
    for (let k = 0; k < p.length; k++) {
      const chance = p[k] * given[rows[k]];
      chances[places[k]] += chance;
      total += chance;
    }
    for (let i = 0; i < chances.length; i++) chances[i] /= total;
    return chances;
  }

  /** Where each likely hypothesis stands among the chances. */
  private placesOf({ first, second }: Likely): Uint32Array {
    if (this.placed?.first === first) return this.placed.places;
    const { needOfFault, size } = this;
    const places = new Uint32Array(first.length);
    for (let k = 0; k < places.length; k++) {
      const a = needOfFault[first[k]];
      const b = needOfFault[second[k]];
      const high = a > b ? a : b;
      const low = a === b ? NOTHING : a > b ? b : a;
      places[k] = low * size + high;
    }
    this.placed = { first, places };
    return places;
  }

  /** Calls with each chance and its needs, numbered from 1; `low` is 0 for one need alone. */
  each(chances: Float64Array, visit: (chance: number, low: number, high: number) => void): void {
    const { size } = this;
    for (let low = 0; low < size; low++) {
      for (let high = Math.max(low, 1); high < size; high++) {
        const chance = chances[low * size + high];
        if (chance > 0) visit(chance, low, high);
      }
    }
  }

  /** Chance of each need, alone or with another, in the order of {@link needs}. */
  shares(chances: Float64Array): Float64Array {
    const share = new Float64Array(this.needs.length);
    this.each(chances, (chance, low, high) => {
      share[high - 1] += chance;
      if (low > 0) share[low - 1] += chance;
    });
    return share;
  }

  /** Chances after a need was answered and the proof still failed, and the chance of coming to that. */
  failedWithout(chances: Float64Array, need: RepairOption): { chances: Float64Array; chance: number } {
    const done = this.needs.indexOf(need) + 1;
    const left = new Float64Array(chances.length);
    let total = 0;
    this.each(chances, (chance, low, high) => {
      if (high === done && low === NOTHING) return;
      total += chance;
      const rest = low === done ? high : high === done ? low : undefined;
      left[rest ?? low * this.size + high] += chance;
    });
    if (total > 0) for (let k = 0; k < left.length; k++) left[k] /= total;
    return { chances: left, chance: total };
  }

  /**
   * The order of work when nothing more is measured, and the weighed minutes that are then expected until a proof holds: most chance for its
   * minutes first, each followed by the proof. Source: expected cost of repair in Heckerman, Breese, Rommelse (1995); with
   * two faults the cure comes with the later of the two.
   */
  unmeasured(chances: Float64Array, access: Access): { order: readonly RepairOption[]; minutes: number } {
    const { needs, proof } = this;
    const opening = openingMinutes(access);
    const share = this.shares(chances);
    const worth = needs.map((n, i) => share[i] / (n.weighedMinutes + proof + (n.onBoard ? opening : 0)));
    const order = needs.map((_, n) => n).sort((a, b) => worth[b] - worth[a]);
    const spent = new Float64Array(this.size);
    let sum = 0;
    let closed = true;
    for (const n of order) {
      if (needs[n].onBoard && closed) sum += opening;
      closed &&= !needs[n].onBoard;
      spent[n + 1] = sum += needs[n].weighedMinutes + proof;
    }
    let minutes = 0;
    this.each(chances, (chance, low, high) => {
      minutes += chance * Math.max(spent[low], spent[high]);
    });
    return { order: order.map((n) => needs[n]), minutes };
  }

  /** RankedActions minutes of one work and its proof. */
  minutesOf(need: RepairOption, access: Access): number {
    return need.weighedMinutes + this.proof + (need.onBoard ? openingMinutes(access) : 0);
  }

  /** Expected weighed minutes of the work alone if what is at fault were known. */
  known(chances: Float64Array, access: Access): number {
    const { needs, proof } = this;
    const opening = openingMinutes(access);
    let minutes = 0;
    this.each(chances, (chance, low, high) => {
      const [a, b] = [low > 0 ? needs[low - 1] : undefined, needs[high - 1]];
      const opened = a?.onBoard || b.onBoard ? opening : 0;
      minutes += chance * ((a?.weighedMinutes ?? 0) + b.weighedMinutes + proof + opened);
    });
    return minutes;
  }

  /** Entropy of what has to be done, bits; two needs at once count as one of their own. */
  bits(chances: Float64Array): number {
    let bits = 0;
    this.each(chances, (chance) => void (bits -= chance * Math.log2(chance)));
    return bits;
  }
}
