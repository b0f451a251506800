import { z } from 'zod';
import { findPlace, groundNet, partByRef, type Board } from '../../board';
import { defineCommand } from '../../command-line';
import { judgePin, portPins } from '../../port';
import { fail, ok } from '../../result';
import { UNPOWERED, defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { dropAtPin, openDrop } from './drop-prediction';
import { plain } from './interpretation';
import { parseDrop } from './line-value';
import { nameSchema, netAt, noShield, portStem, unknownPort } from './naming';
import { dropScale } from './scale';

const schema = z.object({
  kind: z.literal('contactDrop'),
  port: nameSchema,
  pin: z.string().regex(/^[AB]([1-9]|1[0-2])$/),
});
export type ContactDropMeasurement = Readonly<z.infer<typeof schema>>;

const CONTACT = /^[ab]([1-9]|1[0-2])$/;

/** A contact of the port at the beginning of a line: `a5`, or `j2 b7`. */
function contactIn(
  board: Board,
  words: readonly string[],
): { port?: string; contact: string; rest: readonly string[] } | undefined {
  const named = board.ports.find((p) => p.id.toLowerCase() === words[0]);
  const [contact = '', ...rest] = named ? words.slice(1) : words;
  return CONTACT.test(contact) ? { port: named?.id, contact, rest } : undefined;
}

/** Diode mode at one contact of the port, ground lead reversed as usual. */
export const contactDrop = defineMeasurement<ContactDropMeasurement>({
  kind: 'contactDrop',
  schema,
  label: 'diode mode at the port',
  id: (m) => `pin:${m.port}:${m.pin}`,
  offered: (board) => board.ports.flatMap((port) => contactsThatFail(board, port.id)),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (board, m) => `${m.port} contact ${m.pin}, ${netAt(board, m.port, m.pin)}, diode mode`,
  name: (board, m) => `${board.ports.length > 1 ? `${m.port} ` : ''}${m.pin} ${netAt(board, m.port, m.pin)} drop`,
  place: (board, m) => findPlace(board, `${m.port}.${m.pin}`),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 0.3,
  shield: noShield,
  power: () => UNPOWERED,
  meterReads: 'drop',
  // Engineering estimate.
  errorRate: 0.03,
  seesSwaps: false,
  outside: true,
  checklistRank: 8,
  scale: dropScale,
  touches: (board, m) => [netAt(board, m.port, m.pin)],
  predict: (model, m, fault, absent) =>
    absent.has(m.port) ? openDrop() : dropAtPin(model, m.port, m.pin, m.pin, fault, absent),
  partition(partitioner, m) {
    const net = partByRef(partitioner.board, m.port)!.pins[m.pin];
    return net === undefined || net === partitioner.ground || partitioner.absent.has(m.port)
      ? partitioner.constant()
      : partitioner.diodeDrop(net, 'drop');
  },
  interpret({ model, goodBoards }, m, value) {
    const pin = portPins(model.board, m.port).find((p) => p.pin === m.pin);
    if (!pin || (value.kind !== 'figure' && value.kind !== 'open')) return plain();
    const { label, state } = judgePin(model.board, pin, value, undefined, goodBoards);
    return { message: label, state };
  },
  goodBoards: { fromId: (port, pin) => ({ kind: 'contactDrop', port, pin }), decide: false },
  stem: (board, m) => `${portStem(board, m.port)}${m.pin.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'contact',
      matches: ({ board }, { words }) => contactIn(board, words) !== undefined,
      usage: [
        { example: 'a5 0.262', help: 'diode mode at one contact of the port; in the port walk the value alone' },
        { example: 'j2 b7 ol', help: 'the same, by port where there are several' },
      ],
      parse({ board }, { words }) {
        const { port, contact, rest } = contactIn(board, words)!;
        if (port === undefined && board.ports.length > 1)
          return fail(`Expected the port before the contact, such as: j2 ${contact} 0.262; got "${words.join(' ')}".`);
        const pin = contact.toUpperCase();
        const value = parseDrop(rest, `contact ${pin}`);
        if (!value.ok) return value;
        return ok({
          measurement: { kind: 'contactDrop', port: port ?? board.ports[0].id, pin },
          value: value.value,
        });
      },
      complete: () => ['ol'],
    }),
  ],
});

/** Contacts that can fail by themselves: every signal contact, and one for each power net. */
function contactsThatFail(board: Board, portId: string): ContactDropMeasurement[] {
  const seen = new Set<string>();
  const ground = groundNet(board);
  return Object.entries(partByRef(board, portId)!.pins).flatMap(([pin, net]): ContactDropMeasurement[] => {
    const { role, diodeV } = board.nets[net];
    if (net === ground || diodeV === undefined || (role === 'power' && seen.has(net))) return [];
    seen.add(net);
    return [{ kind: 'contactDrop', port: portId, pin }];
  });
}
