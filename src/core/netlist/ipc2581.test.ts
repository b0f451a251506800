import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { padsOf, type Board } from '../board';
import { draftBoard } from './draft';
import type { ForeignBoard } from './foreign';
import { infer } from './infer';
import { MIRRORINGS, parseIpc2581, type Mirroring, type Settled2581 } from './ipc2581';
import { ipc2581Text, type Style2581 } from './tests/ipc2581-text';

const PLAIN: Style2581 = { units: 'MILLIMETER', mirroring: 'mirroredThenTurned', copper: true, shapes: 'inPlace' };

function read(text: string, settled?: Settled2581) {
  const parsed = parseIpc2581(text, settled);
  if (!parsed.ok) throw new Error(parsed.problems[0].message);
  return parsed.value;
}

/** Every pad within a hundredth of a millimetre, every net, side and size equal. */
function expectSame(board: Board, foreign: ForeignBoard): void {
  expect(foreign.copperLayers).toBe(board.layers.length);
  expect(foreign.thicknessMm).toBeCloseTo(board.thicknessMm, 5);
  expect(foreign.outlineMm?.length).toBe(board.outlineMm.length);
  const made = draftBoard('again', foreign, infer(foreign)).board as unknown as Board;
  for (const part of board.parts) {
    const again = made.parts.find((p) => p.ref === part.ref)!;
    expect([again.side, again.pins, again.ohm]).toEqual([part.side, part.pins, part.ohm]);
    const pads = padsOf(made, again);
    padsOf(board, part).forEach((pad, i) => {
      expect(pads[i].pin).toBe(pad.pin);
      expect(Math.hypot(pads[i].xMm - pad.xMm, pads[i].yMm - pad.yMm)).toBeLessThan(0.01);
      expect([pads[i].wMm, pads[i].hMm]).toEqual([expect.closeTo(pad.wMm, 3), expect.closeTo(pad.hMm, 3)]);
    });
  }
}

describe.each(DEMO_BOARDS)('%s, written as IPC-2581', (id) => {
  const board = demoBoard(id);

  test.each([
    ...MIRRORINGS.map((mirroring) => ({ ...PLAIN, mirroring })),
    { ...PLAIN, units: 'INCH' as const, shapes: 'dictionary' as const },
    { ...PLAIN, units: 'MICRON' as const, shapes: 'padstack' as const, prefix: 'ipc:' },
  ])('copper that names its pins settles everything: %j', (style) => {
    const { board: foreign, mirroringOpen } = read(ipc2581Text(board, style));
    expect(mirroringOpen).toEqual([]);
    expectSame(board, foreign);
  });

  test.each(MIRRORINGS)('without such copper the back is asked, and "%s" gives the board', (mirroring) => {
    const text = ipc2581Text(board, { ...PLAIN, mirroring, copper: false });
    const hasBack = board.parts.some((p) => p.side === 'back');
    expect(read(text).mirroringOpen.length > 0).toBe(hasBack);
    const { board: foreign, mirroringOpen } = read(text, { mirroring });
    expect(mirroringOpen).toEqual([]);
    expectSame(board, foreign);
  });
});

/** One chip on the back, turned by a quarter; two of its four pins named by the copper. */
const back = (padsOfCopper: string, layer = 'BOT'): string => `<?xml version="1.0"?>
<IPC-2581 revision="B"><Ecad><CadHeader units="MILLIMETER"/><CadData>
<Layer name="TOP" layerFunction="CONDUCTOR" side="TOP"/><Layer name="BOT" layerFunction="CONDUCTOR" side="BOTTOM"/>
<Layer name="MASK" layerFunction="SOLDERMASK" side="TOP"/>
<Step name="one"><Profile><Polygon><PolyBegin x="0" y="0"/><PolyStepSegment x="20" y="0"/>
<PolyStepCurve x="20" y="10" centerX="20" centerY="5" clockwise="false"/><PolyStepSegment x="0" y="10"/><PolyStepSegment x="0" y="0"/></Polygon></Profile>
<Package name="Q"><Outline><Polygon><PolyBegin x="-9" y="-9"/></Polygon></Outline>
${[
  [1, -1, 0.5],
  [2, -1, -0.5],
  [3, 1, -0.5],
  [4, 1, 0.5],
]
  .map(
    ([pin, x, y]) => `<Pin number="${pin}" type="SURFACE"><Location x="${x}" y="${y}"/><Circle diameter="0.3"/></Pin>`,
  )
  .join('')}</Package>
<Component refDes="U1" packageRef="Q" part="chip" layerRef="${layer}"><Xform rotation="90" mirror="true"/><Location x="5" y="5"/></Component>
<LogicalNet name="/usb.port/D+"><PinRef componentRef="U1" pin="1"/></LogicalNet>
<LayerFeature layerRef="BOT"><Set net="GND">${padsOfCopper}</Set></LayerFeature>
</Step></CadData></Ecad></IPC-2581>`;
const pad = (pin: number, x: number, y: number): string =>
  `<Pad padstackDefRef="x"><Location x="${x}" y="${y}"/><PinRef componentRef="U1" pin="${pin}"/></Pad>`;

describe('a chip on the back', () => {
  // Pin 1 of the package at (-1, 0.5): mirrored (1, 0.5), turned by a quarter (-0.5, 1); turned first (-0.5, -1), mirrored (0.5, -1).
  test.each<[Mirroring, number, number]>([
    ['mirroredThenTurned', 4.5, 6],
    ['turnedThenMirrored', 5.5, 4],
    ['notMirrored', 4.5, 4],
  ])('by hand, %s: pin 1 lies at %d, %d from below', (mirroring, x, y) => {
    const [part] = read(back(''), { mirroring }).board.parts;
    expect(part.pads[0]).toMatchObject({ pin: '1', net: '/usb.port/D+', side: 'back' });
    expect([part.pads[0].xMm, part.pads[0].yMm]).toEqual([expect.closeTo(x), expect.closeTo(-y)]);
  });

  test('one pad of the copper shows how the others are meant; its net is taken from there too', () => {
    // A pad where no way puts it shows nothing.
    const { board, mirroringOpen } = read(back(pad(2, 5, 5)));
    expect(mirroringOpen).toEqual(['U1']);
    expect(read(back(pad(2, 4.5, 4))).mirroringOpen).toEqual([]);
    const shown = read(back(pad(2, 5.5, 6)));
    // Pin 2 at (-1, -0.5): mirrored and turned (0.5, 1); the other two ways lead elsewhere.
    expect(shown.mirroringOpen).toEqual([]);
    const [one, two] = shown.board.parts[0].pads;
    expect([one.xMm, one.yMm]).toEqual([expect.closeTo(4.5), expect.closeTo(-6)]);
    expect(two).toMatchObject({ net: 'GND', xMm: 5.5, yMm: -6 });
    expect(board.parts[0].pads[1]).toMatchObject({ xMm: 5, yMm: -5 });
  });

  test('an outline with a half turn lies on its circle; copper layers are counted, masks are not', () => {
    const { board } = read(back(''));
    expect(board.copperLayers).toBe(2);
    const arc = board.outlineMm!.filter(([x]) => x > 20.001);
    expect(arc.length).toBeGreaterThan(15);
    for (const [x, y] of arc) expect(Math.hypot(x - 20, y + 5)).toBeCloseTo(5, 6);
  });
});

test('the value and what is left off come from the bill', () => {
  const bill = `<Bom><BomItem OEMDesignNumberRef="x"><RefDes name="U1" populate="false"/>
    <Characteristics><Measured measuredCharacteristicName="VALUE" measuredCharacteristicValue="10" engineeringUnitOfMeasure="K"/></Characteristics></BomItem></Bom>`;
  const { board } = read(back('').replace('<Ecad>', `${bill}<Ecad>`));
  expect(board.parts[0].value).toBe('10K DNP');
});

test('of several boards in a file one is chosen by its name', () => {
  const two = back('').replace(/(<Step name=")one("[\s\S]*<\/Step>)/, '$1one$2$1two$2');
  expect(read(two).steps).toEqual(['one', 'two']);
  expect(read(two, { step: 'two' }).board.parts).toHaveLength(1);
  expect(parseIpc2581(two, { step: 'three' })).toMatchObject({
    ok: false,
    problems: [{ message: 'Expected one of the boards one, two; got "three".' }],
  });
});

test.each([
  ['<IPC-2581>', /^Expected a document of well-formed XML; .*unclosed/],
  [
    '<IPC-2581><CadHeader units="FURLONG"/></IPC-2581>',
    /^Expected a unit of MILLIMETER, MICRON or INCH; got "FURLONG"/,
  ],
  ['<IPC-2581><CadHeader units="INCH"/></IPC-2581>', /^Expected a board with components; got none/],
  [back('', 'SOMEWHERE'), /^Expected U1 on a layer of the top or the bottom; got "SOMEWHERE"/],
  [back('').replace('packageRef="Q"', 'packageRef="R"'), /^Expected the package of U1 in the file; "R" is not there/],
  [back('').replace('<Location x="5" y="5"/>', ''), /^Expected a place of U1/],
  ['<a>'.repeat(300), /more than 200 deep/],
  ['<!DOCTYPE a [<!ENTITY b "c">]><IPC-2581>&b;</IPC-2581>', /undefined entity/],
])('what cannot be read gets a sentence', (text, message) => {
  const parsed = parseIpc2581(text);
  expect(parsed.ok ? '' : parsed.problems[0].message).toMatch(message);
});
