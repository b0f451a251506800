import { allocate, costAlone } from '../../src/core/allocation';
import { seededRandom } from '../../src/core/math';
import { loadSolver } from '../../src/workers/allocation/solver';
import { note, ratio, section } from '../print';
import { randomQueue } from './queue';

const SIZE = { jobs: 60, donors: 40, chipsEach: 8, types: 8 };
const QUEUES = 8;

/** The queue of a large shop, solved to the proven optimum. */
export async function benchAllocation(): Promise<void> {
  section(
    `Donors for ${SIZE.jobs} jobs from ${SIZE.donors} donors with ${SIZE.chipsEach} chips each, solved to the optimum`,
  );
  const times: number[] = [];
  let [planned, jobByJob] = [0, 0];
  for (let k = 0; k < QUEUES; k++) {
    const problem = randomQueue(seededRandom(100 + k), SIZE);
    const solve = await loadSolver();
    const start = performance.now();
    const plan = allocate(problem, solve);
    times.push(performance.now() - start);
    if (!plan.ok) throw new Error(plan.problems[0].message);
    const alone = costAlone(problem);
    if (alone.unmet === plan.value.unmet.length) {
      planned += plan.value.cost;
      jobByJob += alone.cost;
    }
    note(
      `queue ${k + 1}: ${problem.needs.length} needs, ${problem.options.length} ways, ${plan.value.open.length} donors opened, ${plan.value.unmet.length} left at ${plan.value.cost.toFixed(0)}, job by job ${alone.unmet} left at ${alone.cost.toFixed(0)}: ${(times[k] / 1000).toFixed(2)} s`,
    );
  }
  ratio('cost, plan / job by job, queues with as many served', planned / jobByJob, 'at most 1');
  note(`longest ${(Math.max(...times) / 1000).toFixed(2)} s (wanted within 5 s)`);
}
