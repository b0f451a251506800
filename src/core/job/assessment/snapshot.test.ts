import { demoBoard } from '../../../../demo/files';
import type { JobEvent } from '../log';
import { diagnosisOf, historyOf, nextStepOf, proofOf, proofOrderOf, selector, snapshotOf } from './snapshot';
import { viewJob } from './view';

const AT = '2026-11-24T08:00:00.000Z';

const entry = (seq: number, body: JobEvent['body']): JobEvent => ({ seq, at: AT, bench: 'B1', actor: 'A', body });

const STORY = entry(1, {
  kind: 'story',
  symptom: 'does not charge',
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
});

describe('a job at one moment', () => {
  it('is asked the same thing once', () => {
    const job = snapshotOf(7, AT, demoBoard('heronlog-4-c'), [STORY]);
    let asked = 0;
    const storyOf = selector(({ state }) => {
      asked += 1;
      return state.story?.symptom;
    });
    expect([storyOf(job), storyOf(job)]).toEqual(['does not charge', 'does not charge']);
    expect(asked).toBe(1);
    for (const ask of [diagnosisOf, proofOf, proofOrderOf, nextStepOf, historyOf]) expect(ask(job)).toBe(ask(job));
  });

  it('keeps an answer of “nothing” as one', () => {
    let asked = 0;
    const nothingOf = selector(() => {
      asked += 1;
      return undefined;
    });
    const job = snapshotOf(7, AT, demoBoard('heronlog-4-c'), []);
    nothingOf(job);
    nothingOf(job);
    expect(asked).toBe(1);
  });

  it('gives the same answers in whatever order they are asked for, and after another entry its own', () => {
    const board = demoBoard('heronlog-4-c');
    const [first, second] = [snapshotOf(7, AT, board, [STORY]), snapshotOf(7, AT, board, [STORY])];
    const forwards = [diagnosisOf, proofOf, nextStepOf].map((ask) => JSON.stringify(ask(first)));
    const backwards = [nextStepOf, proofOf, diagnosisOf].map((ask) => JSON.stringify(ask(second))).reverse();
    expect(backwards).toEqual(forwards);

    const empty = snapshotOf(7, AT, board, []);
    expect(nextStepOf(empty).stage).toBe('arrive');
    expect(nextStepOf(first).stage).not.toBe('arrive');
    expect([empty.version, first.version]).toEqual([0, 1]);
  });

  it('is what the view draws', () => {
    const board = demoBoard('heronlog-4-c');
    const job = snapshotOf(7, AT, board, [STORY], {}, { training: true, simulators: true });
    const view = viewJob(7, AT, board, [STORY], {}, { training: true, simulators: true });
    expect(view.next).toEqual(nextStepOf(job));
    expect(view.tests).toEqual(diagnosisOf(job).tests);
    expect([view.training, view.simulators, view.version]).toEqual([true, true, 1]);
  });
});
