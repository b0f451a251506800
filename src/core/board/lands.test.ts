import { demoBoard } from '../../../demo/files';
import {
  bodyBox,
  findPlace,
  groundNet,
  handiestPlace,
  landsOf,
  outlineBox,
  padsOf,
  partByRef,
  portPin,
  railOfNet,
  toBoard,
  type Part,
  type PartPackage,
} from '.';

const body = { bodyMm: [4, 3] as [number, number], heightMm: 1, plastic: false };
const pkg = (lands: PartPackage['lands']): PartPackage => ({ ...body, lands });
const board = demoBoard('heronlog-4-c');

describe('pads of each kind of package', () => {
  test('two pads along x, pin 1 left', () => {
    expect(
      landsOf(pkg({ kind: 'two', pitchMm: 1, padMm: [0.5, 0.6] })).map((p) => [p.pin, p.xMm, p.wMm, p.hMm]),
    ).toEqual([
      ['1', -0.5, 0.5, 0.6],
      ['2', 0.5, 0.5, 0.6],
    ]);
  });

  test('two sides: down the left, up the right, then the centre', () => {
    const pads = landsOf(
      pkg({ kind: 'dual', pins: 8, pitchMm: 0.5, padMm: [0.6, 0.25], spanMm: 2.8, centreMm: [1, 1.6] }),
    );
    expect(pads.map((p) => p.pin)).toEqual(['1', '2', '3', '4', '5', '6', '7', '8', 'EP']);
    expect(pads[0]).toMatchObject({ xMm: -1.4, yMm: -0.75 });
    expect(pads[3]).toMatchObject({ xMm: -1.4, yMm: 0.75 });
    expect(pads[4]).toMatchObject({ xMm: 1.4, yMm: 0.75 });
    expect(pads[7]).toMatchObject({ xMm: 1.4, yMm: -0.75 });
  });

  test('balls on a grid, A1 at the top left, row letters without I, O, Q, S, X and Z', () => {
    const pads = landsOf(pkg({ kind: 'array', columns: 3, rows: 10, pitchMm: 0.4, padMm: 0.22, ballMm: 0.25 }));
    expect(pads[0]).toMatchObject({ pin: 'A1', round: true });
    expect(pads[0].xMm).toBeCloseTo(-0.4, 9);
    expect(pads[0].yMm).toBeCloseTo(-1.8, 9);
    expect([...new Set(pads.map((p) => p.pin[0]))].join('')).toBe('ABCDEFGHJK');
  });

  test('pads by hand stay as they are', () => {
    const pads = [{ pin: 'S1', xMm: 1, yMm: 2, wMm: 0.3, hMm: 0.4 }];
    expect(landsOf(pkg({ kind: 'list', pads }))).toEqual([{ ...pads[0], round: false }]);
  });

  test('no two pads of any package of the demo boards overlap', () => {
    for (const [name, p] of Object.entries(board.packages)) {
      const pads = landsOf(p);
      const overlaps = pads.flatMap((a, i) =>
        pads
          .slice(i + 1)
          .filter(
            (b) =>
              Math.abs(a.xMm - b.xMm) < (a.wMm + b.wMm) / 2 - 1e-9 &&
              Math.abs(a.yMm - b.yMm) < (a.hMm + b.hMm) / 2 - 1e-9,
          ),
      );
      expect([name, overlaps.length]).toEqual([name, 0]);
    }
  });
});

describe('where things lie', () => {
  const part = (more: Partial<Part>): Part => ({ ...partByRef(board, 'U4')!, ...more });

  test('a quarter turn clockwise on a board with y down takes x to y', () => {
    const turned = toBoard(part({ xMm: 10, yMm: 20, rotationDeg: 90 }), 1, 0);
    expect(turned.xMm).toBeCloseTo(10, 9);
    expect(turned.yMm).toBeCloseTo(21, 9);
  });

  test('a part on the back is mirrored in x', () => {
    expect(toBoard(part({ xMm: 10, yMm: 20, rotationDeg: 0, side: 'back' }), 1, 2)).toEqual({ xMm: 9, yMm: 22 });
  });

  test('the body’s box swaps its sides with a quarter turn', () => {
    const upright = bodyBox(board, { ...partByRef(board, 'C4')!, rotationDeg: 0 });
    const turned = bodyBox(board, { ...partByRef(board, 'C4')!, rotationDeg: 90 });
    expect(upright.x1 - upright.x0).toBeCloseTo(turned.y1 - turned.y0, 9);
    expect(upright.y1 - upright.y0).toBeCloseTo(turned.x1 - turned.x0, 9);
  });

  test('every pad lies within the outline’s bounds, connectors at the edge aside', () => {
    const box = outlineBox(board);
    for (const p of board.parts.filter((x) => x.kind !== 'connector')) {
      for (const pad of padsOf(board, p)) {
        expect(pad.xMm).toBeGreaterThan(box.x0);
        expect(pad.xMm).toBeLessThan(box.x1);
        expect(pad.yMm).toBeGreaterThan(box.y0);
        expect(pad.yMm).toBeLessThan(box.y1);
      }
    }
  });
});

describe('what a name means', () => {
  test.each([
    ['tp7', 'TP7', 'AON33'],
    ['C14', 'C14', 'AON33'],
    ['u4.ep', 'U4.EP', 'GND'],
    ['vsys', 'TP3', 'VSYS'],
    ['c7', 'C7', 'BST1'],
    ['nothing', undefined, undefined],
    ['U4.99', undefined, undefined],
  ])('%p', (text, name, net) => {
    const place = findPlace(board, text);
    expect([place?.name, place?.net]).toEqual([name, net]);
  });

  test('a capacitor is probed at the pad that is not ground', () => {
    for (const p of board.parts.filter((x) => x.kind === 'capacitor'))
      expect(findPlace(board, p.ref)!.net).not.toBe(groundNet(board));
  });

  test('a net is probed at a test point where it has one, else at a capacitor, nearest to the last place', () => {
    expect(handiestPlace(board, 'AON33')!.name).toBe('TP7');
    const far = handiestPlace(board, 'SCL', { xMm: 30, yMm: 20 })!;
    expect(far.net).toBe('SCL');
    expect(handiestPlace(board, 'GND')!.name).toBe('TP14');
  });

  test('diode mode is read at the port’s own pin', () => {
    expect(portPin(board, 'CC1')!.name).toMatch(/^J1\./);
    expect(portPin(board, 'VSYS')).toBeUndefined();
    expect(railOfNet(board, 'AON33')!.id).toBe('AON33');
    expect(railOfNet(board, 'CC1')).toBeUndefined();
  });
});
