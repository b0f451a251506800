/** Each attribute at its edge: the last value that fits, what a place leaves unsaid, and what a report may say of a rule. */
import { demoBoard, demoPartTypes, demoReports } from '../../../demo/files';
import type { Board, Slot } from '../board';
import { problemText } from '../result';
import { resistorsBetween } from '../units';
import type { Report } from './evidence';
import { actionMinutes, judgeFit } from './fit';
import { moistureState } from './moisture';
import { memorySchool, parsePartType, type PartType } from './profile';
import { RELATE, hoursWords, type Candidate, type Need } from './relations';
import type { Attribute } from './rules';

const TYPES = demoPartTypes();
const type = (id: string): PartType => TYPES.find((t) => t.id === id)!;
const SETTINGS = { strapValues: resistorsBetween('E24', 1000, 1e6), strapTolerance: 0.01, nowH: 0 };
const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');

function needAt(board: Board, ref: string, slotMore: Partial<Slot> = {}, more: Partial<Need> = {}): Need {
  const slot = board.slots.find((s) => s.ref === ref)!;
  return { board, slot: { ...slot, ...slotMore }, built: type(slot.type), imageSound: true, ...more };
}
const u4 = needAt(heron, 'U4');
const own = type('heron-pd-r2');

/** How a candidate relates to a place in one attribute. */
function relate(attribute: Attribute, need: Need, more: Partial<PartType> = {}, candidate: Partial<Candidate> = {}) {
  const part = need.board.parts.find((p) => p.ref === need.slot.ref)!;
  return RELATE[attribute](need, { type: { ...own, ...more }, marks: [], ...candidate }, SETTINGS, part);
}
const unknown = (what: string) => ({ rule: 'unknown', facts: { what } });

describe('supply', () => {
  const railV = heron.rails.find((r) => r.id === u4.slot.supply)!.expect;
  const volts = railV.kind === 'fixed' ? railV.volts : NaN;
  test.each<[string, [number, number], string]>([
    ['at its lowest', [volts, volts + 1], 'supply/inside'],
    ['at its highest', [volts - 1, volts], 'supply/inside'],
    ['above it', [volts - 1, volts - 0.01], 'supply/outside'],
    ['below it', [volts + 0.01, volts + 1], 'supply/outside'],
  ])('%s', (_, supplyV, rule) => {
    expect(relate('supply', u4, { supplyV })).toEqual({
      rule,
      facts: { supply: String(volts), range: `${supplyV[0]} to ${supplyV[1]}` },
    });
  });

  test('a place that names none wants none; a rail that is not fixed, or not there, leaves it unknown', () => {
    expect(relate('supply', needAt(heron, 'U4', { supply: undefined }))).toEqual({ rule: 'supply/none', facts: {} });
    const moving = heron.rails.find((r) => r.expect.kind !== 'fixed')!;
    for (const supply of [moving.id, 'NOWHERE'])
      expect(relate('supply', needAt(heron, 'U4', { supply }))).toEqual(unknown('the supply at this place'));
  });
});

describe('heat, height and moisture', () => {
  test('a body that bears just the peak bears it', () => {
    // SAC305 melts at 217 to 220 °C (J-STD-006); 15 K over it is wanted.
    const peakC = Number(relate('heat', u4).facts.peak);
    expect(peakC).toBeGreaterThanOrEqual(217 + 15);
    const rules = [peakC, peakC - 1].map((bodyLimitC) => relate('heat', u4, { bodyLimitC }).rule);
    expect(rules).toEqual(['heat/bears', 'heat/low']);
  });

  test('as tall as the one that was there is no taller', () => {
    const { heightMm } = heron.packages[heron.parts.find((p) => p.ref === 'U4')!.package];
    expect(relate('height', u4, { thicknessMm: heightMm })).toEqual({
      rule: 'height/low',
      facts: { height: String(heightMm), room: String(heightMm), shield: '' },
    });
    expect(relate('height', u4, { thicknessMm: heightMm + 0.01 }).rule).toBe('height/free');
  });

  test('hours are told in days from two days on', () => {
    expect([47.9, 48, 71.9, 72, 9.6].map(hoursWords)).toEqual(['47 h', '2 days', '2 days', '3 days', '9 h']);
  });

  test('a bake is asked for with its reason; without a thickness the bag’s label says how long', () => {
    const nobody = relate('moisture', u4, {}, { marks: undefined });
    expect(nobody).toMatchObject({
      rule: 'moisture/bake',
      facts: { why: 'Nobody knows how long it lay open', bake: expect.stringMatching(/^\d+ h at 125 °C, or /) },
    });
    const open = { marks: [{ atH: -400, what: 'open' as const }] };
    expect(relate('moisture', u4, {}, open).facts.why).toBe('Its floor life is over');
    expect(relate('moisture', u4, { thicknessMm: undefined }, open).facts.bake).toBe('as the bag’s label says');
    expect(relate('moisture', u4, { moisture: '1' }, open)).toEqual({ rule: 'moisture/dry', facts: { left: 'All' } });
  });

  test('a chip at the very end of its floor life is over it only after; nobody’s knowledge is told as that', () => {
    // J-STD-020: level 3 has 168 h.
    const opened = (atH: number) => moistureState('3', [{ atH, what: 'open' }], 0);
    expect(opened(-168)).toMatchObject({ bake: false, leftH: 0, unknown: false });
    expect(opened(-168.1)).toMatchObject({ bake: true, unknown: false });
    expect(moistureState('3', undefined, 0)).toMatchObject({ bake: true, unknown: true });
    expect(moistureState('3', [], 0)).toMatchObject({ bake: false, leftH: 168 });
    // Level 6 is baked before every use, however fresh its bag.
    expect(moistureState('6', [], 0)).toMatchObject({ bake: true, unknown: false });
    expect(moistureState('6', [{ atH: -1, what: 'open' }], 0).bake).toBe(true);
    const baked = [
      { atH: -9, what: 'open' as const },
      { atH: -1, what: 'baked' as const },
    ];
    expect(moistureState('6', baked, 0)).toMatchObject({ bake: false, leftH: 5 });
  });
});

describe('pins and revision', () => {
  test('three pins that differ are named, and one that is not there is told as that', () => {
    const part = heron.parts.find((p) => p.ref === 'U4')!;
    const used = Object.keys(own.pins!).filter((pin) => part.pins[pin] !== undefined);
    const pins = Object.fromEntries(
      Object.entries(own.pins!)
        .filter(([pin]) => pin !== used[0])
        .map(([pin, what]) => [pin, used.slice(1, 5).includes(pin) ? 'OTHER' : what]),
    );
    const { rule, facts } = relate('pins', u4, { pins });
    expect(rule).toBe('pins/differ');
    expect(facts.differ.split('; ')).toEqual([
      `${used[0]} is not there, not ${own.pins![used[0]]}`,
      ...used.slice(1, 3).map((pin) => `${pin} is OTHER, not ${own.pins![pin]}`),
    ]);
  });

  test('what differs where nothing is connected is listed', () => {
    const part = heron.parts.find((p) => p.ref === 'U4')!;
    const free = Object.keys(own.pins!).filter((pin) => part.pins[pin] === undefined);
    expect(free.length).toBeGreaterThan(1);
    const pins = { ...own.pins, [free[0]]: 'OTHER', [free[1]]: 'OTHER' };
    expect(relate('pins', u4, { pins })).toEqual({
      rule: 'pins/superset',
      facts: { differ: `${free[0]}, ${free[1]}` },
    });
    expect(relate('pins', u4)).toEqual({ rule: 'pins/same', facts: {} });
  });

  test('of another family, of the same order, later and earlier', () => {
    const of = (more: Partial<PartType>) => relate('revision', u4, more).rule;
    expect(of({})).toBe('revision/same');
    expect(of({ id: 'x', family: 'other' })).toBe('revision/family');
    expect(of({ id: 'x', order: own.order + 1 })).toBe('revision/later');
    expect(of({ id: 'x', order: own.order })).toBe('revision/earlier');
    expect(relate('revision', { ...u4, built: undefined })).toEqual(unknown('the type as built'));
  });
});

describe('image and partner', () => {
  const imageless = needAt(heron, 'U4', { image: undefined });
  test('a place without a memory, a board without a family, and a type that loads none have no image', () => {
    const bare = { ...u4, board: { ...heron, imageFamily: undefined } };
    for (const need of [imageless, bare]) expect(relate('image', need)).toEqual({ rule: 'image/none', facts: {} });
    expect(relate('image', u4, { imageFamily: null }).rule).toBe('image/none');
    expect(relate('image', u4, { imageFamily: undefined })).toEqual(unknown('the image it loads'));
    expect(relate('image', u4, { imageFamily: 'strange' })).toEqual({
      rule: 'image/other',
      facts: { image: 'strange', wanted: heron.imageFamily, memory: u4.slot.image },
    });
  });

  test('a paired chip brings its image, sound or not; a school decides over the others', () => {
    const damaged = { ...u4, imageSound: false };
    expect(relate('image', damaged, { partner: 'reed-nor-1' }).rule).toBe('image/same');
    expect(relate('image', damaged).rule).toBe('image/damaged');
    expect(relate('image', { ...u4, imageSound: undefined }).rule).toBe('image/same');
  });

  test('a pair needs a place for its memory', () => {
    expect(relate('partner', imageless, { partner: 'reed-nor-1' })).toEqual({
      rule: 'partner/noPlace',
      facts: { partner: 'reed-nor-1', memory: '' },
    });
    expect(relate('partner', u4, { partner: 'reed-nor-1' }, { withPartner: true }).rule).toBe('partner/comes');
    expect(relate('partner', u4, { partner: 'reed-nor-1' })).toMatchObject({
      rule: 'partner/missing',
      facts: { memory: u4.slot.image },
    });
    expect(relate('partner', u4, { partner: null }).rule).toBe('partner/free');
  });
});

describe('position', () => {
  const port2 = needAt(marsh, 'U12');
  const position = (need: Need, id: string, candidate: Partial<Candidate> = {}) =>
    relate('position', need, type(id), candidate);

  test('a place without one, and a type without one, need none', () => {
    expect(position(needAt(marsh, 'U12', { position: undefined }), 'marsh-pd-r2').rule).toBe('position/none');
    expect(relate('position', port2, { position: 'none' })).toEqual({ rule: 'position/none', facts: {} });
    expect(relate('position', port2, { position: undefined })).toEqual(unknown('where its position lives'));
  });

  test('fused: not known without where it comes from', () => {
    const fused = type('marsh-pd-r3f');
    expect(relate('position', port2, fused)).toEqual(unknown('which position it is fused as'));
    expect(relate('position', port2, fused, { from: { boardId: marsh.id } })).toEqual(
      unknown('which position it is fused as'),
    );
  });

  test('in the image: written where the pair comes from elsewhere, where it is damaged, or where the school says so', () => {
    const elsewhere = { withPartner: true, from: { boardId: marsh.id, position: 'port-3' } };
    const samePlace = { withPartner: true, from: { boardId: marsh.id, position: 'port-2' } };
    expect(position(port2, 'marsh-pd-r4p', elsewhere).rule).toBe('position/imageWritten');
    expect(position(port2, 'marsh-pd-r4p', samePlace).rule).toBe('position/imageKeeps');
    const otherBoard = { ...samePlace, from: { boardId: heron.id, position: 'port-2' } };
    expect(position(port2, 'marsh-pd-r4p', otherBoard).rule).toBe('position/imageWritten');
    const family = (memory: 'always' | 'never') =>
      ({ format: 'unisolda-part-family/1', id: 'marsh-pd', name: 'Marsh', memory, rules: {} }) as const;
    expect(position({ ...port2, family: family('always') }, 'marsh-pd-r3i').rule).toBe('position/imageWritten');
    const damaged = { ...port2, imageSound: false };
    expect(position(damaged, 'marsh-pd-r3i').rule).toBe('position/imageWritten');
    expect(position({ ...damaged, family: family('never') }, 'marsh-pd-r3i').rule).toBe('position/imageKeeps');
    expect(position(needAt(marsh, 'U12', { image: undefined }), 'marsh-pd-r3i').facts).toEqual({
      position: 'port-2',
      memory: 'its memory',
    });
  });

  test('straps that nobody can read leave it unknown; a code without the position, and values that cannot make it, block', () => {
    const { straps } = port2.slot;
    for (const gone of [undefined, { ...straps!, top: 'R999' }, { ...straps!, bottom: 'R999' }] as Slot['straps'][])
      expect(position(needAt(marsh, 'U12', { straps: gone }), 'marsh-pd-r2')).toEqual(
        unknown('the straps at this place'),
      );
    const code = { bins: 8, positions: { 'port-1': 3 } };
    expect(relate('position', port2, { ...type('marsh-pd-r2'), strapCode: code })).toEqual({
      rule: 'position/noCode',
      facts: { position: 'port-2' },
    });
    const part = marsh.parts.find((p) => p.ref === 'U12')!;
    const hopeless = { ...SETTINGS, strapValues: [10] };
    expect(RELATE.position(port2, { type: type('marsh-pd-r2'), marks: [] }, hopeless, part).rule).toBe(
      'position/strapsHopeless',
    );
  });
});

describe('reports', () => {
  const report = (more: Partial<Report>): Report => ({
    ...demoReports()[0],
    typeId: own.id,
    boardId: heron.id,
    ref: 'U4',
    ...more,
  });
  const judge = (need: Need, reports: readonly Report[], candidate: Partial<Candidate> = {}) =>
    judgeFit(need, { type: { ...own, ...candidate.type }, marks: [], ...candidate }, reports, SETTINGS);

  test('count for the place, for places of the same board built with the same type, and for no others', () => {
    const need = needAt(marsh, 'U12');
    const twin = marsh.slots.find((s) => s.ref !== 'U12' && s.type === need.slot.type)!;
    const stranger = marsh.slots.find((s) => s.type !== need.slot.type);
    const of = (more: Partial<Report>) =>
      judge(need, [report({ boardId: marsh.id, ref: 'U12', ...more })]).reports.length;
    expect([of({}), of({ ref: twin.ref }), of({ boardId: heron.id }), of({ typeId: 'x' }), of({ ref: 'U99' })]).toEqual(
      [1, 1, 0, 0, 0],
    );
    if (stranger) expect(of({ ref: stranger.ref })).toBe(0);
  });

  test('one that failed where all rules say it fits flags them; one that worked there flags nothing', () => {
    const failed = report({ worked: false, date: '2026-05-06' });
    expect(judge(u4, [failed, report({ worked: true })]).flags).toEqual([
      'All rules say it fits; a report of 2026-05-06 says it did not work.',
    ]);
    expect(judge(u4, [report({ worked: true })]).flags).toEqual([]);
    // Where work is needed first, a failure says nothing against the rules.
    expect(judge({ ...u4, imageSound: false }, [failed]).flags).toEqual([]);
    const misfit = { type: { ...own, supplyV: [1.7, 1.9] as [number, number] } };
    expect(judge(u4, [failed], misfit).flags).toEqual([]);
  });
});

describe('actions and cautions', () => {
  const fit = (need: Need, candidate: Partial<Candidate> = {}) =>
    judgeFit(need, { type: own, marks: [], ...candidate }, [], SETTINGS);

  test('minutes are those of all that is done; the proof takes those of the place’s functions', () => {
    const [verify, ...more] = fit(u4).actions;
    const functions = heron.functions.filter((f) => u4.slot.functions.includes(f.id));
    expect(more).toEqual([]);
    expect(verify).toEqual({
      kind: 'verify',
      minutes: functions.reduce((sum, f) => sum + f.minutes, 0),
      refs: [],
      words: `Verify: ${functions.map((f) => f.what).join(', ')}`,
    });
    const written = fit({ ...u4, imageSound: false });
    expect(written.actions.map((a) => [a.kind, a.refs])).toEqual([
      ['writeImage', [u4.slot.image]],
      ['verify', []],
    ]);
    expect(actionMinutes(written)).toBe(actionMinutes(fit(u4)) + 12);
    expect(fit(needAt(heron, 'U4', { functions: [] })).actions).toEqual([]);
  });

  test('each action names the parts that change', () => {
    const port2 = needAt(marsh, 'U12');
    const strapped = fit(port2, { type: type('marsh-pd-r2') }).actions[0];
    expect(strapped).toMatchObject({ kind: 'strap', minutes: 6, refs: ['R22'], strap: { ref: 'R22', toOhm: 22_000 } });
    const from = { boardId: marsh.id, position: 'port-3' };
    const paired = fit(port2, { type: type('marsh-pd-r4p'), withPartner: true, from }).actions;
    expect(paired.slice(0, 2).map((a) => [a.kind, a.minutes, a.refs])).toEqual([
      ['partner', 18, ['U19']],
      ['writePosition', 12, ['U19']],
    ]);
    const baked = fit(u4, { marks: undefined }).actions[0];
    expect([baked.kind, baked.minutes, baked.refs]).toEqual(['bake', 3, []]);
  });

  test('cautions: an image that nobody read, a chip from another board, another unit’s identity', () => {
    expect(fit(u4).cautions).toEqual([]);
    expect(fit({ ...u4, imageSound: undefined }).cautions).toEqual([
      `The image in ${u4.slot.image} has not been read yet.`,
    ]);
    expect(fit({ ...u4, imageSound: undefined }, { type: { ...own, imageFamily: null } }).cautions).toEqual([]);
    expect(fit(needAt(heron, 'U4', { image: undefined }, { imageSound: undefined })).cautions).toEqual([]);
    expect(fit(u4, { from: { boardId: heron.id } }).cautions).toEqual([
      'From another board: see it work there before it is taken, and mark pin 1.',
    ]);
  });
});

describe('profiles', () => {
  const refused = (input: unknown): [string | undefined, string][] => {
    const parsed = parsePartType(input);
    return parsed.ok ? [] : parsed.problems.map((p) => [p.at, p.message]);
  };

  test('say where they are wrong, at most ten places', () => {
    expect(refused({ ...own, id: 'Not Short' })).toEqual([['id', 'expected a short name such as heron-q40-r3.']]);
    expect(refused({ ...own, strapCode: { bins: 1, positions: {} } })[0][0]).toBe('strapCode.bins');
    expect(refused('x')[0][0]).toBe('file');
    const pins = Object.fromEntries(Array.from({ length: 20 }, (_, i) => [String(i), 5]));
    expect(refused({ ...own, pins })).toHaveLength(10);
  });

  test('a strap code goes with a position in straps', () => {
    expect(refused({ ...own, position: 'image', strapCode: { bins: 4, positions: {} } })).toEqual([
      [`part ${own.id}`, 'It has a strap code, but its position does not live in straps.'],
    ]);
    expect(refused({ ...own, supplyV: [3, 3] })).toEqual([]);
    const parsed = parsePartType(own);
    expect(parsed.ok ? '' : problemText(parsed.problems)).toBe('');
  });

  test('the school is the family’s, else the default', () => {
    const family = { format: 'unisolda-part-family/1', id: 'heron-pd', name: 'Heron PD', rules: {} } as const;
    expect(memorySchool({ ...family, memory: 'never' })).toEqual({
      school: 'never',
      why: 'set for Heron PD at this bench',
    });
    for (const unset of [family, undefined])
      expect(memorySchool(unset)).toEqual({ school: 'whenChecksFail', why: 'the default: fewer chips heated' });
  });
});
