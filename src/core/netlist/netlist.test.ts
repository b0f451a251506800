import fc from 'fast-check';
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { padsOf, parseBoard, partByRef, type Board } from '../board';
import { draftBoard } from './draft';
import { recordsOf } from './export';
import { foreignFromRecords } from './from-records';
import { infer } from './infer';
import { parseIpc356, writeIpc356, type TestRecord } from './ipc356';
import { fitPlacements, placementsFrom, withPlacements } from './placement';
import { netsOf } from './foreign';
import { valueOf } from './value';

function parsed(text: string): TestRecord[] {
  const result = parseIpc356(text);
  if (!result.ok) throw new Error(result.problems.map((p) => `${p.at}: ${p.message}`).join(' '));
  return [...result.value.records];
}

function draftOf(id: string, records: readonly TestRecord[]) {
  const foreign = foreignFromRecords(records);
  return draftBoard(id, foreign, infer(foreign));
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
    const { board: draft, missing } = draftOf('draft-1', parsed(writeIpc356(records)));
    const parts = draft.parts as { ref: string; pins: Record<string, string>; side: string }[];
    expect(new Set(parts.map((p) => p.ref))).toEqual(new Set(board.parts.map((p) => p.ref)));
    for (const part of parts) {
      const known = board.parts.find((p) => p.ref === part.ref)!;
      expect(part.side).toBe(known.side);
      expect(Object.values(part.pins).sort()).toEqual(Object.values(known.pins).sort());
    }
    expect((draft.points as unknown[]).length).toBe(board.points.length);
    expect(missing.join(' ')).toContain('the port’s design level');
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
    net: fc.constantFrom('GND', 'VBUS', '/usb.port/vin_protected_long', 'Net-(Q1-G)', undefined),
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
        expect([r.net, r.ref, r.side]).toEqual([list[i].net, list[i].ref, list[i].side]);
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

  test('counts are ten thousandths of an inch or micrometres as the file says; where it says nothing it is refused', () => {
    const [inch] = parsed(`C  made by hand\nP  JOB    TEST\nP  UNITS CUST 0\n${LINE}\n999\n`);
    expect(inch.xMm).toBeCloseTo(1.2 * 25.4, 6);
    expect(inch.wMm).toBeCloseTo(0.03 * 25.4, 6);
    const bare = parseIpc356(`${LINE}\n`);
    expect(!bare.ok && bare.problems[0].message).toMatch(/^Expected a line of units/);
    const given = parseIpc356(`${LINE}\n`, 'mm/1000');
    expect(given.ok && given.value.records[0].xMm).toBeCloseTo(12, 9);
    expect(parsed(`P  UNITS CUST 1\n${LINE}\n`)[0].xMm).toBeCloseTo(12, 9);
  });

  test('comments, continuation records and other kinds of record are passed over', () => {
    expect(
      parsed(`P  UNITS CUST 0\nC comment\n027 more\n367N/C              HOLE\n${LINE}\n999\nrubbish after the end\n`),
    ).toHaveLength(1);
  });

  test.each([
    ['', undefined, 'Expected test records (317 or 327) of an IPC-D-356 file; got none.'],
    ['hello there', 'line 1', 'expected a record of IPC-D-356; got "hello there".'],
    [`${LINE}\n${LINE.replace('X+012000', 'X+01x000')}`, 'line 2', /^expected coordinates X .* got "\+01x000"/],
    [LINE.replace('GND', '   '), 'line 1', 'expected a net name in columns 4 to 17; got none.'],
    [LINE.replace('A01', 'B01'), 'line 1', 'expected access A00 to A99 in columns 39 to 41; got "B01".'],
    ['P  UNITS CUST 9', undefined, 'Expected units CUST 0, 1 or 2, or SI; got "CUST 9".'],
  ])('a malformed record is named by its line: %j', (text, at, message) => {
    const result = parseIpc356(text, 'inch/10000');
    expect(result.ok).toBe(false);
    if (result.ok) return;
    expect(result.problems[0].at).toBe(at);
    if (typeof message === 'string') expect(result.problems[0].message).toBe(message);
    else expect(result.problems[0].message).toMatch(message);
  });
});

describe('placement lists', () => {
  const cells = (text: string): string[][] =>
    text
      .trim()
      .split('\n')
      .map((line) => line.split(/[,;]/));

  test('columns are found by their names, lengths by their unit', () => {
    const result = placementsFrom(
      cells(
        'Designator,Comment,Mid X,Mid Y,Rotation,Layer\nC14,1 uF,12.5mm,100mil,90,Top\nU4,controller,1in,2.5,0,Bottom',
      ),
    );
    expect(result.ok && result.value).toMatchObject({
      unitMm: 1,
      placements: [
        { ref: 'C14', x: 12.5, y: expect.closeTo(2.54, 9), rotationDeg: 90, side: 'front', what: '1 uF' },
        { ref: 'U4', x: 25.4, y: 2.5, rotationDeg: 0, side: 'back', what: 'controller' },
      ],
    });
  });

  test('a list in mils says so in its header', () => {
    const result = placementsFrom(cells('Ref;X (mil);Y (mil);Side\nR1;1000;500;B'));
    expect(result.ok && result.value).toMatchObject({
      unitMm: 0.0254,
      placements: [{ x: 1000, y: 500, side: 'back' }],
    });
  });

  test('faulty rows are named by line, a missing header is told', () => {
    const faulty = placementsFrom(cells('Ref,X,Y\nC1,1,2\nC2,one,2'));
    expect(!faulty.ok && faulty.problems).toEqual([
      { at: 'line 3', message: 'expected a reference, two lengths and an angle; got "C2, one, 2".' },
    ]);
    const none = placementsFrom(cells('a,b\n1,2'));
    expect(!none.ok && none.problems[0].message).toBe(
      'Expected a header with the columns reference, X and Y; got none.',
    );
  });

  const board = demoBoard('heronlog-4-c');
  const foreign = foreignFromRecords(recordsOf(board));
  /** The board's own places in another unit and from another origin, y up. */
  const listOf = (scaleMm: number, mirrored: boolean) => ({
    placements: board.parts.map((p) => ({
      ref: p.ref,
      x: ((mirrored && p.side === 'back' ? -1 : 1) * (p.xMm - 7)) / scaleMm,
      y: -(p.yMm - 3) / scaleMm,
      rotationDeg: p.side === 'back' ? p.rotationDeg : -p.rotationDeg,
      side: p.side,
      what: p.ohm === undefined ? p.what : `${p.ohm}R`,
      footprint: '',
    })),
  });

  test.each([
    ['millimetres', 1],
    ['mils', 0.0254],
    ['inches', 25.4],
  ])('scale and origin are found by laying the list over the pads: %s', (_, scaleMm) => {
    const fit = fitPlacements(foreign, listOf(scaleMm, false));
    expect(fit.ok && fit.value).toMatchObject({
      scaleMm,
      xMm: expect.closeTo(7, 1),
      yMm: expect.closeTo(3, 1),
      matched: board.parts.length,
    });
  });

  test('a list of another board fits nowhere and is refused', () => {
    const list = listOf(1, false);
    const shuffled = list.placements.map((p, i) => ({
      ...p,
      ref: list.placements[(i + 17) % list.placements.length].ref,
    }));
    const fit = fitPlacements(foreign, { placements: shuffled });
    expect(!fit.ok && fit.problems[0].message).toMatch(/^Expected the list’s places on the netlist’s pads/);
  });

  test('every pad stays where the netlist has it, turned and back-side parts included, and values come from the list', () => {
    const list = listOf(1, false);
    const fit = fitPlacements(foreign, list);
    if (!fit.ok) throw new Error('expected a fit');
    const placed = withPlacements(foreign, list, fit.value);
    const made = draftBoard('d', placed, infer(placed)).board as unknown as Board;
    const [dx, dy] = offsetOf(made, board);
    let worst = 0;
    for (const part of board.parts) {
      const again = made.parts.find((p) => p.ref === part.ref)!;
      if (part.ohm !== undefined) expect(again.ohm).toBeCloseTo(part.ohm, 6);
      const pads = padsOf(made, again);
      for (const pad of padsOf(board, part)) {
        const near = Math.min(
          ...pads.filter((p) => p.pin === pad.pin).map((p) => Math.hypot(p.xMm + dx - pad.xMm, p.yMm + dy - pad.yMm)),
        );
        worst = Math.max(worst, near);
      }
    }
    expect(worst).toBeLessThan(0.01);
  });
});

/** How far a draft is moved against its board: pads of one part tell. */
function offsetOf(made: Board, board: Board): [number, number] {
  const [a] = padsOf(
    made,
    made.parts.find((p) => p.ref === 'U4')!,
  );
  const b = padsOf(board, partByRef(board, 'U4')!).find((p) => p.pin === a.pin)!;
  return [b.xMm - a.xMm, b.yMm - a.yMm];
}

describe('names are kept as they stand', () => {
  const line = (net: string, ref: string, pin: string, x: number): string =>
    `327${net.padEnd(17)}${ref.padEnd(6)}-${pin.padEnd(4)}       A01X+${String(x).padStart(6, '0')}Y+001000X0200Y0200R000S2`;

  test('no two nets are merged, and ground is the plain one', () => {
    const nets = ['-5V', '5V', 'A.B', 'A/B', 'AGND', 'GND', 'gnd2', 'USB_D+', 'USB_D-'];
    const text = `P  UNITS CUST 0\n${nets.map((net, i) => line(net, `C${i}`, '1', 1000 * i)).join('\n')}\n999\n`;
    const foreign = foreignFromRecords(parsed(text));
    expect([...netsOf(foreign).keys()]).toEqual(nets);
    expect(infer(foreign).ground).toBe('GND');
  });

  test('N/C is no net, and long names stand under an alias', () => {
    const text = `P  UNITS CUST 1\nP  NNAME1  /sheet.one/a_long_net_name\n${line('NNAME1', 'U1', '1', 0)}\n${line('N/C', 'U1', '2', 500)}\n`;
    expect(parsed(text).map((r) => r.net)).toEqual(['/sheet.one/a_long_net_name', undefined]);
  });
});

describe('what the demo boards are made of is inferred from their pads and nets alone', () => {
  test.each(DEMO_BOARDS)('%s', (id) => {
    const board = demoBoard(id);
    const found = infer(foreignFromRecords(recordsOf(board)));
    expect(found.ground).toBe('GND');
    expect(found.ports.map((p) => [p.connector, p.controller, p.flash, p.cc1, p.cc2])).toEqual(
      board.ports.map((p) => [p.id, p.controller, p.imagePart, p.sides[0].ccNet, p.sides[1].ccNet]),
    );
    const rails = new Set(found.rails.map((r) => r.net));
    expect(board.rails.filter((r) => !rails.has(r.net)).map((r) => r.net)).toEqual([]);
    expect(found.rails.filter((r) => !board.rails.some((b) => b.net === r.net)).map((r) => r.net)).toEqual([]);
  });
});

test.each([
  ['4R7', 4.7],
  ['R010', 0.01],
  ['10K 1%', 10_000],
  ['49R9', 49.9],
  ['0R', 0],
  ['4k7', 4700],
  ['4.7k', 4700],
  ['100kΩ', 100_000],
  ['1M', 1e6],
  ['2u2', 2.2e-6],
  ['100n', 1e-7],
  ['10uF/16V', 1e-5],
  ['4,7k', 4700],
  ['DNP', undefined],
  ['Battery', undefined],
])('the value of %s', (text, value) => {
  const got = valueOf(text);
  if (value === undefined) expect(got).toBeUndefined();
  else expect(got).toBeCloseTo(value, 12);
});
