import { z } from 'zod';
import { findPlace } from '../../board';
import { defineCommand } from '../../command-line';
import { ok } from '../../result';
import { portOf } from '../circuit-model';
import { verdict } from '../prediction';
import { netsAtPort } from '../islands';
import { defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { plain } from './interpretation';
import { severalPorts, takePort, verdictOf } from './line-value';
import { nameSchema, noShield, portStem, unknownPort } from './naming';
import { OBSERVATION } from './observation';
import { CONTACT, portFlags } from './port-flags';
import { verdictScale } from './scale';

const schema = z.object({ kind: z.literal('portTester'), port: nameSchema });
export type PortTesterMeasurement = Readonly<z.infer<typeof schema>>;

/** A quick tester plugged into the port: evidence with an error rate, not a verdict. */
export const portTester = defineMeasurement<PortTesterMeasurement>({
  kind: 'portTester',
  schema,
  label: 'quick port tester',
  id: (m) => `tester:${m.port}`,
  offered: (board) => board.ports.map((port) => ({ kind: 'portTester', port: port.id }) as const),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (_board, m) => `Quick tester at ${m.port}`,
  name: (board, m) => (board.ports.length > 1 ? `Quick tester at ${m.port}` : 'Quick tester'),
  place: (board, m) => findPlace(board, m.port),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 0.4,
  shield: noShield,
  power: (m) => ({ kind: 'port', port: m.port }),
  // Engineering estimate: a tester is fooled far oftener than a meter is misread.
  errorRate: 0.2,
  seesSwaps: true,
  outside: true,
  checklistRank: 5,
  scale: verdictScale('passes', 'fails'),
  touches: (board, m) => netsAtPort(board, m.port),
  predict(model, m, fault, absent) {
    const { silentFails, badContactFails, soundFails } = OBSERVATION.portTester;
    if (!model.talksAt(portOf(model.board, m.port), fault, absent)) return verdict(silentFails);
    const badContact = fault.effects.some((e) => e.kind === 'pinOpen' && e.ref === m.port);
    return verdict(badContact ? badContactFails : soundFails);
  },
  partition(partitioner, m) {
    const { port, talks, ...keys } = partitioner.atPort(m.port);
    const cc = port.sides.find((s) => s.side === 'A')!.ccNet;
    const bits = keys.effects.map((list) => portFlags(partitioner.board, list, cc).bits);
    return { ...keys, rowName: (a, b) => 2 * Number(talks(a, b)) + Number(((bits[a] | bits[b]) & CONTACT) > 0) };
  },
  interpret: (_context, _m, value) =>
    value.kind === 'pass' ? plain('a hint, not a verdict') : plain('a hint, not a verdict: a bad connector fools it'),
  stem: (board, m) => `tester ${portStem(board, m.port)}`,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'tester',
      usage: [{ example: 'tester fail', help: 'the quick tester at the port: pass or fail' }],
      parse({ board }, { args }) {
        const taken = takePort(board, args, 'tester');
        if (!taken.ok) return taken;
        const { port, rest } = taken.value;
        const value = verdictOf(rest[0]);
        return value.ok ? ok({ measurement: { kind: 'portTester', port }, value: value.value }) : value;
      },
      complete: ({ board }, words) =>
        words.length === 2 && board.ports.length > 1 ? severalPorts(board) : ['pass', 'fail'],
    }),
  ],
});
