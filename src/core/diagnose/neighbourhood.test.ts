import { demoBoard } from '../../../demo/files';
import { parseBoard, type Board } from '../board';
import { hiddenBoards } from '../drill';
import { seededRandom } from '../math';
import { boardMeasurements } from './measurement';
import { neighbourhoodOf } from './neighbourhood';
import { Predictor } from './predictor';
import { DiagnoseSession, type SessionAnswer } from './session';

const heron = demoBoard('heronlog-4-c');

/** The demo board with blocks beyond: a chip with three signals, a pull-up on each, and ten capacitors on the system rail. */
function withBlocks(blocks: number): Board {
  const nets: Record<string, unknown> = { ...heron.nets };
  const far = Array.from({ length: blocks }, (_, b) => {
    const at = (k: number) => ({ xMm: 60 + k, yMm: 2 + (b % 20), rotationDeg: 0, side: 'front' });
    const signals = [0, 1, 2].map((k) => `F${b}_${k}`);
    for (const net of signals) nets[net] = { role: 'signal', diodeV: 0.5 };
    const pins = { '1': 'VSYS', '2': 'GND', '5': signals[0], '6': signals[1], '7': signals[2] };
    return [
      { ref: `U9${b}0`, kind: 'sensorHub', what: 'far chip', package: 'QFN16', pins, ...at(0) },
      ...signals.map((net, k) => ({
        ...{ ref: `R9${b}${k}`, kind: 'resistor', what: 'pull-up', package: 'R0402', ohm: 10_000, ...at(2 + k) },
        pins: { '1': net, '2': 'VSYS' },
      })),
      ...Array.from({ length: 10 }, (_x, k) => ({
        ...{ ref: `C9${b}${k}`, kind: 'capacitor', what: 'bypass', package: 'C0402', ...at(6 + k) },
        pins: { '1': 'VSYS', '2': 'GND' },
      })),
    ];
  }).flat();
  const outlineMm = [
    [0, 0],
    [90, 0],
    [90, 60],
    [0, 60],
  ];
  const parsed = parseBoard({ ...heron, id: `blocks-${blocks}`, outlineMm, nets, parts: [...heron.parts, ...far] });
  if (!parsed.ok) throw new Error(parsed.problems[0].message);
  return parsed.value;
}

const large = withBlocks(20);
const predictor = Predictor.of(large);
const near = neighbourhoodOf(large)!;

test('a small board is modelled whole, with every fault and every test it offers', () => {
  const small = Predictor.of(heron);
  expect(neighbourhoodOf(heron)).toBeUndefined();
  expect(small.tests).toEqual(boardMeasurements(heron));
  expect(new DiagnoseSession(small).answer().modelled).toBeNull();
});

test('of a large one the ports, what serves them and their rails are near, and every test of theirs is offered', () => {
  for (const port of large.ports)
    for (const ref of [port.id, port.controller, ...port.sides.flatMap((s) => s.path)])
      expect(near.parts).toContain(ref);
  for (const rail of large.rails) expect(near.nets).toContain(rail.net);
  expect(near.parts.size + near.beyond).toBe(large.parts.length);
  expect([...near.parts].some((ref) => /^[UR]9\d+/.test(ref))).toBe(false);
  const railTests = boardMeasurements(heron).filter((m) => m.kind === 'railVoltage' || m.kind === 'functionTest');
  for (const m of railTests) expect(predictor.tests).toContainEqual(m);
  expect(predictor.tests.some((m) => 'net' in m && /^F\d+_/.test(m.net ?? ''))).toBe(false);
});

test('of parts beyond only what pulls at a net within counts, all that pull alike as one', () => {
  const listed = Predictor.of(withBlocks(0)).faults;
  const ofFar = predictor.faults.filter((f) => f.ref.startsWith('further off on '));
  expect(predictor.faults.some((f) => /^[UCR]9\d+/.test(f.ref))).toBe(false);
  const short = ofFar.find((f) => f.label.startsWith('A short further off on VSYS: one of '))!;
  expect(short.effects).toEqual([expect.objectContaining({ kind: 'shunt', net: 'VSYS' })]);
  // Twenty blocks of ten capacitors weigh what two hundred capacitors weigh.
  const capacitor = listed.find((f) => /^C\d+$/.test(f.ref) && f.effects.some((e) => e.kind === 'shunt'))!;
  expect(short.weight).toBeGreaterThan(150 * capacitor.weight);
  // Every listed fault of the demo board's near parts is there, as on the demo board alone.
  const own = listed.filter((f) => near.parts.has(f.ref));
  const there = new Set(predictor.faults.map((f) => f.id));
  expect(own.length).toBeGreaterThan(100);
  expect(own.filter((f) => !there.has(f.id))).toEqual([]);
});

/** A session that is told readings one by one, and the last answer. */
function told(...readings: readonly (readonly [object, object])[]): SessionAnswer {
  const session = new DiagnoseSession(predictor);
  let answer = session.answer();
  for (const [measurement, value] of readings) {
    const taken = session.take({ reading: { measurement, value } } as Parameters<DiagnoseSession['take']>[0]);
    if (!taken.ok) throw new Error(taken.problems[0].message);
    answer = taken.value;
  }
  return answer;
}

test('a short of the system rail by one of many capacitors beyond is told apart by what gets warm', () => {
  const short = [
    { kind: 'groundResistance', net: 'VSYS' },
    { kind: 'figure', value: 1.6 },
  ] as const;
  const before = told(short);
  expect(before.modelled).toEqual({ parts: near.parts.size, beyond: near.beyond });
  expect(before.suspects[0].ref).toBe('further off on VSYS');
  // A resistance cannot tell which of them: what gets warm does.
  expect(before.step).toMatchObject({ kind: 'test', measurement: { kind: 'warmSpot', net: 'VSYS' } });
  const after = told(short, [
    { kind: 'warmSpot', net: 'VSYS' },
    { kind: 'choice', choice: 'C934' },
  ]);
  expect(after.suspects[0].ref).toBe('C934');
  expect(after.suspects[0].p).toBeGreaterThan(0.5);
  expect(after.modelled).toEqual({ parts: near.parts.size + 1, beyond: near.beyond - 1 });
});

test('a net beyond that is read counts from then on: its chip becomes a suspect', () => {
  const measurement = { kind: 'groundResistance', net: 'F3_1' } as const;
  const value = { kind: 'figure', value: 1.5 } as const;
  const opened = predictor.openedFor([{ measurement, value }], []);
  expect(opened).not.toBe(predictor);
  expect(opened.openedFor([{ measurement, value }], [])).toBe(opened);
  expect(opened.neighbourhood!.parts).toContain('U930');
  expect(opened.neighbourhood!.beyond).toBeLessThan(near.beyond);
  expect(told([measurement, value]).suspects.map((s) => s.ref)).toContain('U930');
});

test('what is read within opens nothing; a part beyond that is worked on counts from then on', () => {
  const within = {
    measurement: { kind: 'groundResistance', net: 'VSYS' },
    value: { kind: 'figure', value: 900 },
  } as const;
  expect(predictor.openedFor([within], ['U4'])).toBe(predictor);
  expect(predictor.openedFor([within], ['C934']).faults.some((f) => f.ref === 'C934')).toBe(true);
});

test('no drill on a large board hides a group: it is nobody’s fault in particular', () => {
  const random = seededRandom(4);
  const draw = hiddenBoards(predictor);
  const drawn = Array.from({ length: 300 }, () => draw(random).faults).flat();
  expect(drawn.every((f) => f.furtherOff === undefined)).toBe(true);
  expect(new Set(drawn.map((f) => f.id)).size).toBeGreaterThan(50);
});
