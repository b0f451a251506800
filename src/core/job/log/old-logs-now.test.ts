/** Logs of earlier versions against what the same jobs are now: apart from the others, as whole jobs are reckoned for it. */
import { demoBoard } from '../../../../demo/files';
import { demoJobs } from '../../../../demo/jobs';
import { viewJob } from '../assessment/view';
import { SET_ASIDE, demo, eventsOf } from '../tests/old-logs';
import { foldJob, loggedEventSchema } from '.';

test('an old job folds to what the same job folds to now', () => {
  for (const job of demoJobs()) {
    const stored = eventsOf(demo[job.number]);
    const old = foldJob(stored);
    // A heat plan was aimed and judged by the solver of its time: it stays as it was kept.
    const now = foldJob(
      job.events.map((body, i) => ({ ...stored[i], body: body.kind === 'heatPlan' ? stored[i].body : body })),
    );
    expect(old).toEqual(now);
  }
});

test('a row that cannot be read marks its job, and the rest of the job is still shown', () => {
  const { board, rows } = demo[27];
  const torn = [
    ...rows,
    {
      ...{ seq: rows.length + 1, at: SET_ASIDE, bench: 'Bench 1', actor: 'Bench lead' },
      body: { type: 'gossip', version: 1, data: {} },
    },
  ];
  const events = torn.map((row) => loggedEventSchema.parse(row));
  const view = viewJob(27, SET_ASIDE, demoBoard(board), events);
  const whole = viewJob(27, SET_ASIDE, demoBoard(board), events.slice(0, -1));
  expect(view.state.unreadable).toEqual([
    { seq: rows.length + 1, problem: expect.stringContaining(`Entry ${rows.length + 1}`) },
  ]);
  expect(view.readings).toEqual(whole.readings);
  expect(view.suspects).toEqual(whole.suspects);
  // Undo takes back what can be read, not what cannot.
  expect(view.undoable).toBe(whole.undoable);
});
