import type { PartRef } from '../identities';
import type { Belief } from './belief';
import { openingMinutes, type Access } from './access';
import { UNLISTED, isGone, targetKey, type RepairTarget } from './faults';
import { proofMinutes, repairCost, type RepairCost } from './repair-cost';
import { DEFAULT_PRACTICE, type Practice } from './practice';
import type { Likely } from './likely';

/** What has to be done, and what it costs. */
export interface RepairOption extends RepairCost {
  readonly target: RepairTarget;
}

/** Chances by what has to be done together, in the order in which {@link RepairCosting.each} goes through it. */
export type NeedChances = Float64Array;

const NOTHING = 0;

/**
 * The work that the faults of a case need in the present state of the board, and what it costs to do it with and without
 * knowing. A belief is first gathered into chances of needs, alone and together: {@link gather}.
 */
export class RepairCosting {
  readonly needs: readonly RepairOption[];
  /** Number of the need of each fault, from 1; 0 where the fault no longer counts. */
  private readonly needOfFault: Uint16Array;
  private readonly proof: number;
  /** What is needed together: lists of needs from 1, in ascending order. With a list every part of it is there too. */
  private readonly together: number[][] = [[]];
  private readonly numberOf = new Map<number, number>([[0, 0]]);
  private placed?: { readonly first: Uint16Array; readonly places: Uint32Array };

  constructor(
    belief: Belief,
    absent: ReadonlySet<PartRef>,
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
      const key = target.kind === 'unlisted' ? UNLISTED : targetKey(target);
      let number = numbers.get(key);
      if (number === undefined)
        numbers.set(key, (number = needs.push({ target, ...repairCost(board, target, practice, worth) })));
      return number;
    });
    // One entry more: the second fault of those that are alone.
    this.needOfFault = Uint16Array.from([...ofFault, NOTHING]);
    this.needs = needs;
  }

  /** Chances of needs, alone and together. */
  gather(likely: Likely): NeedChances {
    const { p } = likely;
    const places = this.placesOf(likely);
    const chances = new Float64Array(this.together.length);
    for (let k = 0; k < p.length; k++) chances[places[k]] += p[k];
    return chances;
  }

  /** The same after an outcome of a test: rows of the likely hypotheses, and the outcome's chance by row. */
  gatherAfter(likely: Likely, rows: Uint32Array, given: Float64Array): NeedChances {
    const { p } = likely;
    const places = this.placesOf(likely);
    const chances = new Float64Array(this.together.length);
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
  private placesOf({ first, second, pairsEnd, sets }: Likely): Uint32Array {
    if (this.placed?.first === first) return this.placed.places;
    const { needOfFault, numberOf } = this;
    const width = this.needs.length + 1;
    const places = new Uint32Array(first.length);
    for (let k = 0; k < pairsEnd; k++) {
      const a = needOfFault[first[k]];
      const b = needOfFault[second[k]];
      const high = a > b ? a : b;
      const low = a === b ? NOTHING : a > b ? b : a;
      places[k] = numberOf.get(low * width + high) ?? this.place(low === NOTHING ? [high] : [low, high]);
    }
    sets.forEach((set, k) => {
      const needs = [...new Set(set.map((f) => needOfFault[f]))].filter((n) => n !== NOTHING);
      places[pairsEnd + k] = this.place(needs.sort((a, b) => a - b));
    });
    this.placed = { first, places };
    return places;
  }

  /** Place of a list of needs among the chances; with it, of all that is left of it when some are answered. */
  place(needs: readonly number[]): number {
    const list = needs.filter((n) => n !== NOTHING);
    const code = list.reduce((c, n) => c * (this.needs.length + 1) + n, 0);
    let number = this.numberOf.get(code);
    if (number === undefined) {
      this.numberOf.set(code, (number = this.together.push(list) - 1));
      if (list.length > 1) list.forEach((_, i) => this.place(list.filter((_n, k) => k !== i)));
    }
    return number;
  }

  /** Calls with each chance and its needs, numbered from 1; where nothing has to be done it does not. */
  each(chances: NeedChances, visit: (chance: number, needs: readonly number[], number: number) => void): void {
    for (let i = 1; i < chances.length; i++) if (chances[i] > 0) visit(chances[i], this.together[i], i);
  }

  /** Chance of each need, alone or with another, in the order of {@link needs}. */
  shares(chances: NeedChances): Float64Array {
    const share = new Float64Array(this.needs.length);
    this.each(chances, (chance, needs) => {
      for (const n of needs) share[n - 1] += chance;
    });
    return share;
  }

  /** Chance that a need is one of those that have to be answered, unlisted ones left out: that work on it is right. */
  cureChance(chances: NeedChances, need: RepairOption): number {
    return this.shares(chances)[this.needs.indexOf(need)];
  }

  /** Chances after a need was answered and the proof still failed, and the chance of coming to that. */
  failedWithout(chances: NeedChances, need: RepairOption): { chances: NeedChances; chance: number } {
    const done = this.needs.indexOf(need) + 1;
    const left = new Float64Array(this.together.length);
    let total = 0;
    this.each(chances, (chance, needs, number) => {
      if (needs.length === 1 && needs[0] === done) return;
      total += chance;
      left[needs.includes(done) ? this.place(needs.filter((n) => n !== done)) : number] += chance;
    });
    if (total > 0) for (let k = 0; k < left.length; k++) left[k] /= total;
    return { chances: left, chance: total };
  }

  /**
   * The order of work when nothing more is measured, and the weighed minutes that are then expected until a proof holds: most chance for its
   * minutes first, each followed by the proof. Source: expected cost of repair in Heckerman, Breese, Rommelse (1995); with
   * two faults the cure comes with the later of the two.
   */
  unmeasured(chances: NeedChances, access: Access): { order: readonly RepairOption[]; minutes: number } {
    const { needs, proof } = this;
    const opening = openingMinutes(access);
    const share = this.shares(chances);
    const worth = needs.map((n, i) => share[i] / (n.weighedMinutes + proof + (n.onBoard ? opening : 0)));
    const order = needs.map((_, n) => n).sort((a, b) => worth[b] - worth[a]);
    const spent = new Float64Array(needs.length + 1);
    let sum = 0;
    let closed = true;
    for (const n of order) {
      if (needs[n].onBoard && closed) sum += opening;
      closed &&= !needs[n].onBoard;
      spent[n + 1] = sum += needs[n].weighedMinutes + proof;
    }
    let minutes = 0;
    this.each(chances, (chance, together) => {
      let last = 0;
      for (const n of together) if (spent[n] > last) last = spent[n];
      minutes += chance * last;
    });
    // What no list holds cannot be worked on: it is only searched for.
    return { order: order.map((n) => needs[n]).filter((n) => n.target.kind !== 'unlisted'), minutes };
  }

  /** RankedActions minutes of one work and its proof. */
  minutesOf(need: RepairOption, access: Access): number {
    return need.weighedMinutes + this.proof + (need.onBoard ? openingMinutes(access) : 0);
  }

  /** Expected weighed minutes of the work alone if what is at fault were known. */
  known(chances: NeedChances, access: Access): number {
    const { needs, proof } = this;
    const opening = openingMinutes(access);
    let minutes = 0;
    this.each(chances, (chance, together) => {
      let own = proof;
      let opened = 0;
      for (const n of together) {
        const need = needs[n - 1];
        own += need.weighedMinutes;
        if (need.onBoard) opened = opening;
      }
      minutes += chance * (own + opened);
    });
    return minutes;
  }

  /** Entropy of what has to be done, bits; several needs at once count as one of their own. */
  bits(chances: NeedChances): number {
    let bits = 0;
    this.each(chances, (chance) => void (bits -= chance * Math.log2(chance)));
    return bits;
  }
}
