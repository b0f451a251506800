import { Worker } from 'node:worker_threads';
import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import {
  FaultCase,
  Predictor,
  accessFor,
  boardMeasurements,
  fixedChecklist,
  measurementId,
  pickWeighted,
  proposeTests,
  rankRepairs,
  sampleReading,
  suspects,
  testMinutes,
  updateBelief,
  type Access,
  type Belief,
  type Fault,
  type Measurement,
  type Reading,
} from '../../src/core/diagnose';
import { seededRandom, type Random } from '../../src/core/math';
import { note, ratio, section } from '../print';

const NONE = new Set<string>();
const BOARDS = 2000;
const BINS = 10;
/** A repair is taken once one has this chance of being the cure; beyond so many tests the job is given up. */
const SURE = 0.9;
const MOST_TESTS = 120;
const MOST_REPAIRS = 6;

interface Drawn {
  readonly fault: Fault;
  readonly refs: ReadonlySet<string>;
}

/** Boards with one fault or two, drawn from the prior. */
function drawer(predictor: Predictor): (random: Random) => Drawn {
  const { space, faults } = FaultCase.of(predictor, []);
  const { prior } = updateBelief(predictor, [], []);
  const members: [number, number][] = [];
  space.forEach((_, i, j) => members.push([i, j]));
  return (random) => {
    const [i, j] = members[pickWeighted(prior, random)];
    const both = j < 0 ? [faults[i]] : [faults[i], faults[j]];
    const effects = both.flatMap((f) => f.effects);
    const fault = { ...both[0], id: both.map((f) => f.id).join('+'), ref: '', effects };
    return { fault, refs: new Set(both.map((f) => f.ref).filter(Boolean)) };
  };
}

/** Are the stated chances true? Noisy readings on boards drawn from the prior; expected calibration error over ten bins. */
export function benchBelief(): void {
  section(`Belief: ${BOARDS} boards of each kind with one fault or two, noisy readings at the stated rates`);
  for (const id of DEMO_BOARDS) {
    const predictor = Predictor.of(demoBoard(id));
    const draw = drawer(predictor);
    const tests = boardMeasurements(predictor.board);
    const random = seededRandom(2026);
    const bins = Array.from({ length: BINS }, () => ({ stated: 0, hits: 0, count: 0 }));
    for (let b = 0; b < BOARDS; b++) {
      const { fault, refs } = draw(random);
      const readings = Array.from({ length: 4 + Math.floor(random() * 16) }, () =>
        sampleReading(predictor, tests[Math.floor(random() * tests.length)], fault, random),
      );
      for (const s of suspects(updateBelief(predictor, readings, [])).slice(0, 5)) {
        if (s.ref === 'outside') continue;
        const bin = bins[Math.min(BINS - 1, Math.floor(s.p * BINS))];
        bin.stated += s.p;
        bin.hits += refs.has(s.ref) ? 1 : 0;
        bin.count++;
      }
    }
    const all = bins.reduce((sum, bin) => sum + bin.count, 0);
    const error = bins.reduce((sum, { stated, hits }) => sum + Math.abs(stated - hits), 0) / all;
    note(`${id}: stated chance, share at fault, count`);
    for (const { stated, hits, count } of bins.filter((bin) => bin.count > 0))
      note(`  ${(stated / count).toFixed(2)}  ${(hits / count).toFixed(2)}  ${count}`);
    ratio('expected calibration error', error, 'at most 0.05');
  }
}

type Choose = (belief: Belief, readings: readonly Reading[], access: Access) => Measurement | undefined;

const ORDER: readonly Access[] = ['closed', 'open', 'out'];

/**
 * Plays a job to its proven end: tests until a repair is likely enough to cure, the repair, a proof that it cured, and on
 * from there when it did not.
 */
function playJob(
  predictor: Predictor,
  { fault, refs }: Drawn,
  choose: Choose,
  random: Random,
): { minutes: number; proven: boolean } {
  const left = new Set(refs);
  const replaced: string[] = [];
  const readings: Reading[] = [];
  let access: Access = 'closed';
  let minutes = 0;
  let repairs = 0;
  while (readings.length < MOST_TESTS) {
    const belief = updateBelief(predictor, readings, [], {}, replaced);
    const [best] = [...rankRepairs(predictor.board, belief, access, new Set(replaced))].sort(
      (a, b) => b.cureChance - a.cureChance,
    );
    const outside = suspects(belief).find((s) => s.ref === 'outside')?.p ?? 0;
    if (outside > SURE && left.size === 0) return { minutes, proven: true };
    const m = best && best.cureChance >= SURE ? undefined : choose(belief, readings, access);
    if (m) {
      minutes += testMinutes(predictor.board, m, access);
      const needs = accessFor(m);
      if (ORDER.indexOf(needs) > ORDER.indexOf(access)) access = needs;
      // A part that is lifted takes its fault along.
      const there = m.kind === 'lift' ? new Set([...left].filter((ref) => ref !== m.ref)) : left;
      readings.push(sampleReading(predictor, m, active(fault, there, predictor), random, { replaced }));
      continue;
    }
    if (!best || repairs++ >= MOST_REPAIRS) break;
    minutes += best.minutes;
    access = 'out';
    for (const ref of [best.ref, best.also].filter((r) => r !== undefined)) {
      left.delete(ref);
      if (!replaced.includes(ref)) replaced.push(ref);
    }
    // The proof: both plug ways and every function; it shows what is still wrong, wherever that is.
    minutes += predictor.board.functions.reduce((sum, f) => sum + f.minutes, 1);
    if (left.size === 0) return { minutes, proven: true };
    for (const f of predictor.board.functions)
      readings.push(
        sampleReading(predictor, { kind: 'works', fn: f.id }, active(fault, left, predictor), random, { replaced }),
      );
  }
  if (process.env.DBG)
    console.log(
      'LOST',
      fault.id,
      [...left].join(),
      'replaced',
      replaced.join(),
      readings.length,
      minutes.toFixed(0),
      suspects(updateBelief(predictor, readings, [], {}, replaced))
        .slice(0, 3)
        .map((x) => x.fault.id + ' ' + x.p.toFixed(2))
        .join('; '),
    );
  return { minutes, proven: false };
}

/** What is left of a board's faults once some parts are new. */
function active(fault: Fault, left: ReadonlySet<string>, predictor: Predictor): Fault {
  const ids = fault.id.split('+').filter((part) => {
    const f = predictor.faults.find((x) => x.id === part)!;
    return f.ref === '' || left.has(f.ref);
  });
  const effects = ids.flatMap((id) => predictor.faults.find((x) => x.id === id)!.effects);
  return { ...fault, id: ids.join('+'), effects };
}

const PLAYED = 150;

/** Minutes to a proven repair and share of boards proven, against a sensible fixed checklist. */
export function benchJobs(boards: readonly (typeof DEMO_BOARDS)[number][] = DEMO_BOARDS, played = PLAYED): void {
  section(
    `Whole jobs on ${played} boards of each kind: noisy readings, repairs, proof; the application against a fixed checklist`,
  );
  for (const id of boards) {
    const predictor = Predictor.of(demoBoard(id));
    const draw = drawer(predictor);
    const checklist = fixedChecklist(predictor.board);
    const own: Choose = (belief, readings, access) => {
      const replaced = new Set(readings.flatMap((r) => r.replaced ?? []));
      const [best] = proposeTests(belief, { access, absent: NONE, replaced, taken: readings });
      return best && best.bits > 0.003 ? best.measurement : undefined;
    };
    const fixed: Choose = (belief, readings) => checklist(belief, readings);
    const results = [own, fixed].map((choose) => {
      const random = seededRandom(5);
      return Array.from({ length: played }, () => playJob(predictor, draw(random), choose, random));
    });
    const [a, b] = results.map((list) => ({
      proven: list.filter((r) => r.proven).length / list.length,
      minutes: list.reduce((s, r) => s + r.minutes, 0) / list.length,
    }));
    note(
      `${id}: proven ${(100 * a.proven).toFixed(1)} % against ${(100 * b.proven).toFixed(1)} %; mean minutes ${a.minutes.toFixed(1)} against ${b.minutes.toFixed(1)}`,
    );
    ratio('share proven', a.proven, 'at least 0.95');
    ratio('minutes, own / checklist', a.minutes / b.minutes, 'at most 0.70');
  }
}

/** All single and double faults at all tests, in a worker, against solving each pair by itself. */
export async function benchPairs(): Promise<void> {
  section('All single and double faults at every test of a board, in a worker');
  for (const id of DEMO_BOARDS) {
    const file = new URL('./pairs.worker.ts', import.meta.url).href;
    const boot = `import('tsx/esm/api').then(({ register }) => (register(), import(${JSON.stringify(file)})));`;
    const worker = new Worker(boot, { eval: true, workerData: id });
    const got = await new Promise<{
      parts: number;
      hypotheses: number;
      tests: number;
      firstMs: number;
      againMs: number;
      updateMs: number;
    }>((resolve, reject) => worker.once('message', resolve).once('error', reject));
    note(
      `${id}: ${got.parts} parts, ${got.hypotheses} single and double faults, ${got.tests} tests: ${got.firstMs.toFixed(0)} ms at first, ${got.againMs.toFixed(0)} ms warm (wanted within 500 ms)`,
    );
    note(`a reading into belief and next test: ${got.updateMs.toFixed(0)} ms (wanted within 100 ms)`);
    ratio('solving each pair by itself / tables', naiveMs(id, got.hypotheses, got.tests) / got.againMs, 'at least 50');
  }
}

/** A sample of pairs predicted one by one by the plain predictor, scaled to all of them. */
function naiveMs(id: (typeof DEMO_BOARDS)[number], hypotheses: number, tests: number): number {
  const predictor = new Predictor(demoBoard(id));
  const list = boardMeasurements(predictor.board);
  const random = seededRandom(3);
  const count = 4000;
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)];
  for (const m of list) predictor.predict(m, predictor.faults[0], NONE, NONE);
  const start = performance.now();
  for (let k = 0; k < count; k++) {
    const [a, b] = [pick(predictor.faults), pick(predictor.faults)];
    const m = pick(list);
    predictor.predict(
      m,
      { ...a, id: `${k} ${measurementId(m)}`, ref: '', effects: [...a.effects, ...b.effects] },
      NONE,
      NONE,
    );
  }
  return ((performance.now() - start) / count) * hypotheses * tests;
}
