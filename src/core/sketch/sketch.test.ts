import fc from 'fast-check';
import { PART_KINDS, groundNet, landsOf, parseBoard, partByRef, type Board } from '../board';
import { DiagnoseSession, Predictor, boardMeasurements, measurementId, SOUND } from '../diagnose';
import {
  ARCHETYPES,
  FIRST_ANSWERS,
  LAND_PATTERNS,
  applyBoardEdit,
  carryOf,
  firstBoard,
  parseSketchLine,
  type Answers,
  type ArchetypeId,
} from '.';

const NONE: ReadonlySet<string> = new Set();
const ALL = Object.keys(ARCHETYPES) as ArchetypeId[];
const answers = (more: Partial<Answers> = {}): Answers => ({ ...FIRST_ANSWERS, device: 'Tern 1', ...more });
const sketch = (more: Partial<Answers> = {}): Board => {
  const made = firstBoard('tern-1', answers(more));
  if (!made.ok) throw new Error(made.problems[0].message);
  return made.value;
};
/** Types lines one after the other; the first that is refused ends it with its sentence. */
function typed(board: Board, ...lines: readonly string[]): Board | string {
  let now = board;
  for (const line of lines) {
    const read = parseSketchLine(now, line);
    const made = read.ok ? applyBoardEdit(now, read.value.edit) : read;
    if (!made.ok) return made.problems[0].message;
    now = made.value;
  }
  return now;
}
const board = (made: Board | string): Board => {
  if (typeof made === 'string') throw new Error(made);
  return made;
};

describe('a first board', () => {
  test.each(ALL)('of %s begins a job with a measurement whose place is on the board', (archetype) => {
    const made = sketch({ archetype, ports: archetype === 'sharedMemory' ? 3 : 1 });
    const { step } = new DiagnoseSession(Predictor.of(made)).answer();
    expect(step.kind).toBe('test');
    expect(step.kind === 'test' && step.point).toBeTruthy();
    expect(made.parts.every((p) => p.assumed?.includes('place'))).toBe(true);
  });

  test('reads on its rails what is usual there: handbook values, 95 of 100 inside', () => {
    const model = Predictor.of(sketch());
    const range = (net: string): [number, number] => {
      const p = model.predict({ kind: 'groundResistance', net }, SOUND, NONE, NONE);
      if (p.kind !== 'values') throw new Error('expected values');
      const [{ means, sds }] = p.alternatives;
      return [10 ** (means[0] - 1.96 * sds[0]), 10 ** (means[0] + 1.96 * sds[0])];
    };
    // Generic circuits round a port: VIN 5 to 500 kΩ, system and pack 0.5 to 50 kΩ, the controller's supplies 1 to 50 kΩ.
    for (const [net, low, high] of [
      ['VIN', 5e3, 500e3],
      ['VPACK', 500, 50e3],
      ['LDO18', 1e3, 50e3],
    ] as const) {
      const [from, to] = range(net);
      expect(Math.abs(Math.log10(from / low))).toBeLessThan(0.25);
      expect(Math.abs(Math.log10(to / high))).toBeLessThan(0.25);
    }
  });

  test('is refused with a sentence where a package has too few pins, or a name is missing', () => {
    expect(firstBoard('x', answers({ controllerPackage: 'QFN-12-0.5' }))).toMatchObject({ ok: false });
    const nameless = firstBoard('x', answers({ device: ' ' }));
    expect(!nameless.ok && nameless.problems[0].message).toBe(
      'Name of the device: expected what the device is called.',
    );
  });
});

describe('lines of a sketch', () => {
  test('name, add, join and level what was found', () => {
    const made = board(typed(sketch(), 'u4 is the controller', 'add c14 on vin', 'vsys is 8.4 v'));
    const vsys = made.rails.find((r) => r.id === 'VSYS')!;
    expect(vsys).toMatchObject({ expect: { kind: 'fixed', volts: 8.4 }, tolerance: 0.05 });
    expect(made.parts.map((p) => p.ref)).toEqual(expect.arrayContaining(['U4', 'C14']));
  });

  test('the chip by the port takes its designator everywhere', () => {
    const made = board(typed(sketch(), 'u4 is the controller'));
    expect(made.ports[0].controller).toBe('U4');
    expect(made.rails.find((r) => r.id === 'LDO33')!.feeds[0].by).toBe('U4');
    expect(partByRef(made, 'U1')).toBeUndefined();
  });

  test('a capacitor on a rail is a place to probe it, and a suspect', () => {
    const made = board(typed(sketch(), 'add c14 on vin'));
    expect(partByRef(made, 'C14')!.pins).toEqual({ 1: 'VIN', 2: 'GND' });
    expect(Predictor.of(made).faults.some((f) => f.ref === 'C14')).toBe(true);
  });

  test('a beep joins a pin to a net, and an assumed pin gives way to what was read', () => {
    const made = board(typed(sketch(), 'u1.12 = c2.1', 'u1.40 is ground'));
    expect(partByRef(made, 'U1')!.pins['12']).toBe(partByRef(made, 'C2')!.pins['1']);
    expect(partByRef(made, 'U1')!.pins['40']).toBe('GND');
  });

  test('no fuse: its two nets are one, and the rail behind it is the bus', () => {
    const made = board(typed(sketch(), 'no f1'));
    expect(made.nets.VBUSF).toBeUndefined();
    expect(made.rails.find((r) => r.id === 'VIN')!.feeds[0].from).toBe('VBUS');
    expect(new DiagnoseSession(Predictor.of(made)).answer().step.kind).toBe('test');
  });

  test('a level that two rails may have is asked, not guessed', () => {
    expect(typed(sketch(), 'tp3 is 3.3 v')).toBe('LDO33 and V33 may both be 3.30 V. Say which: tp3 on ldo33.');
    expect(board(typed(sketch(), 'tp3 on v33')).points).toMatchObject([{ id: 'TP3', net: 'V33' }]);
  });

  test.each([
    ['vin = vsys', 'VIN and VSYS are two rails'],
    ['vin = ground', 'at ground it would be a short'],
    ['u1.99 = vin', 'Expected a pin of U1, 1 to EP; got "99".'],
    ['add c1 on vin', 'Expected a designator that is free; C1 is on the board already.'],
    ['add c14 on nowhere', 'Expected a net of this board; got "nowhere".'],
    ['u9 is the teapot', 'got "teapot"'],
    ['no u1', 'U1 is its controller'],
    ['vbus is 5 v', 'VBUS follows the port'],
    ['size 60', 'Expected a width and a height in mm'],
    ['good cc1 drop none', 'Expected a figure above 0'],
  ])('%s is answered with a sentence and changes nothing', (line, words) => {
    expect(typed(sketch(), line)).toContain(words);
  });

  test('any order of lines leaves a board that parses, or a sentence', () => {
    const line = fc.constantFrom(
      'u4 is the controller',
      'u5 is the charger',
      'no f1',
      'no q2',
      'no d1',
      'add c14 on vin',
      'add r5 from v33 to scl',
      'r5 is 10k',
      'u1.12 = c2.1',
      'scl = sda',
      'vsys is 8.4 v',
      'tp3 on vsys',
      'good vin ohm 12k',
      'good cc1 drop 0.46',
      'package u3 soic-8',
      'size 80 30',
      'stack 0.8 10',
      'all parts drawn',
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
        let now = sketch();
        for (const text of lines) {
          const read = parseSketchLine(now, text);
          const made = read.ok ? applyBoardEdit(now, read.value.edit) : read;
          if (made.ok) now = made.value;
          else expect(made.problems[0].message).toMatch(/\.$/);
        }
        expect(parseBoard(JSON.parse(JSON.stringify(now))).ok).toBe(true);
      }),
      { seed: 22, numRuns: 60 },
    );
  });
});

describe('what is not known', () => {
  /** Widest spread of what a sound board reads in a test. */
  const spreads = (made: Board): Map<string, number> =>
    new Map(
      boardMeasurements(made).flatMap((m): [string, number][] => {
        const p = Predictor.of(made).predict(m, SOUND, NONE, NONE);
        return p.kind === 'values' ? [[measurementId(m), Math.max(...p.alternatives.map((a) => a.sds[0]))]] : [];
      }),
    );

  test('a good board read at a net makes its predictions narrower there, and wider nowhere', () => {
    const before = spreads(sketch());
    const after = spreads(board(typed(sketch(), 'good vin ohm 50k', 'good cc1 drop 0.45')));
    expect(after.get('ohm:VIN')).toBeLessThan(0.4 * before.get('ohm:VIN')!);
    for (const [id, sd] of before) expect(after.get(id)).toBeLessThanOrEqual(sd + 1e-9);
  });

  test('taking knowledge out of a file widens predictions and never narrows them', () => {
    const known = board(typed(sketch(), 'good vin ohm 12k', 'good vsys ohm 4k', 'good cc1 drop 0.46', 'vsys is 8.4 v'));
    const parts = known.parts.filter((p) => p.loadsWithin);
    fc.assert(
      fc.property(fc.subarray(parts.map((p) => p.ref)), fc.double({ min: 1, max: 8, noNaN: true }), (refs, by) => {
        const less: Board = {
          ...known,
          parts: known.parts.map((p) =>
            refs.includes(p.ref)
              ? { ...p, loadsWithin: Object.fromEntries(Object.entries(p.loadsWithin!).map(([n, f]) => [n, f * by])) }
              : p,
          ),
        };
        const [before, after] = [spreads(known), spreads(less)];
        for (const [id, sd] of before) expect(after.get(id)).toBeGreaterThanOrEqual(sd - 1e-9);
      }),
      { seed: 5, numRuns: 20 },
    );
  });

  test('how far the file carries rises with what is learned, and names the reading that helps most', () => {
    const before = carryOf(sketch());
    const [best] = before.worth;
    expect(best.savesMinutes).toBeGreaterThan(0);
    const after = carryOf(
      board(typed(sketch(), ...before.worth.map((w) => `${w.line}${w.line.includes('drop') ? '0.45' : '20k'}`))),
    );
    const told = (c: typeof before): number => c.stages[0].share + c.stages[1].share;
    expect(told(after)).toBeGreaterThan(told(before));
    expect(after.worth.map((w) => w.line)).not.toContain(best.line);
  });
});

describe('land patterns', () => {
  test.each(LAND_PATTERNS.map((p) => [p.name, p] as const))(
    '%s has pads that do not overlap',
    (_name, { package: pkg }) => {
      const pads = landsOf(pkg);
      expect(new Set(pads.map((p) => p.pin)).size).toBe(pads.length);
      for (const a of pads)
        for (const b of pads) {
          if (a.pin >= b.pin) continue;
          const apart =
            Math.abs(a.xMm - b.xMm) >= (a.wMm + b.wMm) / 2 - 1e-9 ||
            Math.abs(a.yMm - b.yMm) >= (a.hMm + b.hMm) / 2 - 1e-9;
          expect(`${a.pin} ${b.pin} ${apart}`).toBe(`${a.pin} ${b.pin} true`);
        }
    },
  );

  test('bodies of leadless packages are those of the outline: 40 pins at 0.5 mm in 6 mm, 24 in 4 mm, 48 at 0.4 mm in 6 mm', () => {
    // JEDEC MO-220, from memory.
    const body = (name: string): number => LAND_PATTERNS.find((p) => p.name === name)!.package.bodyMm[0];
    expect([body('QFN-40-0.5'), body('QFN-24-0.5'), body('QFN-16-0.5')]).toEqual([6, 4, 3]);
    expect(body('QFN-48-0.4')).toBeCloseTo(6, 0);
  });
});

test('every kind of part that a designator may mean exists, and ground is one net', () => {
  expect(PART_KINDS).toContain('lineFilter');
  expect(groundNet(sketch())).toBe('GND');
});
