import type { PartRef } from '../../identities';
import { z } from 'zod';
import { partByRef, type Board } from '../../board';
import { defineCommand, oneOf } from '../../command-line';
import { ok } from '../../result';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { numberKeys } from '../outcome-partition';
import { verdict } from '../prediction';
import { netsOfRail } from '../islands';
import { defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { bad, good } from './interpretation';
import { verdictOf } from './line-value';
import { nameSchema, noShield } from './naming';
import { OBSERVATION } from './observation';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('functionTest'), fn: nameSchema });
export type FunctionTestMeasurement = Readonly<z.infer<typeof schema>>;

/** Minutes for a function whose board file names none. Engineering estimate. */
const USUAL_MINUTES = 2;

/** A function of the device is tried: it clears what it uses, or something that it uses is at fault. */
export const functionTest = defineMeasurement<FunctionTestMeasurement>({
  kind: 'functionTest',
  schema,
  label: 'function tests',
  id: (m) => `works:${m.fn}`,
  offered: (board) => board.functions.map((f) => ({ kind: 'functionTest', fn: f.id }) as const),
  misfit: (board, m) =>
    board.functions.some((f) => f.id === m.fn)
      ? undefined
      : `Expected one of ${board.functions.map((f) => f.id).join(', ')}; got "${m.fn}".`,
  title: (board, m) => `Try: ${board.functions.find((f) => f.id === m.fn)?.what ?? m.fn}`,
  name: (board, m) => board.functions.find((f) => f.id === m.fn)?.what ?? m.fn,
  place: () => undefined,
  access: () => 'closed',
  minutes: (board, m) => board.functions.find((f) => f.id === m.fn)?.minutes ?? USUAL_MINUTES,
  shield: noShield,
  power: () => ({ kind: 'anyPort' }),
  // Engineering estimate.
  errorRate: 0.02,
  seesSwaps: true,
  outside: false,
  checklistRank: 7,
  scale: verdictScale('works', 'fails'),
  touches: (board, m) => netsOfFunction(board, m.fn),
  predict(model, m, fault, absent) {
    const { brokenFails, soundFails } = OBSERVATION.functionTest;
    return verdict(isBroken(model, m.fn, fault, absent) ? brokenFails : soundFails);
  },
  // A function fails where one of its parts is hit, or where its rails stay down at every port.
  partition(partitioner, m) {
    const { board, model, active, absent } = partitioner;
    const fn = board.functions.find((f) => f.id === m.fn)!;
    const powers = board.ports.map((port) => partitioner.power(port));
    const direct = active.map((effects) => effects.length > 0 && model.breaksDirectly(fn, effects));
    const texts = active.map((_, f) => {
      if (direct[f]) return 'direct';
      const keys = powers.map((p) => p.keyOf[f]);
      return keys.every((k) => k === 0) ? '' : keys.join(' ');
    });
    const { keyOf, keys, standsFor } = numberKeys(texts);
    const keysAt = standsFor.map((f) => powers.map((p) => (f < 0 ? 0 : p.keyOf[f])));
    const broken = standsFor.map((f) => f >= 0 && direct[f]);
    const absentPart = fn.parts.some((ref) => absent.has(ref));
    const down = powers.map((p) => {
      const solved = p.stateOf('A in');
      const needed = fn.rails.map((id) => p.railIds.indexOf(id));
      return { solved, keys: p.keys, isDown: p.states.map(({ up }) => needed.some((i) => up[i] !== 1)) };
    });
    const fails = (a: number, b: number): boolean =>
      absentPart ||
      broken[a] ||
      broken[b] ||
      down.every(({ isDown, solved, keys: k }, i) => isDown[solved[keysAt[a][i] * k + keysAt[b][i]]]);
    return {
      keyOf,
      keys,
      effects: standsFor.map((f) => (f < 0 ? [] : active[f])),
      rowName: (a, b) => Number(fails(a, b)),
    };
  },
  interpret: (_context, _m, value) =>
    value.kind === 'pass' ? good('it clears what it uses') : bad('something it uses is at fault'),
  stem: (_board, m) => `try ${m.fn} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'try',
      usage: [{ example: 'try charge works', help: 'a function of the device: works or fails' }],
      parse({ board }, { args: [word, answer] }) {
        const fn = oneOf(
          board.functions.map((f) => f.id),
          word,
        );
        if (!fn.ok) return fn;
        const value = verdictOf(answer);
        return value.ok ? ok({ measurement: { kind: 'functionTest', fn: fn.value }, value: value.value }) : value;
      },
      complete: ({ board }, words) => (words.length === 2 ? board.functions.map((f) => f.id) : ['works', 'fails']),
    }),
  ],
});

function isBroken(model: CircuitModel, fnId: string, fault: Fault, absent: ReadonlySet<PartRef>): boolean {
  const { board } = model;
  const fn = board.functions.find((f) => f.id === fnId)!;
  if (fn.parts.some((ref) => absent.has(ref)) || model.breaksDirectly(fn, fault.effects)) return true;
  return board.ports.every((port) => {
    const { railVolts } = model.solvePower(fault, absent, { port: port.id, side: 'A', pack: 'in' });
    return fn.rails.some((id) => railVolts.get(id) === 0);
  });
}

/** Its rails with what feeds them, and the nets of its parts that carry signals. */
function netsOfFunction(board: Board, fnId: string): string[] {
  const fn = board.functions.find((f) => f.id === fnId)!;
  const signals = fn.parts.flatMap((ref) => Object.values(partByRef(board, ref)?.pins ?? {}));
  return [
    ...fn.rails.flatMap((rail) => netsOfRail(board, rail)),
    ...signals.filter((net) => board.nets[net].role === 'signal'),
  ];
}
