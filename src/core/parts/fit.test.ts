import fc from 'fast-check';
import { jStat } from 'jstat';
import { demoBoard, demoPartFamilies, demoPartTypes, demoReports, type DEMO_BOARDS } from '../../../demo/files';
import { resistorsBetween } from '../units';
import { SOURCE_WEIGHT, SOURCES, successOf, type Report } from './evidence';
import { VERDICTS, judgeFit, type Fit } from './fit';
import { parsePartType, type PartFamily, type PartType } from './profile';
import type { Candidate, Need } from './relations';

const TYPES = demoPartTypes();
const type = (id: string): PartType => TYPES.find((t) => t.id === id)!;
const SETTINGS = { strapValues: resistorsBetween('E24', 1000, 1e6), strapTolerance: 0.01, nowH: 0 };

function needAt(boardId: (typeof DEMO_BOARDS)[number], ref: string, more: Partial<Need> = {}): Need {
  const board = demoBoard(boardId);
  const slot = board.slots.find((s) => s.ref === ref)!;
  return { board, slot, built: type(slot.type), imageSound: true, ...more };
}
const family = (id: string, more: Partial<PartFamily>): PartFamily => ({
  ...demoPartFamilies().find((f) => f.id === id)!,
  ...more,
});
const judge = (need: Need, id: string, more: Partial<Candidate> = {}, reports: readonly Report[] = []): Fit =>
  judgeFit(need, { type: type(id), marks: [], ...more }, reports, SETTINGS);
const cell = (fit: Fit, attribute: string) => fit.cells.find((c) => c.attribute === attribute)!;
const actions = (fit: Fit): string[] => fit.actions.map((a) => a.words);

describe('every kind of trouble is decided with its reason', () => {
  const heron = needAt('heronlog-4-c', 'U4');
  const port2 = needAt('marshdesk-2-b', 'U12');

  test('the same revision fits', () => {
    const fit = judge(heron, 'heron-pd-r2');
    expect([fit.verdict, cell(fit, 'position').reason]).toEqual([
      'fits',
      'R5 and R6 read 41 % of the supply, bin 1 of 4: main.',
    ]);
    expect(actions(fit)).toEqual(['Verify: charges its pack, data over the port']);
  });

  test('a later revision is a superset: what differs lies where nothing is connected', () => {
    const fit = judge(heron, 'heron-pd-r3');
    expect([fit.verdict, cell(fit, 'revision').word, cell(fit, 'pins').outcome]).toEqual(['fits', 'later', 'fits']);
    expect(cell(fit, 'pins').reason).toMatch(/26 differ where nothing is connected/);
  });

  test('an earlier revision is not tried until a report says that it went', () => {
    expect(judge(heron, 'heron-pd-r1').verdict).toBe('notTried');
    const report: Report = { ...demoReports()[0], typeId: 'heron-pd-r1' };
    const fit = judge(heron, 'heron-pd-r1', {}, [report]);
    expect([fit.verdict, cell(fit, 'revision').outcome]).toEqual(['fits', 'proven']);
  });

  test('a look-alike with another pin map does not fit, whatever its package; a report against it flags the rule', () => {
    const fit = judge(heron, 'rill-pd-r1', {}, demoReports());
    expect([fit.verdict, cell(fit, 'package').outcome, cell(fit, 'pins').outcome]).toEqual([
      'doesNotFit',
      'same',
      'blocks',
    ]);
    expect(cell(fit, 'pins').reason).toMatch(/8 is FCLK, not FCS; 9 is FCS, not FCLK/);
    expect(fit.flags).toContain('Pins: a report of 2026-04-20 says it works, the rule pins/differ says no.');
  });

  test('position by straps: eight bins read this board’s straps otherwise, and the change is named', () => {
    const fit = judge(port2, 'marsh-pd-r2');
    expect([fit.verdict, cell(fit, 'position').reason]).toEqual([
      'fitsAfter',
      'R21 and R22 read 41 %, bin 3 of 8; port-2 is bin 2.',
    ]);
    expect(actions(fit)[0]).toBe('Change strap R22 from 33 kΩ to 22 kΩ');
    expect(judge(needAt('marshdesk-2-b', 'U11'), 'marsh-pd-r2').verdict).toBe('fits');
  });

  test('position in the image: the board’s own memory keeps it; a damaged image is written with it', () => {
    expect(judge(port2, 'marsh-pd-r3i').verdict).toBe('fits');
    const fit = judge({ ...port2, imageSound: false }, 'marsh-pd-r3i');
    expect([fit.verdict, actions(fit)[0]]).toEqual([
      'fitsAfter',
      'Write a sound image to U19, with the position of this place in it',
    ]);
  });

  test('position fused: only the same position of the same board', () => {
    const from = (boardId: string, position: string) => judge(port2, 'marsh-pd-r3f', { from: { boardId, position } });
    expect(from('marshdesk-2-b', 'port-2').verdict).toBe('fits');
    expect(from('marshdesk-2-b', 'port-1').verdict).toBe('doesNotFit');
    expect(from('heronlog-4-c', 'port-2').verdict).toBe('doesNotFit');
    expect(cell(from('marshdesk-2-b', 'port-1'), 'position').reason).toMatch(/Fused as port-1 of marshdesk-2-b/);
    expect(judge(port2, 'marsh-pd-r3f').verdict).toBe('notTried');
  });

  test('paired with its flash: both or nothing, and another position is written into the image', () => {
    expect(judge(port2, 'marsh-pd-r4p').verdict).toBe('doesNotFit');
    const from = { boardId: 'marshdesk-2-b', position: 'port-3' };
    const fit = judge(port2, 'marsh-pd-r4p', { withPartner: true, from });
    expect([fit.verdict, ...actions(fit).slice(0, 2)]).toEqual([
      'fitsAfter',
      'Move its partner reed-nor-1 to U19 too',
      'Write port-2 into the image of U19',
    ]);
    expect(fit.cautions.join(' ')).toMatch(/another unit’s identity/);
  });

  test('a chip that lay open too long is baked first, for as long as J-STD-033 says', () => {
    const fit = judge(heron, 'heron-pd-r2', { marks: [{ atH: -400, what: 'open' }] });
    expect([fit.verdict, actions(fit)[0]]).toEqual([
      'fitsAfter',
      'Bake 9 h at 125 °C, or 33 h at 90 °C, or 13 days at 40 °C',
    ]);
  });

  test('wrong supply, a body that bears too little heat, and too tall a body under a shield block', () => {
    const changed = (more: Partial<PartType>) =>
      judgeFit(heron, { type: { ...type('heron-pd-r2'), ...more }, marks: [] }, [], SETTINGS);
    expect(cell(changed({ supplyV: [1.7, 1.9] }), 'supply')).toMatchObject({ outcome: 'blocks' });
    expect(cell(changed({ bodyLimitC: 220 }), 'heat').reason).toBe('Bears 220 °C; SAC305 needs 235 °C.');
    expect(cell(changed({ thicknessMm: 1.1 }), 'height').word).toBe('taller');
    const { board } = heron;
    const { xMm, yMm } = board.parts.find((p) => p.ref === 'U4')!;
    const shield = { id: 'SH9', xMm, yMm, sizeMm: [9, 9] as [number, number], side: 'front' as const, minutes: 8 };
    const covered = { ...heron, board: { ...board, shields: [shield] } };
    const tall = judgeFit(covered, { type: { ...type('heron-pd-r2'), thicknessMm: 1.1 }, marks: [] }, [], SETTINGS);
    expect(cell(tall, 'height').reason).toBe('1.1 mm under SH9, 0.85 mm as built.');
  });
});

describe('the schools for the memory', () => {
  const need = needAt('heronlog-4-c', 'U4');
  test('default: only when its checks fail', () => {
    expect(cell(judge(need, 'heron-pd-r2'), 'image').outcome).toBe('same');
    expect(cell(judge({ ...need, imageSound: false }, 'heron-pd-r2'), 'image').outcome).toBe('fixable');
  });
  test('always, and never', () => {
    const always = { ...need, family: family('heron-pd', { memory: 'always' }) };
    expect(actions(judge(always, 'heron-pd-r2'))).toContain('Write a sound image to U9');
    const never = { ...need, imageSound: false, family: family('heron-pd', { memory: 'never' }) };
    expect(cell(judge(never, 'heron-pd-r2'), 'image').outcome).toBe('same');
  });
});

test('a bench may change a rule for a family, but not what is unknown', () => {
  const need = {
    ...needAt('heronlog-4-c', 'U4'),
    family: family('heron-pd', { rules: { 'revision/earlier': 'fits', unknown: 'fits' } }),
  };
  expect(judge(need, 'heron-pd-r1').verdict).toBe('fits');
  const silent = { ...type('heron-pd-r2'), pins: undefined };
  expect(judgeFit(need, { type: silent, marks: [] }, [], SETTINGS).verdict).toBe('notTried');
});

test('functions proven and never tried are told apart', () => {
  const fit = judge(needAt('heronlog-4-c', 'U4'), 'heron-pd-r3', {}, demoReports());
  expect(fit.functions).toEqual([
    { fn: 'charge', worked: 2, failed: 0 },
    { fn: 'data', worked: 1, failed: 0 },
  ]);
});

test('success is the Beta posterior with its 95 % bounds (jStat)', () => {
  const reports = demoReports().filter((r) => r.typeId === 'heron-pd-r2');
  const success = successOf(reports, SOURCE_WEIGHT);
  const [a, b] = [1 + 3 + 0.7, 1 + 1];
  expect(success.mean).toBeCloseTo(jStat.beta.mean(a, b), 12);
  expect(success.low).toBeCloseTo(jStat.beta.inv(0.025, a, b), 7);
  expect(success.high).toBeCloseTo(jStat.beta.inv(0.975, a, b), 7);
  expect([success.reports, success.worked]).toEqual([5, 4]);
});

describe('the engine is monotone', () => {
  const needs = [needAt('heronlog-4-c', 'U4'), needAt('marshdesk-2-b', 'U11'), needAt('marshdesk-2-b', 'U12')];
  const report = (need: Need, typeId: string) =>
    fc.record({
      typeId: fc.constant(typeId),
      boardId: fc.constant(need.board.id),
      ref: fc.constant(need.slot.ref),
      date: fc.constant('2026-05-01'),
      source: fc.constantFrom(...SOURCES),
      worked: fc.boolean(),
      functions: fc.constant({}),
      note: fc.constant(''),
    });
  const scene = fc
    .record({
      need: fc.constantFrom(...needs),
      type: fc.constantFrom(...TYPES.filter((t) => t.kind === 'portController')),
      imageSound: fc.constantFrom(true, false, undefined),
      withPartner: fc.boolean(),
      position: fc.constantFrom('port-1', 'port-2', undefined),
    })
    .chain((s) => fc.record({ scene: fc.constant(s), reports: fc.array(report(s.need, s.type.id), { maxLength: 6 }) }));
  interface Scene {
    readonly scene: { need: Need; type: PartType; imageSound?: boolean; withPartner: boolean; position?: string };
    readonly reports: Report[];
  }
  const fitOf = ({ scene: s, reports }: Scene, t: PartType, more: Report[] = []): Fit =>
    judgeFit(
      { ...s.need, imageSound: s.imageSound },
      { type: t, marks: [], withPartner: s.withPartner, from: { boardId: s.need.board.id, position: s.position } },
      [...reports, ...more],
      SETTINGS,
    );
  const rank = (fit: Fit): number => VERDICTS.indexOf(fit.verdict);

  test('one more report that it worked never lowers the chance or the verdict', () => {
    fc.assert(
      fc.property(scene, fc.constantFrom(...SOURCES), (s, source) => {
        const before = fitOf(s, s.scene.type);
        const more: Report = {
          typeId: s.scene.type.id,
          boardId: s.scene.need.board.id,
          ref: s.scene.need.slot.ref,
          date: '2026-06-01',
          source,
          worked: true,
          functions: {},
          note: '',
        };
        const after = fitOf(s, s.scene.type, [more]);
        expect(after.success.mean).toBeGreaterThan(before.success.mean);
        expect(after.success.low).toBeGreaterThan(before.success.low);
        expect(rank(after)).toBeLessThanOrEqual(rank(before));
      }),
      { numRuns: 200 },
    );
  });

  test('knowing less of a type never turns into a fit', () => {
    const known = [
      'package',
      'thicknessMm',
      'pins',
      'supplyV',
      'position',
      'strapCode',
      'imageFamily',
      'partner',
      'moisture',
      'bodyLimitC',
    ] as const;
    fc.assert(
      fc.property(scene, fc.subarray([...known], { minLength: 1 }), (s, gone) => {
        const full = fitOf(s, s.scene.type);
        const less = fitOf(s, { ...s.scene.type, ...Object.fromEntries(gone.map((k) => [k, undefined])) });
        if (rank(full) >= VERDICTS.indexOf('notTried'))
          expect(rank(less)).toBeGreaterThanOrEqual(VERDICTS.indexOf('notTried'));
      }),
      { numRuns: 300 },
    );
  });
});

test('a profile is held against itself', () => {
  expect(parsePartType({ ...type('heron-pd-r2'), supplyV: [3.6, 3.0] })).toMatchObject({
    ok: false,
    problems: [{ message: 'Expected the lowest supply first; got 3.6 to 3 V.' }],
  });
  expect(parsePartType({ ...type('marsh-pd-r1'), strapCode: { bins: 4, positions: { 'port-1': 4 } } })).toMatchObject({
    ok: false,
    problems: [{ message: 'Position port-1 is bin 4; expected 0 to 3.' }],
  });
});
