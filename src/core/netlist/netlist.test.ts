import fc from 'fast-check';
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { parseBoard } from '../board';
import { draftBoard } from './draft';
import { recordsOf } from './export';
import { parseIpc356, writeIpc356, type TestRecord } from './ipc356';
import { parsePlacementCsv } from './placement';

function parsed(text: string): TestRecord[] {
  const result = parseIpc356(text);
  if (!result.ok) throw new Error(result.problems.map((p) => `${p.at}: ${p.message}`).join(' '));
  return result.value;
}

describe.each(DEMO_BOARDS)('the netlist of %s', (id) => {
  const board = demoBoard(id);
  const records = recordsOf(board);

  test('comes back with positions, nets and sides', () => {
    const back = parsed(writeIpc356(records));
    expect(back).toHaveLength(records.length);
    back.forEach((r, i) => {
      const { net, ref, pin, side, xMm, yMm, wMm } = records[i];
      expect([r.net, r.ref, r.pin, r.side]).toEqual([net, ref, pin, side]);
      expect(Math.abs(r.xMm - xMm)).toBeLessThan(0.0006);
      expect(Math.abs(r.yMm - yMm)).toBeLessThan(0.0006);
      expect(Math.abs(r.wMm - wMm)).toBeLessThan(0.0006);
    });
  });

  test('makes a draft with every part, pin and test point, which becomes a board once it is filled in', () => {
    const { board: draft, missing } = draftBoard('draft-1', parsed(writeIpc356(records)));
    const parts = draft.parts as { ref: string; pins: Record<string, string>; side: string }[];
    expect(new Set(parts.map((p) => p.ref))).toEqual(new Set(board.parts.map((p) => p.ref)));
    for (const part of parts) {
      const known = board.parts.find((p) => p.ref === part.ref)!;
      expect(part.side).toBe(known.side);
      expect(Object.values(part.pins).sort()).toEqual(Object.values(known.pins).sort());
    }
    expect((draft.points as unknown[]).length).toBe(board.points.length);
    expect(missing.join(' ')).toContain('ports');
    expect(parseBoard(draft).ok).toBe(false);
    const kinds = new Map(board.parts.map((p) => [p.ref, p]));
    const filled = {
      ...draft,
      device: board.device,
      name: board.name,
      revision: board.revision,
      thicknessMm: board.thicknessMm,
      layers: board.layers,
      ports: board.ports,
      rails: board.rails,
      functions: board.functions,
      parts: parts.map((p) => ({
        ...p,
        kind: kinds.get(p.ref)!.kind,
        ohm: kinds.get(p.ref)!.ohm,
        loadsOhm: kinds.get(p.ref)!.loadsOhm,
      })),
    };
    const result = parseBoard(filled);
    expect(result.ok ? [] : result.problems.slice(0, 3)).toEqual([]);
  });
});

test('any records survive the round trip within a micrometre', () => {
  const mm = fc.integer({ min: -400_000, max: 400_000 }).map((um) => um / 1000);
  const record = fc.record({
    net: fc.constantFrom('GND', 'VBUS', 'CC1', 'NET-14'),
    ref: fc.constantFrom('U4', 'C14', 'J1', ''),
    pin: fc.constantFrom('1', '24', 'A12'),
    xMm: mm,
    yMm: mm,
    side: fc.constantFrom('front' as const, 'back' as const, 'both' as const),
    wMm: fc.integer({ min: 50, max: 9000 }).map((um) => um / 1000),
    hMm: fc.integer({ min: 50, max: 9000 }).map((um) => um / 1000),
    rotationDeg: fc.integer({ min: 0, max: 359 }),
    holeMm: fc.option(
      fc.integer({ min: 100, max: 6000 }).map((um) => um / 1000),
      { nil: undefined },
    ),
  });
  fc.assert(
    fc.property(fc.array(record, { minLength: 1, maxLength: 20 }), (list) => {
      parsed(writeIpc356(list)).forEach((r, i) => {
        expect([r.net, r.ref, r.side, r.rotationDeg]).toEqual([
          list[i].net,
          list[i].ref,
          list[i].side,
          list[i].rotationDeg,
        ]);
        for (const key of ['xMm', 'yMm', 'wMm', 'hMm'] as const)
          expect(Math.abs(r[key] - list[i][key])).toBeLessThan(0.001);
        if (list[i].holeMm !== undefined) expect(Math.abs(r.holeMm! - list[i].holeMm)).toBeLessThan(0.001);
      });
    }),
    { seed: 8, numRuns: 60 },
  );
});

describe('records as other programs write them', () => {
  const LINE = '327GND              C14   -2          A01X+012000Y+004500X0300Y0250R000 S0';

  test('counts are ten thousandths of an inch where the file says so, or nothing', () => {
    const [inch] = parsed(`C  made by hand\nP  JOB    TEST\nP  UNITS CUST 0\n${LINE}\n999\n`);
    expect(inch.xMm).toBeCloseTo(1.2 * 25.4, 6);
    expect(inch.wMm).toBeCloseTo(0.03 * 25.4, 6);
    expect(parsed(`${LINE}\n`)[0].xMm).toBeCloseTo(1.2 * 25.4, 6);
    expect(parsed(`P  UNITS CUST 1\n${LINE}\n`)[0].xMm).toBeCloseTo(12, 9);
  });

  test('comments, continuation records and other kinds of record are passed over', () => {
    expect(parsed(`C comment\n027 more\n367N/C              HOLE\n${LINE}\n999\nrubbish after the end\n`)).toHaveLength(
      1,
    );
  });

  test.each([
    ['', undefined, 'Expected test records (317 or 327) of an IPC-D-356 file; got none.'],
    ['hello there', 'line 1', 'expected a record of IPC-D-356; got "hello there".'],
    [`${LINE}\n${LINE.replace('X+012000', 'X+01x000')}`, 'line 2', /^expected coordinates X .* got "\+01x000"/],
    [LINE.replace('GND', '   '), 'line 1', 'expected a net name in columns 4 to 17; got none.'],
    [LINE.replace('A01', 'B01'), 'line 1', 'expected access A00 to A09 in columns 39 to 41; got "B01".'],
    ['P  UNITS CUST 9', 'line 1', 'expected units CUST 0, 1 or 2; got "9".'],
  ])('a malformed record is named by its line: %j', (text, at, message) => {
    const result = parseIpc356(text);
    expect(result.ok).toBe(false);
    if (result.ok) return;
    expect(result.problems[0].at).toBe(at);
    if (typeof message === 'string') expect(result.problems[0].message).toBe(message);
    else expect(result.problems[0].message).toMatch(message);
  });
});

describe('placement lists', () => {
  test('columns are found by their names, lengths by their unit', () => {
    const result = parsePlacementCsv(
      'Designator,Comment,Mid X,Mid Y,Rotation,Layer\nC14,1 uF,12.5mm,100mil,90,Top\nU4,controller,1in,2.5,0,Bottom\n',
    );
    expect(result.ok && result.value).toEqual([
      { ref: 'C14', xMm: 12.5, yMm: expect.closeTo(2.54, 9), rotationDeg: 90, side: 'front', what: '1 uF' },
      { ref: 'U4', xMm: 25.4, yMm: 2.5, rotationDeg: 0, side: 'back', what: 'controller' },
    ]);
  });

  test('a list in mils says so in its header', () => {
    const result = parsePlacementCsv('Ref;X (mil);Y (mil);Side\nR1;1000;500;B\n');
    expect(result.ok && result.value[0]).toMatchObject({
      xMm: expect.closeTo(25.4, 9),
      yMm: expect.closeTo(12.7, 9),
      side: 'back',
    });
  });

  test('faulty rows are named by line, a missing header is told', () => {
    const faulty = parsePlacementCsv('Ref,X,Y\nC1,1,2\nC2,one,2\n');
    expect(!faulty.ok && faulty.problems).toEqual([
      { at: 'line 3', message: 'expected a reference and lengths; got "C2, one, 2".' },
    ]);
    const none = parsePlacementCsv('a,b\n1,2\n');
    expect(!none.ok && none.problems[0].message).toBe(
      'Expected a header with the columns reference, X and Y; got none.',
    );
  });

  test('what it says of a part goes into the draft', () => {
    const records = recordsOf(demoBoard('heronlog-4-c'));
    const [{ xMm, yMm }] = records.filter((r) => r.ref === 'C14');
    const { board } = draftBoard('d', records, [
      { ref: 'C14', xMm, yMm, rotationDeg: 0, side: 'back', what: 'bypass' },
    ]);
    const part = (board.parts as { ref: string; what: string; side: string }[]).find((p) => p.ref === 'C14');
    expect(part).toMatchObject({ what: 'bypass', side: 'back' });
  });

  test('a resistor’s value is taken from it; those without one are asked for', () => {
    const records = recordsOf(demoBoard('heronlog-4-c'));
    const { board, missing } = draftBoard('d', records, [
      { ref: 'R1', xMm: 1, yMm: 1, rotationDeg: 0, side: 'front', what: '4k7' },
    ]);
    const r1 = (board.parts as { ref: string; ohm?: number }[]).find((p) => p.ref === 'R1');
    expect(r1!.ohm).toBe(4700);
    expect(missing.find((m) => m.startsWith('Give these resistors'))).not.toContain('R1,');
  });
});
