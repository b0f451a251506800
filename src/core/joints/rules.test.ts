/** The rules of making sites ready, each at its edge: what holds just there, and what no longer does. */
import { demoBoard } from '../../../demo/files';
import { partByRef, type Board, type Part } from '../board';
import { DEFAULT_SITE_PRACTICE, cleaningPlan, type CleaningSite, type SitePractice } from './cleaning';
import { centrePaste } from './centre';
import { LEAST_AREA_RATIO, areaRatio, depositMm3, metalVolumeFraction, transferEfficiency } from './deposit';
import { judgeFlatness } from './flatness';
import { judgeLifted, type LiftedPad } from './lifted';
import { mixSolders, residueMeltingAt, solderByName } from './mixture';
import { judgePadLook } from './pad-look';
import { isBetter, printed, type StencilChoice } from './stencil';

const board = demoBoard('heronlog-4-c');
const solder = (name: string) => solderByName(name)!;

describe('paste by hand', () => {
  test('area ratios of IPC-7525: D over 4T, and LW over 2T(L + W)', () => {
    expect(areaRatio({ round: true, lengthMm: 0.4, widthMm: 0.4 }, 0.1)).toBeCloseTo(1, 12);
    expect(areaRatio({ round: false, lengthMm: 0.6, widthMm: 0.3 }, 0.1)).toBeCloseTo(1, 12);
  });

  test('metal of half the weight is 1/7.38 against 1 of the volume', () => {
    expect(metalVolumeFraction(0.5, 'SAC305')).toBeCloseTo(1 / 7.38 / (1 / 7.38 + 1), 12);
  });

  test('half of the least ratio releases half as much, none releases nothing', () => {
    expect(transferEfficiency(LEAST_AREA_RATIO)).toBe(0.85);
    expect(transferEfficiency(LEAST_AREA_RATIO / 2)).toBeCloseTo(0.425, 12);
    expect(transferEfficiency(0)).toBe(0);
    expect(depositMm3({ round: false, lengthMm: 2, widthMm: 3 }, 0.1, 0.5)).toBeCloseTo(0.3, 12);
  });

  test('a pass more costs two hundredths of the ball; scatter falls with its root', () => {
    const wanted = { ballMm: 0.3, padMm: 0.25, pitchMm: 0.5, alloy: 'SAC305' } as const;
    const [one, four] = [printed(wanted, 0.3, 0.1, 1)!, printed(wanted, 0.3, 0.1, 4)!];
    expect(four.ballMm / one.ballMm).toBeCloseTo(Math.cbrt(4), 9);
    expect(four.ballSdMm / four.ballMm).toBeCloseTo(one.ballSdMm / one.ballMm / 2, 9);
    expect(one.cost).toBeCloseTo(Math.abs(one.ballMm / 0.3 - 1), 12);
    expect(four.cost).toBeCloseTo(Math.abs(four.ballMm / 0.3 - 1) + 0.06, 12);
    // 0.4 mm would be 1.6 pads, the widest overprint; the web is 0.08 mm of foil.
    expect(printed(wanted, 0.4, 0.1, 1)).toBeDefined();
    expect(printed(wanted, 0.41, 0.1, 1)).toBeUndefined();
    expect(printed({ ...wanted, padMm: 0.4 }, 0.42, 0.1, 1)).toBeDefined();
    expect(printed({ ...wanted, padMm: 0.4 }, 0.43, 0.1, 1)).toBeUndefined();
    expect(printed(wanted, 0.264, 0.1, 1)).toBeDefined();
    expect(printed(wanted, 0.263, 0.1, 1)).toBeUndefined();
  });

  test('nearer wins; then fewer passes; then the thinner foil', () => {
    const choice = (cost: number, passes: number, stencilMm: number) => ({ cost, passes, stencilMm }) as StencilChoice;
    expect(isBetter(choice(0.1, 3, 0.15), choice(0.2, 1, 0.08))).toBe(true);
    expect(isBetter(choice(0.2, 1, 0.08), choice(0.1, 3, 0.15))).toBe(false);
    expect(isBetter(choice(0.1, 1, 0.15), choice(0.1, 2, 0.08))).toBe(true);
    expect(isBetter(choice(0.1, 2, 0.08), choice(0.1, 1, 0.15))).toBe(false);
    expect(isBetter(choice(0.1, 1, 0.08), choice(0.1, 1, 0.1))).toBe(true);
    expect(isBetter(choice(0.1, 1, 0.1), choice(0.1, 1, 0.08))).toBe(false);
    expect(isBetter(choice(0.1, 1, 0.1), choice(0.1, 1, 0.1))).toBe(false);
  });

  test('a centre pad is as high as its edge; a wide one is printed in windows', () => {
    const edge = { lengthMm: 0.6, widthMm: 0.3 };
    const paste = centrePaste(edge, [3, 2], 0.1, 'SAC305');
    const phi = metalVolumeFraction(0.885, 'SAC305');
    expect(paste.edgeHeightMm).toBeCloseTo(0.1 * 0.85 * phi, 12);
    // Edge and centre release alike here: 60, 90 and 110 % of the edge's height, never more than 80 % of the pad.
    expect([paste.least, paste.most]).toEqual([expect.closeTo(0.6, 12), 0.8]);
    expect(paste.take).toBeCloseTo(0.7, 12);
    expect(paste.centreHeightMm).toBeCloseTo(0.7 * 0.1 * 0.85 * phi, 12);
    // 3 mm over 1.5 mm over √2 is 1.4: two by two.
    expect(paste.windows).toBe(4);
    expect(paste.windowMm).toBeCloseTo(Math.sqrt((0.7 * 6) / 4), 12);
    expect(centrePaste(edge, [1, 2], 0.1, 'SAC305').windows).toBe(1);
  });
});

describe('cleaning', () => {
  const site: CleaningSite = { pitchMm: 0.5, alloy: 'SAC305', plasticNear: [] };
  const plan = (of: Partial<CleaningSite> = {}, by: Partial<SitePractice> = {}) =>
    cleaningPlan({ ...site, ...of }, { ...DEFAULT_SITE_PRACTICE, ...by });

  test('braid from its pitch on, and the reason says which rule it was', () => {
    expect(plan()[2]).toEqual({
      what: 'Braid with flux and heat, laid on and lifted off hot',
      why: 'Allowed at 0.5 mm pitch. Braid that sticks or cools pulls the pad.',
    });
    expect(plan({ pitchMm: 0.49 })[2].why).toBe('Below 0.5 mm pitch braid pulls pads when it sticks or cools.');
    expect(plan({}, { braid: 'never' })[2].why).toBe('House rule: no braid on pads.');
  });

  test('flux by the school, each with its own danger', () => {
    expect(plan()[0].what).toBe('A thin film of flux on every pad');
    expect(plan()[0].why).toMatch(/^Too little lets pads oxidise/);
    expect(plan({}, { flux: 'generous' })[0].what).toBe('Flux over the whole site');
    expect(plan({}, { flux: 'generous' })[0].why).toMatch(/^Pads stay bright/);
  });

  test('leaded solder lowers what is lead-free, and nothing of what is leaded already', () => {
    expect(plan()[1].why).toBe(
      'Leaded solder lowers the melting range of what is on them. Drag, do not press: a pad is held by glue that heat softens.',
    );
    expect(plan({ alloy: 'Sn63Pb37' })[1].why).toMatch(/^Drag/);
    expect(plan({ plasticNear: ['J1', 'J2'] })[1].why).toContain(
      'J1, J2 near: no more than 300 °C, and never against the plastic.',
    );
  });

  test('four steps; five where a residue was seen', () => {
    expect(plan()).toHaveLength(4);
    expect(plan({ residue: 'Molten at 140 °C.' })).toHaveLength(5);
  });
});

describe('pads without copper', () => {
  const u4 = partByRef(board, 'U4')!;
  const verdict = (pins: string[], on: Board = board) => judgeLifted(on, partByRef(on, 'U4')!, pins);
  const one = (pin: string, on?: Board): LiftedPad => verdict([pin], on).pads[0];
  const wired = (pins: Part['pins'], more: Partial<Board> = {}): Board => ({
    ...board,
    ...more,
    parts: (more.parts ?? board.parts).map((p) => (p.ref === 'U4' ? { ...u4, pins } : p)),
  });

  test('one and several are told in their own grammar', () => {
    const far = wired(
      { ...u4.pins, 8: 'FCS' },
      { points: [], parts: board.parts.map((p) => ({ ...p, side: p.ref === 'U4' ? 'front' : 'back' })) },
    );
    expect(verdict(['8'], far).headline).toBe('Cannot go on: 8 has no other way to the net');
    expect(verdict(['8', '9'], far).headline).toBe('Cannot go on: 8, 9 have no other way to the net');
    expect(verdict(['8', '9'], far).goesOn).toBe(false);
    expect(verdict(['8']).headline).toMatch(/^Goes on with a wire: 8 to /);
    expect(verdict(['8', '9']).headline).toMatch(/^Goes on with 2 wires: 8 to .+, 9 to /);
    expect(verdict(['6']).headline).toBe('Goes on as it is');
  });

  test('a twin carries on by its name; without it the net is on a wire', () => {
    expect(one('6')).toEqual({
      ...{ pin: '6', net: 'AON33', kind: 'doubled' },
      summary: 'AON33 has a second pad, 21: it carries on, with less current to spare.',
    });
    expect(verdict(['6', '21']).pads.map((p) => p.kind)).toEqual(['wire', 'wire']);
  });

  test('half of the ground pads is enough, less is a wire, and none near is the end', () => {
    // Four of ground: 5, 25, 31 and the centre.
    expect(one('5').summary).toBe('Ground, with 3 other ground pads left: it goes on.');
    expect(verdict(['5', '25']).pads.map((p) => p.kind)).toEqual(['ground', 'ground']);
    const three = verdict(['5', '25', '31']).pads;
    expect(three.map((p) => p.kind)).toEqual(['wire', 'wire', 'wire']);
    expect(three[0].summary).toMatch(/^Too few ground joints are left: a short wire to .+\.$/);
    const alone = wired(u4.pins, { points: [], parts: [u4] });
    expect(verdict(['5', '25', '31'], alone).pads[0]).toMatchObject({
      kind: 'vital',
      summary: 'Too few ground joints are left, and no ground near to reach.',
    });
  });

  test('the centre pad carries heat: it goes on hot while others are left, and needs a wire when none is', () => {
    expect(one('EP')).toMatchObject({ kind: 'ground', summary: expect.stringContaining('runs hotter') });
    expect(verdict(['EP', '5', '25', '31']).pads.map((p) => p.kind)).toEqual(['wire', 'wire', 'wire', 'wire']);
  });

  test('what is lost is the rail, else the functions of what hangs on the net, else only the pad', () => {
    const alone = (pin: string, net: string): LiftedPad => one(pin, wired({ [pin]: net, EP: 'GND' }));
    expect(alone('6', 'AON33').summary).toMatch(/^AON33 is the rail AON33\. A wire to /);
    expect(alone('1', 'CC1').summary).toMatch(/^CC1 is needed for charges its pack and .+\. A wire to /);
    const users = board.parts.map((p) => (Object.values(p.pins).includes('CC1') ? { ...p, pins: { ...p.pins } } : p));
    const unused = wired({ 1: 'CC1', EP: 'GND' }, { parts: users, functions: [] });
    expect(one('1', unused).summary).toMatch(/^CC1 is not doubled on this part\. A wire to /);
    const two = one('1', wired({ 1: 'CC1', EP: 'GND' })).summary.split('. A wire')[0];
    expect(two.split(' and ')).toHaveLength(2);
  });

  test('a pin without a net, and a net that goes nowhere, lose nothing', () => {
    expect(one('22')).toEqual({
      ...{ pin: '22', kind: 'noConnect' },
      summary: 'Not connected: nothing is lost but a little hold.',
    });
    expect(one('22', wired({ 22: 'NOWHERE', EP: 'GND' }))).toEqual({
      ...{ pin: '22', net: 'NOWHERE', kind: 'noConnect' },
      summary: 'NOWHERE goes nowhere else: nothing is lost.',
    });
  });

  test('a wire of 25 mm holds, a longer one is not trusted', () => {
    const from = one('8').wireTo!;
    const pad = { x: u4.xMm, y: u4.yMm };
    const at = (awayMm: number): LiftedPad => {
      const probe = one(
        '22',
        wired(
          { 22: 'FAR', EP: 'GND' },
          { points: [{ ...board.points[0], id: 'TPX', net: 'FAR', xMm: pad.x, yMm: pad.y }] },
        ),
      );
      const off = probe.wireTo!.awayMm;
      // Moved along x from where the pad is, found by two distances.
      const further = one(
        '22',
        wired(
          { 22: 'FAR', EP: 'GND' },
          { points: [{ ...board.points[0], id: 'TPX', net: 'FAR', xMm: pad.x + awayMm, yMm: pad.y }] },
        ),
      );
      expect(off).toBeLessThan(5);
      return further;
    };
    expect(from.awayMm).toBeLessThan(25);
    expect(at(20).kind).toBe('wire');
    expect(at(30)).toMatchObject({ kind: 'vital', summary: expect.stringContaining('no place on this side') });
  });
});

describe('mixtures', () => {
  const mix = (...parts: [string, number][]) =>
    mixSolders(parts.map(([name, volumeMm3]) => ({ alloy: solder(name), volumeMm3 })));

  test('a mix along the tin–lead line: 80 % tin melts at 206 °C (a point of the diagram)', () => {
    // 0.63a + 0.965b of tin in weights; a little silver and copper are left out of the pair.
    const { weights, liquidusC, solidusC, isRange } = mix(['Sn63Pb37', 1], ['Sn99.3Cu0.7', 1]);
    const share = weights.Sn! / (weights.Sn! + weights.Pb!);
    // Between the points at 70, 80 and 90 % the line rises by 13 K a tenth.
    expect(liquidusC).toBeCloseTo(206 + 130 * (share - 0.8), 6);
    expect([solidusC, isRange]).toEqual([183, false]);
  });

  test('with a trace of lead no eutectic is left: it begins to melt where it is all molten', () => {
    const trace = mix(['Sn63Pb37', 0.05], ['Sn99.3Cu0.7', 1]);
    expect(trace.weights.Pb!).toBeLessThan(0.026);
    expect(trace.solidusC).toBe(trace.liquidusC);
    expect(trace.liquidusC).toBeGreaterThan(219);
  });

  test('more than a twentieth of other metals is told as a range', () => {
    const range = mix(['Sn63Pb37', 1], ['Sn42Bi58', 1]);
    expect(range).toMatchObject({ isRange: true, solidusC: 138, liquidusC: 183 });
    expect(mix(['Sn62Pb36Ag2', 1], ['Sn63Pb37', 1]).isRange).toBe(false);
  });

  test('nothing of a solder changes nothing; what is left of bismuth and indium is warned of', () => {
    expect(mix(['SAC305', 1], ['Sn42Bi58', 0])).toMatchObject({ warnings: [], solidusC: 217, isRange: false });
    expect(mix(['SAC305', 1], ['Sn42Bi58', 1]).warnings).toEqual([expect.stringMatching(/^Bismuth is left/)]);
    expect(mix(['Sn63Pb37', 1], ['Sn42Bi58', 1]).warnings).toEqual([expect.stringMatching(/^Bismuth with lead/)]);
    expect(mix(['SAC305', 1], ['In52Sn48', 1]).warnings).toEqual([expect.stringMatching(/^Indium is left/)]);
    expect(mix(['SAC305', 1000], ['In52Sn48', 1]).warnings).toEqual([]);
    expect(mix(['SAC305', 1000], ['Sn42Bi58', 1]).warnings).toEqual([]);
  });

  test.each([
    [109, /ternary eutectic/],
    [110, /indium and tin/],
    [129, /indium and tin/],
    [130, /low-melt bismuth/],
    [164, /low-melt bismuth/],
    [165, /leaded solder/],
    [208, /leaded solder/],
  ])('a residue molten at %i °C', (seenC, words) => expect(residueMeltingAt(seenC, 217)).toMatch(words));

  test('what melts within 8 K of the board’s own alloy is that alloy', () => {
    expect(residueMeltingAt(209, 217)).toBeUndefined();
  });
});

describe('flat or not', () => {
  const corners = (heights: number[]) =>
    heights.map((heightMm, i) => ({ xMm: i % 2 === 0 ? -3 : 3, yMm: i < 2 ? -3 : 3, heightMm }));
  const words = (heights: number[], standoffMm = 0.2): string =>
    judgeFlatness(corners(heights), [6, 6], standoffMm)!.summary;

  test.each([
    [[0.2, 0.26, 0.26, 0.32], 'bottom right'],
    [[0.26, 0.2, 0.32, 0.26], 'bottom left'],
    [[0.26, 0.32, 0.2, 0.26], 'top right'],
    [[0.32, 0.26, 0.26, 0.2], 'top left'],
  ])('heights %j: the %s corner is high, by 120 µm', (heights, corner) => {
    expect(words(heights)).toContain(`The ${corner} corner is 120 µm high`);
  });

  test('a quarter of the standoff may be lost to a tilt, and never less than 30 µm', () => {
    expect(judgeFlatness(corners([0.2, 0.248, 0.2, 0.248]), [6, 6], 0.2)!.holds).toBe(true);
    expect(judgeFlatness(corners([0.2, 0.252, 0.2, 0.252]), [6, 6], 0.2)!.holds).toBe(false);
    expect(judgeFlatness(corners([0.02, 0.049, 0.02, 0.049]), [6, 6], 0.02)!.holds).toBe(true);
    expect(judgeFlatness(corners([0.02, 0.051, 0.02, 0.051]), [6, 6], 0.02)!.holds).toBe(false);
  });

  test('a body wider than the readings tilts by more than they differ', () => {
    expect(judgeFlatness(corners([0.2, 0.26, 0.2, 0.26]), [12, 6], 0.2)!.tiltMm).toBeCloseTo(0.12, 9);
    expect(judgeFlatness(corners([0.2, 0.26, 0.26, 0.32]), [12, 3], 0.2)!.tiltMm).toBeCloseTo(0.15, 9);
  });

  test('three readings make a plane, and it fits', () => {
    const three = judgeFlatness(corners([0.2, 0.2, 0.2]), [6, 6], 0.2)!;
    expect(three).toMatchObject({ holds: true, summary: 'Flat within 0 µm.' });
    expect(three.residualMm).toBeCloseTo(0, 12);
  });
});

describe('pads as they are seen', () => {
  const pad = (pin: string, state: 'even' | 'lifted' | 'uneven') => ({ pin, state });

  test('each trouble is counted, told worst first, and enough alone to be in the way', () => {
    expect(judgePadLook([pad('1', 'even'), pad('2', 'even')], [])).toEqual({
      holds: true,
      headline: 'All 2 pads there and level',
      reasons: [],
    });
    const all = judgePadLook(
      [pad('1', 'uneven'), pad('2', 'lifted')],
      [
        ['3', '4'],
        ['5', '6'],
      ],
    );
    expect(all.headline).toBe('Pads: 1 gone, 2 bridges, 1 uneven');
    expect(all.reasons.map((r) => r.split(':')[0])).toEqual(['2', 'Solder from 3 to 4, 5 to 6', '1']);
    for (const look of [
      judgePadLook([pad('1', 'uneven')], []),
      judgePadLook([pad('1', 'lifted')], []),
      judgePadLook([], [['1', '2']]),
    ])
      expect(look.holds).toBe(false);
    expect(judgePadLook([], [['1', '2']]).headline).toBe('Pads: 1 bridge');
  });

  test('eight are named, of more the rest is counted', () => {
    const many = (n: number) =>
      judgePadLook(
        Array.from({ length: n }, (_, i) => pad(String(i + 1), 'lifted')),
        [],
      ).reasons[0];
    expect(many(8)).toMatch(/^1, 2, 3, 4, 5, 6, 7, 8: /);
    expect(many(10)).toMatch(/^1, 2, 3, 4, 5, 6, 7, 8 and 2 more: /);
  });
});
