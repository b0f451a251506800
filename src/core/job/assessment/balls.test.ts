import { demoBoard } from '../../../../demo/files';
import { partByRef } from '../../board';
import { startingPlan } from '../../heat';
import { balledPart } from '../../site';
import { DEFAULT_SITE_PRACTICE } from '../../joints';
import type { BodyOf } from '../log';
import { eventBodySchema, eventLabel, foldJob, viewJob, type BenchKnowledge, type EventBody, type JobEvent } from '..';

const board = demoBoard('heronlog-4-c');
const OPENED = '2026-11-24T08:00:00.000Z';
const events = (...bodies: EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({ seq: i + 1, at: OPENED, bench: 'Bench 1', actor: 'Bench lead', body }));
const STORY: EventBody = {
  ...{ kind: 'story', symptom: 'dead', history: [], dataMatters: false, locked: false, consent: true, pack: 'none' },
};
type Ball = BodyOf<'inspection'>['balls'][number];
const U8_BALLS = balledPart(board.packages[partByRef(board, 'U8')!.package])!;
/** All balls of U8 as they should be, but for what is said. */
const inspection = (more: Partial<BodyOf<'inspection'>> = {}, first: Partial<Ball> = {}): EventBody => ({
  ...{ kind: 'inspection', ref: 'U8', sha256: 'a'.repeat(64), name: 'x.png', toPicture: [1, 0, 0, 0, 1, 0, 0, 0] },
  ...{ mmPerPx: 0.01, bridges: [], crumbs: [] },
  balls: U8_BALLS.pins.map((pin, i) => ({
    ...{ pin, state: 'good', diameterMm: U8_BALLS.ballMm, sdMm: null, unclear: false, byHand: false },
    ...(i === 0 && first),
  })),
  ...more,
});
const BRIDGED = { bridges: [[U8_BALLS.pins[0], U8_BALLS.pins[1]]] } as Partial<BodyOf<'inspection'>>;

test('the latest map of lifted pads counts, and none takes it back', () => {
  const state = foldJob(
    events(
      { kind: 'lifted', ref: 'U4', pins: ['1', '2'] },
      { kind: 'lifted', ref: 'U8', pins: ['A1'] },
      { kind: 'lifted', ref: 'U4', pins: [] },
    ),
  );
  expect(state.lifted).toEqual({ U4: [], U8: ['A1'] });
});

test('looks at balls and flatness are kept by part, the latest of each', () => {
  const state = foldJob(events(inspection(BRIDGED), inspection()));
  expect(state.inspections.U8.bridges).toEqual([]);
});

const padLook = (bridges: [string, string][]): EventBody => ({
  ...{ kind: 'padLook', ref: 'U4', sha256: 'b'.repeat(64), name: 'x.png', width: 600, height: 600 },
  ...{ toPicture: [40, 0, 300, 0, 40, 300, 0, 0], bridges },
  pads: [{ pin: '1', state: 'even', unclear: false, byHand: false }],
});

test('the latest look at a site’s pads counts', () => {
  expect(foldJob(events(padLook([['1', '2']]), padLook([]))).padLooks.U4.bridges).toEqual([]);
});

test('what was found of pads and balls stands under the stage, named where it is about several parts', () => {
  const found = (...bodies: EventBody[]): string => viewJob(1, OPENED, board, events(STORY, ...bodies)).findings.balls;
  expect(found()).toBe('');
  expect(found(inspection())).toBe('Can go down as it is');
  const both = found({ kind: 'lifted', ref: 'U4', pins: ['EP'] }, inspection(BRIDGED));
  expect(found(padLook([['1', '2']]))).toBe('Pads: 1 bridge');
  expect(both).toMatch(/^U4: Goes on.*; U8: Rework: 1 bridge$/);
  expect(found({ kind: 'site', ref: 'U4', words: '41 pads tinned and level' })).toBe('41 pads tinned and level');
});

test('it is judged by how this bench works, and says nothing of an array that the part does not have', () => {
  const site = (coplanarityMm: number): BenchKnowledge => ({ site: { ...DEFAULT_SITE_PRACTICE, coplanarityMm } });
  const low = inspection({}, { diameterMm: 0.8 * U8_BALLS.ballMm });
  const found = (knowledge: BenchKnowledge, body: EventBody): string =>
    viewJob(1, OPENED, board, events(STORY, body), knowledge).findings.balls;
  expect(found(site(0.5), low)).toBe('Can go down as it is');
  expect(found(site(0.01), low)).toMatch(/^Rework: coplanarity/);
  expect(found({}, { ...low, balls: [] } as EventBody)).toBe('');
});

test('each is told in a few words for undo, and taken back by it', () => {
  const plan = startingPlan('U4', 'SAC305', 6);
  const bodies: EventBody[] = [
    { kind: 'lifted', ref: 'U4', pins: [] },
    inspection(),
    padLook([]),
    {
      kind: 'flatness',
      ref: 'U4',
      readings: [0, 1, 2].map((k) => ({ xMm: k, yMm: k * k, heightMm: 0.05 })),
    },
    { kind: 'run', run: 'a', atMs: 0, act: 'begin', plan },
    { kind: 'run', run: 'a', atMs: 1, act: 'mark', mark: 'swims' },
  ];
  expect(events(...bodies).map((e) => eventLabel(board, e))).toEqual([
    ...[
      'lifted pads of U4',
      'picture of U8',
      'picture of the pads of U4',
      'flatness of U4',
      'run: begin',
      'run: swims',
    ],
  ]);
  const log = events(...bodies);
  const undone = foldJob([...log, { ...log[0], seq: 6, body: { kind: 'undo', seq: 5 } }]);
  expect(undone.runEvents).toHaveLength(1);
  expect(Object.keys(undone.flatness)).toEqual(['U4']);
});

test('what does not look like a look is refused', () => {
  const good = inspection();
  expect(eventBodySchema.safeParse(good).success).toBe(true);
  for (const wrong of [{ toPicture: [1] }, { balls: [] }, { mmPerPx: 0 }, { sha256: 'x' }, { ref: 'u 8' }])
    expect(eventBodySchema.safeParse({ ...good, ...wrong }).success).toBe(false);
});
