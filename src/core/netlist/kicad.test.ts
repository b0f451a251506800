import { kicadText } from './tests/kicad-text';
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { padsOf, parseBoard, type Board } from '../board';
import { draftBoard } from './draft';
import { infer } from './infer';
import { parseKicad } from './kicad';
import type { ForeignBoard } from './foreign';

function read(text: string): ForeignBoard {
  const parsed = parseKicad(text);
  if (!parsed.ok) throw new Error(parsed.problems[0].message);
  return parsed.value;
}

describe.each(DEMO_BOARDS)('%s, written in the text form of a general EDA suite', (id) => {
  const board = demoBoard(id);

  test.each([5, 6, 8] as const)(
    'of version %d: every pad within a hundredth of a millimetre, every net equal',
    (version) => {
      const foreign = read(kicadText(board, version));
      expect(foreign.copperLayers).toBe(board.layers.length);
      expect(foreign.thicknessMm).toBe(board.thicknessMm);
      expect(foreign.outlineMm?.length).toBe(board.outlineMm.length);
      const made = draftBoard('again', foreign, infer(foreign)).board as unknown as Board;
      for (const part of board.parts) {
        const again = made.parts.find((p) => p.ref === part.ref)!;
        expect([again.side, again.pins]).toEqual([part.side, part.pins]);
        const pads = padsOf(made, again);
        padsOf(board, part).forEach((pad, i) => {
          expect(pads[i].pin).toBe(pad.pin);
          // The outline begins at the origin in both.
          expect(Math.hypot(pads[i].xMm - pad.xMm, pads[i].yMm - pad.yMm)).toBeLessThan(0.01);
        });
      }
    },
  );
});

/** A footprint by hand: turned by 90° counter-clockwise, the pad at x = 1 lies 1 mm above the middle, y counting down. */
const HAND = `(kicad_pcb (version 20240108)
  (general (thickness 1.2))
  (layers (0 "F.Cu" signal) (2 "B.Cu" signal) (25 "Edge.Cuts" user))
  (footprint "lib:R" (layer "F.Cu") (at 10 20 90)
    (property "Reference" "R9_DNP") (property "Value" "DNP")
    (pad "1" smd roundrect (at 1 0 90) (size 0.5 0.8) (layers "F.Cu" "F.Mask") (net 1 "/usb.port/Vbus"))
    (pad "2" smd roundrect (at -1 0 90) (size 0.5 0.8) (layers "F.Cu") (net 2 "unconnected-(R9-Pad2)"))
    (pad "" np_thru_hole circle (at 0 0) (size 1 1) (drill 1) (layers "*.Cu" "*.Mask")))
  (gr_rect (start 0 0) (end 30 40) (layer "Edge.Cuts")))`;

test('a footprint turns counter-clockwise, its pads with it; pins that lead nowhere have no net', () => {
  const [part] = read(HAND).parts;
  expect(part).toMatchObject({ ref: 'R9_DNP', value: 'DNP', rotationDeg: 270, side: 'front' });
  const [one, two, hole] = part.pads;
  expect(one).toMatchObject({ pin: '1', net: '/usb.port/Vbus', wMm: 0.8, hMm: 0.5 });
  expect([one.xMm, one.yMm]).toEqual([expect.closeTo(10, 9), expect.closeTo(19, 9)]);
  expect(two.net).toBeUndefined();
  expect(hole).toMatchObject({ pin: '', holeMm: 1, side: 'both' });
});

test('edges of lines and arcs in any order close into one outline; a corner of an arc lies on its circle', () => {
  const arc = '(gr_arc (start 10 0) (mid 12.929 1.213) (end 14.142 4.142) (layer "Edge.Cuts"))';
  const lines = [
    [14.142, 4.142, 14.142, 20],
    [0, 20, 14.142, 20],
    [0, 0, 10, 0],
    [0, 20, 0, 0],
  ].map(([a, b, c, d]) => `(gr_line (start ${a} ${b}) (end ${c} ${d}) (layer "Edge.Cuts"))`);
  const { outlineMm } = read(HAND.replace(/\(gr_rect.*/, `${lines.join('\n')}\n${arc})`));
  expect(outlineMm!.length).toBeGreaterThan(12);
  const onArc = outlineMm!.filter(([x, y]) => x > 10.01 && y < 4.13);
  for (const [x, y] of onArc) expect(Math.hypot(x - 10, y - 4.142)).toBeCloseTo(4.142, 2);
});

test('edges that a connector’s footprint brings along close the outline, turned with it', () => {
  // The right side is drawn in a footprint at (30, 20) turned by 90°: its own x runs up, its own y to the right.
  const lines = [
    [30, 0, 0, 0],
    [0, 0, 0, 40],
    [0, 40, 30, 40],
  ].map(([a, b, c, d]) => `(gr_line (start ${a} ${b}) (end ${c} ${d}) (layer "Edge.Cuts"))`);
  const connector = `(footprint "lib:J" (layer "F.Cu") (at 30 20 90) (property "Reference" "J1")
    (fp_line (start 20 0) (end 5 0) (layer "Edge.Cuts"))
    (fp_poly (pts (xy 5 -2) (xy 6 -2) (xy 6 -3)) (layer "F.SilkS"))
    (fp_curve (pts (xy 5 0) (xy 5 2) (xy -5 2) (xy -5 0)) (layer "Edge.Cuts"))
    (fp_line (start -20 0) (end -5 0) (layer "Edge.Cuts")))`;
  const { outlineMm, notes } = read(HAND.replace(/\(gr_rect.*/, `${lines.join('\n')}\n${connector})`));
  expect(notes).toEqual([]);
  const xs = outlineMm!.map(([x]) => x);
  // A cubic curve with both handles 2 mm out reaches three quarters of that in its middle.
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, expect.closeTo(31.5, 9)]);
  expect(outlineMm).toContainEqual([expect.closeTo(31.5, 9), expect.closeTo(20, 9)]);
});

test('an edge that cannot be read is none, and is said', () => {
  const curve = '(gr_curve (pts (xy 0 0) (xy 1 1)) (layer "Edge.Cuts"))';
  const { outlineMm, notes } = read(
    HAND.replace(/\(gr_rect.*/, `${curve} (gr_rect (start 0 x) (end 1 1) (layer "Edge.Cuts")))`),
  );
  expect(outlineMm).toBeUndefined();
  expect(notes).toEqual(['The edge of the board is not closed: a box round the pads is taken.']);
});

test('openings of paste and mask are no pads, a hole in all copper is; a place left empty says so', () => {
  const more = `(pad "" smd roundrect (at 0 0) (size 0.3 0.3) (layers "F.Paste"))
    (pad "3" smd rect (at 0 1) (size 0.3 0.3) (layers "F&B.Cu" "F.Mask"))`;
  const [part] = read(HAND.replace('(pad "1"', `(attr smd exclude_from_bom dnp) ${more} (pad "1"`)).parts;
  expect(part.pads.map((p) => [p.pin, p.side])).toEqual([
    ['3', 'both'],
    ['1', 'front'],
    ['2', 'front'],
    ['', 'both'],
  ]);
  expect(read(HAND.replace('"DNP"', '"10k"').replace('(pad "1"', '(attr smd dnp) (pad "1"')).parts[0].value).toBe(
    '10k DNP',
  );
  expect(read(HAND.replace('"DNP"', '"10k"').replace('(pad "1"', '(attr smd) (pad "1"')).parts[0].value).toBe('10k');
});

test.each([
  ['', /^Expected a board/],
  ['(kicad_pcb', /^Expected a board as one expression in brackets/],
  ['(something else)', /^Expected a board that begins with \(kicad_pcb/],
  ['(kicad_pcb (version 4))', /^Expected a board of version 20171114 or newer; got "4"/],
  ['(kicad_pcb (version 20211014))', /^Expected footprints with designators; got none/],
  [HAND.replace('(at 10 20 90)', '(at east 20 90)'), /^Expected a place of three figures for R9_DNP/],
])('what is none gets a sentence: %j', (text, message) => {
  const parsed = parseKicad(text);
  expect(parsed.ok ? '' : parsed.problems[0].message).toMatch(message);
});

test('a board of version 1 is read as one of version 2, odd names and all in the new one', () => {
  const heron = demoBoard('heronlog-4-c');
  expect(parseBoard({ ...heron, format: 'unisolda-board/1' }).ok).toBe(true);
  const renamed = JSON.parse(
    JSON.stringify(heron).replaceAll('"VBUS_F"', '"/usb.port/Vbus_f+"').replaceAll('"U4"', '"U_PD1"'),
  );
  expect(parseBoard(renamed)).toMatchObject({ ok: true });
});
