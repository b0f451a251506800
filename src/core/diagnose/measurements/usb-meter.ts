import type { PartRef } from '../../identities';
import { z } from 'zod';
import { findPlace, type Board, type PlugSide } from '../../board';
import { defineCommand } from '../../command-line';
import { fail, ok, type Result } from '../../result';
import { formatAmp, formatVolt, parseFigure } from '../../units';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import { METER_WORDS, meterReading, readMeter } from '../meter';
import type { MeterCase } from '../power';
import { mixture, type Prediction } from '../prediction';
import { netsAtPort } from '../islands';
import { defineMeasurement, type MeasurementEntry, type MeasurementLineContext } from './definition';
import { bad, good, plain } from './interpretation';
import { portNames, severalPorts, takePort, takeSide } from './line-value';
import { METER_PATTERN_WORDS, type MeterPatternMeasurement } from './meter-pattern';
import { nameSchema, noShield, plugSideSchema, portStem, unknownPort } from './naming';
import { OBSERVATION } from './observation';
import { DIRTY, portFlags, suppliesOf } from './port-flags';
import { meterScale } from './scale';

const schema = z.object({ kind: z.literal('usbMeter'), port: nameSchema, side: plugSideSchema });
export type UsbMeterMeasurement = Readonly<z.infer<typeof schema>>;

/** A USB meter in line shows volts and amps, one plug way round. */
export const usbMeter = defineMeasurement<UsbMeterMeasurement>({
  kind: 'usbMeter',
  schema,
  label: 'USB meter, one reading',
  id: (m) => `usb:${m.port}:${m.side}`,
  offered: (board) =>
    board.ports.flatMap((port) => port.sides.map((s) => ({ kind: 'usbMeter', port: port.id, side: s.side }) as const)),
  misfit: (board, m) => unknownPort(board, m.port),
  title: (board, m) =>
    board.ports.length > 1 ? `Meter at ${m.port}, plugged ${m.side} way` : `Meter in line, plugged ${m.side} way`,
  name: (board, m) => (board.ports.length > 1 ? `${m.port}, ${m.side} way` : `Port, ${m.side} way`),
  place: (board, m) => findPlace(board, m.port),
  access: () => 'closed',
  // Engineering estimate.
  minutes: () => 0.5,
  shield: noShield,
  power: (m) => ({ kind: 'port', port: m.port }),
  // Engineering estimate.
  errorRate: 0.02,
  seesSwaps: true,
  outside: true,
  checklistRank: 2,
  scale: meterScale,
  touches: (board, m) => netsAtPort(board, m.port),
  predict: (model, m, fault, absent) => meterPrediction(model, m.port, m.side, fault, absent),
  partition(partitioner, m) {
    const { port, meterOf, ...keys } = partitioner.atPort(m.port, m.side);
    const cc = port.sides.find((s) => s.side === m.side)!.ccNet;
    const flags = keys.effects.map((list) => portFlags(partitioner.board, list, cc));
    return {
      ...keys,
      // Row names are numbers: texts for every pair took half of the time of all tables (measured).
      rowName(a, b) {
        const supplies = suppliesOf(flags[a], flags[b]);
        return supplies > 0 ? -supplies : 2 * meterOf(a, b) + Number(((flags[a].bits | flags[b].bits) & DIRTY) > 0);
      },
    };
  },
  interpret({ model }, m, value) {
    if (value.kind !== 'pair') return plain();
    const meter = readMeter(model.board, m.port, value.volts, value.amps);
    return meter === 'healthy' ? good(METER_WORDS[meter]) : bad(METER_WORDS[meter]);
  },
  stem: (board, m) => `usb ${portStem(board, m.port)}${m.side.toLowerCase()} `,
  commands: [
    defineCommand<MeasurementLineContext, MeasurementEntry>({
      name: 'usb',
      usage: [
        { example: 'usb a 14.8 0.49', help: 'the meter in line, by plug way' },
        { example: 'usb j2 b 5.02 0.01', help: 'the same, by port where there are several' },
        { example: 'usb a swing', help: 'how the watched meter behaves: steady, swing, restart, early' },
      ],
      parse: ({ board }, { args }) => parseUsb(board, args),
      complete({ board }, words) {
        if (words.length === 2) return [...severalPorts(board), 'a', 'b'];
        return words.length === 3 && portNames(board).includes(words[1]) ? ['a', 'b'] : [];
      },
    }),
  ],
});

function meterPrediction(
  model: CircuitModel,
  port: string,
  side: PlugSide,
  fault: Fault,
  absent: ReadonlySet<PartRef>,
): Prediction {
  const supply = fault.effects.find((e) => e.kind === 'outside' && e.what !== 'pack');
  const as = (meter: MeterCase): Prediction => meterReading(model.board, port, meter);
  if (supply?.kind === 'outside' && supply.what !== 'pack') {
    const shares = Object.entries(OBSERVATION.badSupplyAtMeter[supply.what]);
    return mixture(shares.map(([meter, share]) => [share, as(meter as MeterCase)]));
  }
  const seen = model.meterCase(port, side, fault, absent);
  if (seen === 'noTalk' || !model.isDirtyAt(port, side, fault)) return as(seen);
  const { talkFails } = OBSERVATION.dirtyContact;
  return mixture([
    [1 - talkFails, as(seen)],
    [talkFails, as('noTalk')],
  ]);
}

/** What a port and a meter in line can show. Common practice. */
const MOST_V = 60;
const MOST_A = 10;

function parseUsb(
  board: Board,
  words: readonly string[],
): Result<MeasurementEntry<UsbMeterMeasurement | MeterPatternMeasurement>> {
  const taken = takePort(board, words, 'usb');
  if (!taken.ok) return taken;
  const { port, rest } = taken.value;
  const [sideText, voltText, ampText, ...more] = rest;
  const side = takeSide(sideText);
  if (!side.ok) return side;
  const pattern = METER_PATTERN_WORDS[voltText ?? ''];
  if (pattern && ampText === undefined)
    return ok({
      measurement: { kind: 'meterPattern', port, side: side.value },
      value: { kind: 'choice', choice: pattern },
    });
  if (voltText === undefined || ampText === undefined)
    return fail('Expected volts and amps, such as: usb a 14.8 0.49.');
  if (more.length > 0) return fail(`Expected volts and amps only; got "${more.join(' ')}" after them.`);
  const volts = parseFigure(voltText.replace(/v$/, ''));
  if (!volts.ok) return volts;
  const amps = parseFigure(ampText.replace(/a$/, ''));
  if (!amps.ok) return amps;
  if (volts.value < 0 || volts.value > MOST_V)
    return fail(`Expected a port voltage from 0 to ${MOST_V} V; got ${volts.value}.`);
  if (amps.value < 0 || amps.value > MOST_A)
    return fail(`Expected a port current from 0 to ${MOST_A} A; got ${amps.value}.`);
  const where = board.ports.length > 1 ? `${port}, plugged ${side.value} way` : `Plugged ${side.value} way`;
  return ok({
    measurement: { kind: 'usbMeter', port, side: side.value },
    value: { kind: 'pair', volts: volts.value, amps: amps.value },
    echo: `${where}: ${formatVolt(volts.value)} and ${formatAmp(amps.value)}`,
  });
}
