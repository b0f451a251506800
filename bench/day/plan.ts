import { planDay, type DayProblem } from '../../src/core/day';
import { seededRandom } from '../../src/core/math';
import { note, ratio, section } from '../print';

/** Queues of a busy shop, drawn. */
const QUEUES = 5;
const [JOBS, STEPS, PEOPLE] = [60, 8, 3];
const THINGS = ['hot air', 'microscope', 'programmer', 'supply'];

function queue(random: () => number, promised: boolean): DayProblem {
  const some = (least: number, most: number): number => least + Math.floor((most - least + 1) * random());
  const jobs = Array.from({ length: JOBS }, (_, j) => ({
    ...{ id: `j${j}`, words: '', releaseMin: 0, weight: some(1, 3) },
    dueMin: promised ? some(480, 6000) : null,
    steps: Array.from({ length: STEPS }, (_step, k) => ({
      ...{ id: `s${k}`, words: '', sdLog: 0.4, role: 'apprentice' as const, chance: 1 },
      minutes: some(3, 30),
      passive: random() < 0.15,
      needs: random() < 0.3 ? [THINGS[some(0, THINGS.length - 1)]] : [],
    })),
  }));
  const people = Array.from({ length: PEOPLE }, (_, i) => ({ id: `p${i}`, role: 'lead' as const }));
  return { jobs, people, capacity: { microscope: 2 }, closed: [] };
}

/** How near to what no plan beats a day comes, how long that takes, and what a plan after an event takes beside the first. */
export function benchDayPlan(): void {
  section(`${QUEUES} queues of ${JOBS} jobs, ${STEPS} steps each, ${PEOPLE} people, without and with promises`);
  const random = seededRandom(60);
  const told = { free: [] as number[], promised: [] as number[], ms: [] as number[], againMs: [] as number[] };
  for (let q = 0; q < QUEUES; q++) {
    for (const promised of [false, true]) {
      const day = queue(random, promised);
      const began = performance.now();
      const plan = planDay(day);
      told.ms.push(performance.now() - began);
      told[promised ? 'promised' : 'free'].push(plan.cost.total / plan.bound);
      const [{ id }, ...rest] = day.jobs;
      const event = { ...day, jobs: [{ ...rest[0], id, dueMin: 120, weight: 10 }, ...rest] };
      const again = performance.now();
      planDay(event, { steady: plan.order });
      told.againMs.push(performance.now() - again);
    }
  }
  const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
  ratio('cost to what no plan beats, without promises', mean(told.free), 'at most 1.05');
  ratio('cost to what no plan beats, with promises', mean(told.promised), 'at most 1.05');
  ratio('a plan after an event to the first one, time', mean(told.againMs) / mean(told.ms), 'about 1');
  note(
    `a plan ${mean(told.ms).toFixed(0)} ms, after an event ${mean(told.againMs).toFixed(0)} ms (wanted 1,000 and 300)`,
  );
}

benchDayPlan();
