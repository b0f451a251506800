import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { problemText } from '../result';
import { bodyBox, findPlace, landsOf, padsOf, parseBoard, parseBoardText, partByRef } from '.';

describe.each(DEMO_BOARDS)('the demo board %s', (id) => {
  const board = demoBoard(id);

  test('has real geometry, rails with sources, functions and limits for 60 parts or more', () => {
    expect(board.parts.length).toBeGreaterThanOrEqual(60);
    expect(board.rails.every((r) => r.feeds.length > 0)).toBe(true);
    expect(board.functions.length).toBeGreaterThan(3);
    expect(board.parts.some((p) => p.jointLimitC !== undefined)).toBe(true);
    expect(board.parts.some((p) => p.side === 'back') || id !== 'heronlog-4-c').toBe(true);
  });

  test('no two bodies of one side overlap', () => {
    const overlaps: string[] = [];
    board.parts.forEach((a, i) =>
      board.parts.slice(i + 1).forEach((b) => {
        if (a.side !== b.side) return;
        const [p, q] = [bodyBox(board, a), bodyBox(board, b)];
        if (p.x0 < q.x1 && q.x0 < p.x1 && p.y0 < q.y1 && q.y0 < p.y1) overlaps.push(`${a.ref} ${b.ref}`);
      }),
    );
    expect(overlaps).toEqual([]);
  });

  test('every point can be found by name, whatever the case', () => {
    for (const point of board.points) expect(findPlace(board, point.id.toLowerCase())?.net).toBe(point.net);
  });
});

test('pins of a quad package run counter-clockwise from the top of the left side', () => {
  const pads = landsOf({
    bodyMm: [4, 4],
    heightMm: 0.8,
    plastic: false,
    lands: { kind: 'quad', pins: 8, pitchMm: 1, padMm: [0.6, 0.3], spanMm: [4, 4], centreMm: [2, 2] },
  });
  expect(pads.map((p) => [p.pin, p.xMm, p.yMm])).toEqual([
    ['1', -2, -0.5],
    ['2', -2, 0.5],
    ['3', -0.5, 2],
    ['4', 0.5, 2],
    ['5', 2, 0.5],
    ['6', 2, -0.5],
    ['7', 0.5, -2],
    ['8', -0.5, -2],
    ['EP', 0, 0],
  ]);
});

test('a quarter turn swaps the pads’ sides and keeps them under the body', () => {
  const board = demoBoard('heronlog-4-c');
  const turned = padsOf(board, { ...partByRef(board, 'C14')!, rotationDeg: 90 });
  expect(turned[0].xMm).toBeCloseTo(partByRef(board, 'C14')!.xMm, 9);
  expect(turned[0].hMm).toBeGreaterThanOrEqual(turned[0].wMm - 0.3);
});

describe('malformed board files', () => {
  const good = JSON.parse(JSON.stringify(demoBoard('heronlog-4-c')));
  const problemOf = (change: (b: typeof good) => void): string => {
    const copy = JSON.parse(JSON.stringify(good));
    change(copy);
    const parsed = parseBoard(copy);
    return parsed.ok ? '' : problemText(parsed.problems);
  };

  test('text that is not JSON', () => {
    const parsed = parseBoardText('parts: none');
    expect(parsed.ok ? '' : parsed.problems[0].message).toMatch(
      /^Expected a board file in JSON; got text that is not JSON/,
    );
  });

  test.each<[string, (b: typeof good) => void, RegExp]>([
    ['a part without a place', (b) => delete b.parts[3].xMm, /parts\[3\]\.xMm: .*expected number/],
    ['a designator used twice', (b) => (b.parts[1].ref = b.parts[0].ref), /parts J1: This designator is used twice/],
    ['a pin that the package lacks', (b) => (b.parts[1].pins['9'] = 'GND'), /Pin 9 is not on package/],
    ['a net that is not listed', (b) => (b.parts[1].pins['1'] = 'NOWHERE'), /on net NOWHERE, which is not listed/],
    ['a part off the board', (b) => (b.parts[5].xMm = 99), /outside the outline/],
    ['a rail before its source', (b) => b.rails.reverse(), /must be listed before it/],
    ['two grounds', (b) => (b.nets.VBUS.role = 'ground'), /exactly one net with the role ground; got 2/],
    [
      'a function of a part that is not there',
      (b) => b.functions[0].parts.push('U77'),
      /names U77, which is not among the parts/,
    ],
  ])('%s', (_, change, words) => {
    expect(problemOf(change)).toMatch(words);
  });
});
