import { DEMO_BOARDS, demoBoard } from '../../../../demo/files';
import { parseLine } from '../../command-line';
import { seededRandom } from '../../math';
import { ok } from '../../result';
import { Predictor } from '../predictor';
import {
  boardMeasurements,
  checkReading,
  entryStem,
  interpretReading,
  measurementId,
  measurementOfReference,
} from '../measurement';
import { idealReading } from '../policy';
import { sampleReading } from '../simulate';
import { SOUND } from '../faults';
import { MEASUREMENT_KINDS, definitionOf, measurementCommands, measurementSchema, type Measurement } from './registry';

const NONE = new Set<string>();
const grammar = {
  emptyLine: 'a reading',
  commands: [...measurementCommands].sort((a, b) => Number(a.name === 'point') - Number(b.name === 'point')),
};

/** One measurement of each kind on a board, those that only a belief proposes among them. */
function oneOfEach(predictor: Predictor): Measurement[] {
  const { board, faults } = predictor;
  const likely = faults.map((fault) => ({ fault, p: 0.5 }));
  const all = [
    ...boardMeasurements(board),
    ...MEASUREMENT_KINDS.flatMap((k) => k.proposed?.({ board, likely, absent: NONE, replaced: NONE }) ?? []),
    { kind: 'diodeDrop', net: board.ports[0].sides[0].ccNet } as const,
    {
      kind: 'jointDrop',
      ref: board.ports[0].controller,
      pin: Object.keys(board.parts.find((p) => p.ref === board.ports[0].controller)!.pins)[0],
    } as const,
  ];
  return MEASUREMENT_KINDS.map((k) => all.find((m) => m.kind === k.kind)!);
}

test('every kind stands once, with a name of its own', () => {
  const kinds = MEASUREMENT_KINDS.map((k) => k.kind);
  expect(new Set(kinds).size).toBe(kinds.length);
  const labels = MEASUREMENT_KINDS.map((k) => k.label);
  expect(new Set(labels).size).toBe(labels.length);
  for (const { errorRate } of MEASUREMENT_KINDS) {
    expect(errorRate).toBeGreaterThan(0);
    expect(errorRate).toBeLessThan(0.5);
  }
});

describe.each(DEMO_BOARDS)('every kind on %s', (id) => {
  const predictor = Predictor.of(demoBoard(id));
  const { board } = predictor;
  const each = oneOfEach(predictor).map((m) => [m.kind, m] as const);

  test.each(each)(
    '%s: is stored and read back, speaks of this board, has a name, a title, minutes and an id',
    (_, m) => {
      expect(measurementSchema.parse(JSON.parse(JSON.stringify(m)))).toEqual(m);
      const kind = definitionOf(m);
      expect(kind.misfit(board, m)).toBeUndefined();
      expect(kind.name(board, m).length).toBeGreaterThan(1);
      expect(kind.title(board, m).length).toBeGreaterThan(3);
      expect(kind.minutes(board, m)).toBeGreaterThan(0);
      expect(measurementId(m)).toBe(kind.id(m));
    },
  );

  test.each(each)('%s: what a board would read is a value of its scale, is drawn, and is put into words', (_, m) => {
    const { scale } = definitionOf(m);
    const random = seededRandom(5);
    for (const value of [idealReading(predictor, m, SOUND).value, sampleReading(predictor, m, SOUND, random).value]) {
      expect(checkReading(board, { measurement: m, value })).toEqual(ok(true));
      expect(scale.label(value).length).toBeGreaterThan(0);
      expect(['good', 'bad', 'plain']).toContain(interpretReading(predictor, m, value, NONE).state);
    }
  });

  test.each(each)('%s: a sound board reads as good or says nothing', (_, m) => {
    const { value } = idealReading(predictor, m, SOUND);
    expect(interpretReading(predictor, m, value, NONE).state).not.toBe('bad');
  });

  test.each(each.filter(([kind]) => kind !== 'liftedResistance'))(
    '%s: its stem and a value are a line that means it',
    (_, m) => {
      const { value } = idealReading(predictor, m, SOUND);
      const typed =
        value.kind === 'figure'
          ? String(Number(value.value.toPrecision(4)))
          : value.kind === 'pair'
            ? `${value.volts.toFixed(2)} ${value.amps.toFixed(2)}`
            : value.kind === 'choice'
              ? value.choice
              : { open: 'ol', beep: 'beep', pass: 'pass', fail: 'fail' }[value.kind];
      const entry = parseLine(grammar, { board, mode: 'ohm' as const }, `${entryStem(board, m)}${typed}`);
      expect(entry.ok && measurementId(entry.value.measurement as Measurement)).toBe(measurementId(m));
    },
  );

  test('points of good boards are found by their ids', () => {
    for (const [, m] of each)
      expect(measurementOfReference(measurementId(m))).toEqual(definitionOf(m).goodBoards ? m : undefined);
    for (const id of ['', 'ohm', 'gossip:X', 'volts:'])
      expect(measurementOfReference(id)?.kind ?? '').toMatch(/^(railVoltage)?$/);
  });
});

test('a value of another kind, a strange name and a strange answer are refused with a sentence', () => {
  const board = demoBoard('heronlog-4-c');
  const refused = (measurement: Measurement, value: Parameters<typeof checkReading>[1]['value']): string => {
    const checked = checkReading(board, { measurement, value });
    return checked.ok ? '' : checked.problems[0].message;
  };
  expect(refused({ kind: 'groundResistance', net: 'NOWHERE' }, { kind: 'open' })).toBe(
    'Expected a net of this board; got "NOWHERE".',
  );
  expect(refused({ kind: 'jointDrop', ref: 'U4', pin: 'ZZ' }, { kind: 'open' })).toMatch(/^Expected a joint of U4/);
  expect(refused({ kind: 'meterPattern', port: 'J1', side: 'A' }, { kind: 'choice', choice: 'dances' })).toBe(
    'Expected steady, swing, restart or early (USB meter, watched); got "dances".',
  );
  expect(refused({ kind: 'groundResistance', net: 'VBUS' }, { kind: 'figure', value: 1, swings: true })).toMatch(
    /ripple and swings/,
  );
});
