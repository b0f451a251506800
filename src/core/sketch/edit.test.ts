import fc from 'fast-check';
import { partByRef, parseBoard, type Board } from '../board';
import { Predictor, SOUND } from '../diagnose';
import { FIRST_ANSWERS, applyBoardEdit, firstBoard, type BoardEdit } from '.';

const NONE: ReadonlySet<string> = new Set();
const first = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!first.ok) throw new Error(first.problems[0].message);
const sketch = first.value;
const made = (board: Board, ...edits: readonly BoardEdit[]): Board =>
  edits.reduce((now, edit) => {
    const next = applyBoardEdit(now, edit);
    if (!next.ok) throw new Error(next.problems[0].message);
    return next.value;
  }, board);
const refused = (board: Board, edit: BoardEdit): string => {
  const next = applyBoardEdit(board, edit);
  return next.ok ? 'made' : next.problems[0].message;
};
const part = (board: Board, ref: string) => partByRef(board, ref)!;
/** Every name that a board uses for a part, wherever it stands. */
const named = (board: Board, ref: string): boolean => JSON.stringify({ ...board, layers: [] }).includes(`"${ref}"`);
const soundOhm = (board: Board, net: string): number => {
  const p = Predictor.of(board).predict({ kind: 'groundResistance', net }, SOUND, NONE, NONE);
  return p.kind === 'values' ? 10 ** p.alternatives[0].means[0] : NaN;
};

describe('parts', () => {
  test('a new designator stands everywhere, and the old one nowhere', () => {
    for (const { ref } of sketch.parts) {
      const renamed = made(sketch, { kind: 'rename', ref, to: 'X77' });
      expect(`${ref} ${named(renamed, ref)} ${named(renamed, 'X77')}`).toBe(`${ref} false true`);
      expect(made(renamed, { kind: 'rename', ref: 'X77', to: ref })).toEqual(sketch);
    }
  });

  test('what is placed is known to lie there; its package stays assumed until somebody says it', () => {
    const placed = made(sketch, { kind: 'place', ref: 'U3', xMm: 12.345, yMm: 20, rotationDeg: 450, side: 'back' });
    expect(part(placed, 'U3')).toMatchObject({
      xMm: 12.35,
      yMm: 20,
      rotationDeg: 90,
      side: 'back',
      assumed: ['package'],
    });
    const known = made(placed, { kind: 'package', ref: 'U3', pattern: 'SOIC-8' });
    expect(part(known, 'U3').assumed).toBeUndefined();
  });

  test('another package keeps the nets of pins that it has, and puts the others onto free ones', () => {
    const wide = made(sketch, { kind: 'package', ref: 'U1', pattern: 'QFN-56-0.4' });
    expect(Object.values(part(wide, 'U1').pins).sort()).toEqual(Object.values(part(sketch, 'U1').pins).sort());
    const balls = made(sketch, { kind: 'package', ref: 'U1', pattern: 'BGA-64-0.5' });
    expect(new Set(Object.values(part(balls, 'U1').pins))).toEqual(new Set(Object.values(part(sketch, 'U1').pins)));
    expect(part(balls, 'U1').assumed).toContain('pins');
    expect(refused(sketch, { kind: 'package', ref: 'U1', pattern: 'SON-8-0.5' })).toMatch(/has 9 pins; U1 needs \d+/);
  });

  test('what others rest on stays: the port, its controller, what makes a rail', () => {
    expect(refused(sketch, { kind: 'remove', ref: 'J1' })).toContain('is its connector');
    expect(refused(sketch, { kind: 'remove', ref: 'U6' })).toBe(
      'Expected a part that makes no rail; U6 makes V33. Say what makes it first.',
    );
    const without = made(sketch, { kind: 'remove', ref: 'U3' });
    expect(without.ports[0].imagePart).toBeUndefined();
    expect(without.rails.flatMap((r) => r.feeds.flatMap((f) => f.needs))).not.toContain('image');
  });

  test('a coil that is not there joins what it stood between, and its loads stand in parallel', () => {
    const joined = made(sketch, { kind: 'remove', ref: 'L1' });
    expect(joined.nets.SWC && joined.nets.VSYS).toBeFalsy();
    expect(joined.rails.some((r) => r.id === 'VSYS')).toBe(true);
  });

  test.each([
    [{ kind: 'value', ref: 'U1', ohm: 5 } as const, 'Expected a resistor to have a value in ohm; U1 is not one.'],
    [
      { kind: 'add', ref: 'C99', part: 'capacitor', pattern: 'CHIP-9', nets: ['VIN'] } as const,
      'Expected a package of the list or of this board; got "CHIP-9".',
    ],
    [
      { kind: 'add', ref: 'C99', part: 'capacitor', pattern: 'CHIP-1005', nets: ['VIN', 'GND', 'VSYS'] } as const,
      'Expected at most 2 nets for CHIP-1005; got 3.',
    ],
    [
      { kind: 'rename', ref: 'U1', to: 'u2' } as const,
      'Expected a designator that is free; U2 is on the board already.',
    ],
    [{ kind: 'point', id: 'u1', net: 'VIN' } as const, 'Expected the name of a test point; U1 is a part.'],
    [{ kind: 'size', sizeMm: [0, 40] } as const, 'Expected a width and a height above 0 mm; got 0 × 40.'],
    [{ kind: 'sound', net: 'SCL', ohm: 3300 } as const, 'nothing on the sketch loads SCL'],
    [{ kind: 'place', ref: 'U1', xMm: 200, yMm: 2 } as const, 'outside the outline'],
  ])('%p is refused with a sentence', (edit, words) => {
    expect(refused(sketch, edit as BoardEdit)).toContain(words);
  });
});

describe('values', () => {
  test('a good board sets what the net reads as a whole, however many chips load it', () => {
    // The closed form: loads in parallel are scaled by one factor, so that their parallel resistance is what was read.
    for (const [net, ohm] of [
      ['VSYS', 4200],
      ['V33', 950],
      ['VIN', 61_000],
    ] as const) {
      const board = made(sketch, { kind: 'sound', net, ohm });
      const siemens = board.parts.reduce((sum, p) => sum + (p.loadsOhm[net] ? 1 / p.loadsOhm[net] : 0), 0);
      expect(1 / siemens / ohm).toBeCloseTo(1, 2);
    }
    // VPACK hangs on nothing but the charger: what the meter shows is what was said.
    expect(soundOhm(made(sketch, { kind: 'sound', net: 'VPACK', ohm: 2500 }), 'VPACK') / 2500).toBeCloseTo(1, 1);
  });

  test('another size moves what was only assumed, and leaves what was placed', () => {
    const placed = made(sketch, { kind: 'place', ref: 'U1', xMm: 20, yMm: 15 });
    const larger = made(placed, { kind: 'size', sizeMm: [120, 40] });
    expect(part(larger, 'U1')).toMatchObject({ xMm: 20, yMm: 15 });
    expect(part(larger, 'U8').xMm).toBeCloseTo(2 * part(sketch, 'U8').xMm, 1);
    expect(larger.assumed).toEqual(['stack', 'parts']);
    expect(made(larger, { kind: 'stack', thicknessMm: 0.8, layers: 10 })).toMatchObject({
      thicknessMm: 0.8,
      layers: { length: 10 },
      assumed: ['parts'],
    });
    expect(made(larger, { kind: 'stack', thicknessMm: 0.8, layers: 10 }, { kind: 'complete' }).assumed).toBeUndefined();
  });
});

describe('nets', () => {
  const pin = (ref: string, n: string) => ({ ref, pin: n });

  test('joining is the same from either side', () => {
    const names = Object.keys(sketch.nets).filter((n) => !['GND'].includes(n));
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.constantFrom(...names), (x, y) => {
        const [a, b] = [{ net: x }, { net: y }];
        const [one, other] = [
          applyBoardEdit(sketch, { kind: 'join', a, b }),
          applyBoardEdit(sketch, { kind: 'join', a: b, b: a }),
        ];
        expect(one.ok).toBe(other.ok);
        if (one.ok && other.ok) expect(Object.keys(one.value.nets).length).toBe(Object.keys(other.value.nets).length);
      }),
      { seed: 3, numRuns: 60 },
    );
  });

  test('two pins that nobody knew become a net of their own, and grow by a third', () => {
    const two = made(sketch, { kind: 'join', a: pin('U1', '30'), b: pin('U8', 'K9') });
    expect(part(two, 'U1').pins['30']).toBe('N1');
    const three = made(two, { kind: 'join', a: pin('U5', '20'), b: pin('U1', '30') });
    expect(part(three, 'U5').pins['20']).toBe('N1');
    const next = made(three, { kind: 'join', a: pin('U1', '31'), b: pin('U8', 'K8') });
    expect(part(next, 'U1').pins['31']).toBe('N2');
  });

  test('any edits in any order leave a file that parses as it stands', () => {
    const edit: fc.Arbitrary<BoardEdit> = fc.oneof(
      fc.constantFrom(...sketch.parts.map((p) => p.ref)).map((ref) => ({ kind: 'remove', ref }) as const),
      fc
        .tuple(
          fc.constantFrom('U1', 'C1', 'L1', 'Q1'),
          fc.integer({ min: 1, max: 55 }),
          fc.integer({ min: 1, max: 38 }),
        )
        .map(([ref, xMm, yMm]) => ({ kind: 'place', ref, xMm, yMm }) as const),
      fc
        .tuple(fc.constantFrom(...Object.keys(sketch.nets)), fc.constantFrom(...Object.keys(sketch.nets)))
        .map(([x, y]) => ({ kind: 'join', a: { net: x }, b: { net: y } }) as const),
      fc.constantFrom('VIN', 'VSYS', 'V33').map((net) => ({ kind: 'sound', net, ohm: 5000 }) as const),
    );
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 10 }), (edits) => {
        let now = sketch;
        for (const e of edits) {
          const next = applyBoardEdit(now, e);
          if (next.ok) now = next.value;
        }
        expect(parseBoard(JSON.parse(JSON.stringify(now)))).toEqual({ ok: true, value: now });
      }),
      { seed: 8, numRuns: 80 },
    );
  });
});
