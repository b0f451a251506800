import { PURPOSES, asPlacing, startingPlan } from '../heat';
import { abortWords, foldRun, pauseWords, runCards, runClock, runEventSchema, timedMarks, type RunEvent } from '.';

const plan = { ...startingPlan('U4', 'SAC305', 6), covers: ['U9'], plateSetC: 120 };
const cards = runCards(plan, { ref: 'U4', what: 'port controller', centrePad: true });
const FIRST_HOT = cards.findIndex((c) => c.hot);
const START = 1_000_000;
const press = (afterS: number, act: RunEvent['act'], more: Partial<RunEvent> = {}): RunEvent => ({
  ...{ kind: 'run', run: 'a', atMs: START + 1000 * afterS, act },
  ...more,
});
const BEGIN = press(0, 'begin', { plan });
const to = (card: number, afterS: number): RunEvent => press(afterS, 'next', { card });
const at = (events: RunEvent[], afterS: number) => runClock(foldRun(events)!, cards, START + 1000 * afterS);

test('gates first, the plan’s own steps on the clock, then what comes after', () => {
  expect(cards.slice(0, FIRST_HOT).map((c) => c.title)).toEqual([
    'Pack out, strap on, extraction running',
    'Mark pin 1 of U4 on the board',
    'Cover U9',
    'Plate at 120 °C, board on it',
  ]);
  expect(cards.filter((c) => c.gate)).toHaveLength(2);
  const timed = cards.filter((c) => c.seconds !== null);
  expect(timed.map((c) => c.seconds)).toEqual(plan.steps.map((s) => s.durationS));
  expect(timed[timed.length - 2]).toMatchObject({ goesOn: false, marks: ['swims'] });
  expect(timed[timed.length - 2].detail).toContain('centre pad');
  expect(cards[cards.length - 1].title).toContain('Measure now');
});

test('a gate waits for the hand, however long', () => {
  expect(at([BEGIN], 3600)).toMatchObject({ card: 0, leftS: null, heatS: null });
});

test('steps go on by themselves to the nudge, which waits', () => {
  const events = [BEGIN, to(FIRST_HOT, 100)];
  const [a, b, c] = plan.steps.map((s) => s.durationS);
  expect(at(events, 100 + a - 1)).toMatchObject({ card: FIRST_HOT, leftS: 1 });
  expect(at(events, 100 + a + 2)).toMatchObject({ card: FIRST_HOT + 1, cardS: 2, heatS: a + 2 });
  const late = at(events, 100 + a + b + c + 30);
  expect(late.card).toBe(FIRST_HOT + 3);
  expect(late.leftS).toBe(plan.steps[3].durationS - 30);
});

test('the same moment reads the same after a reload: the presses are all there is', () => {
  const events = [BEGIN, to(1, 5), to(FIRST_HOT, 20), press(31, 'pause'), press(40, 'resume')];
  const stored = JSON.parse(JSON.stringify(events)) as RunEvent[];
  for (const s of [25, 35, 45, 90]) expect(at(stored, s)).toEqual(at(events, s));
  // Nine seconds of standing still do not count.
  expect(at(events, 45)).toMatchObject({ heatS: 16, cardS: 16 });
});

test('while paused nothing moves; going on by hand ends the pause', () => {
  const events = [BEGIN, to(FIRST_HOT, 10), press(14, 'pause')];
  expect(at(events, 14)).toEqual(at(events, 500));
  expect(at([...events, to(FIRST_HOT + 1, 60)], 62)).toMatchObject({ card: FIRST_HOT + 1, cardS: 2, heatS: 6 });
});

test('marks carry the time under heat, for the station’s calibration', () => {
  const events = [
    BEGIN,
    to(FIRST_HOT, 10),
    press(20, 'pause'),
    press(25, 'resume'),
    press(70, 'mark', { mark: 'swims' }),
  ];
  expect(timedMarks(foldRun(events)!, cards)).toEqual([{ mark: 'swims', heatS: 55 }]);
});

test('aborted is ended: later presses change nothing, and a new run starts over', () => {
  const events = [BEGIN, to(FIRST_HOT, 10), press(20, 'abort'), to(FIRST_HOT + 2, 30)];
  expect(foldRun(events)).toMatchObject({ ended: 'abort', card: FIRST_HOT });
  expect(at(events, 900).heatS).toBe(10);
  const again = [...events, { ...press(100, 'begin', { plan }), run: 'b' }];
  expect(foldRun(again)).toMatchObject({ run: 'b', ended: null, card: 0 });
  expect(foldRun([])).toBeUndefined();
});

test('pause and abort say what to do with the heat', () => {
  expect(pauseWords(cards[FIRST_HOT])).toContain('Nozzle up');
  expect(pauseWords(cards[0])).not.toContain('Nozzle');
  expect(abortWords(cards[FIRST_HOT])).toContain('Air off');
});

test('placing begins with pin 1 at the mark and marks when it is seated; the plan that lifted the part is renamed for it', () => {
  const placing = asPlacing(plan);
  expect(placing.steps.map((s) => s.name)).toEqual([
    ...['warm the area', 'close in', 'wet and settle', 'nudge, hold', 'air away, untouched'],
  ]);
  expect(placing.steps.map((s) => s.airSetC)).toEqual(plan.steps.map((s) => s.airSetC));
  const placed = runCards(placing, { ref: 'U4', what: 'port controller', centrePad: true });
  expect(placed[1]).toMatchObject({ title: 'Pin 1 of U4 at the mark', gate: true });
  expect(placed.some((c) => c.title.startsWith('Mark pin 1'))).toBe(false);
  expect(placed.flatMap((c) => c.marks)).toContain('seated');
  expect(placed.every((c) => !c.detail.includes('let go last'))).toBe(true);
});

test('a nozzle that stands beside the middle is looked along before the air comes', () => {
  const said = runCards(plan, {
    ref: 'U4',
    what: '',
    centrePad: false,
    beside: '2.0 mm beside its middle, away from U9',
  });
  const at = said.findIndex((c) => c.title === 'Nozzle 2.0 mm beside its middle, away from U9');
  expect(at).toBeGreaterThan(0);
  expect(at).toBeLessThan(said.findIndex((c) => c.hot));
  expect(cards.some((c) => c.title.startsWith('Nozzle'))).toBe(false);
});

test('clearing names the edges in their order; every purpose has a hot card that waits and a last one that looks', () => {
  for (const purpose of PURPOSES.filter((p) => p !== 'partBoards')) {
    const cards = runCards(startingPlan('U4', 'SAC305', 6, purpose), {
      ...{ ref: 'U4', what: '', centrePad: false },
      edges: ['top edge', 'left edge'],
    });
    expect(cards.filter((c) => c.hot && !c.goesOn)).toHaveLength(1);
    expect(cards.find((c) => c.hot && !c.goesOn)!.detail).toContain('top edge; left edge');
    expect(cards[cards.length - 1].hot).toBe(false);
    expect(cards.filter((c) => c.hot).every((c) => c.air !== undefined)).toBe(true);
  }
});

test('going back shows the card before with its whole time', () => {
  const events = [BEGIN, to(FIRST_HOT, 10), press(18, 'back', { card: FIRST_HOT - 1 }), to(FIRST_HOT, 30)];
  expect(at(events.slice(0, 3), 20)).toMatchObject({ card: FIRST_HOT - 1, leftS: null });
  expect(at(events, 34)).toMatchObject({ card: FIRST_HOT, cardS: 4 });
});

test('a mark before there is heat has no time that a station could learn from', () => {
  const events = [BEGIN, press(4, 'mark', { mark: 'swims' }), to(FIRST_HOT, 10)];
  expect(foldRun(events)!.marks).toHaveLength(1);
  expect(timedMarks(foldRun(events)!, cards)).toEqual([]);
});

test('presses are checked as they come from outside', () => {
  expect(runEventSchema.safeParse(BEGIN).success).toBe(true);
  for (const wrong of [{ act: 'jump' }, { card: -1 }, { mark: 'melts' }, { run: '' }, { atMs: 'now' }])
    expect(runEventSchema.safeParse({ ...BEGIN, ...wrong }).success).toBe(false);
});
