import { demoBoard } from '../../../demo/files';
import { NOMINAL_STATION, startingPlan } from '@/core/heat';
import { runHeatPlan } from './client';
import type { HeatReply } from './protocol';

/** Stands in for the browser's worker: the test plays the other side. */
class FakeWorker {
  static last: FakeWorker;
  onmessage?: (event: { data: HeatReply }) => void;
  onerror?: () => void;
  onmessageerror?: () => void;
  readonly sent: unknown[] = [];
  ended = false;

  constructor() {
    FakeWorker.last = this;
  }
  postMessage(message: unknown): void {
    this.sent.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  reply(data: HeatReply): void {
    this.onmessage?.({ data });
  }
}

jest.mock('./heat.worker.ts', () => ({}), { virtual: true });
beforeAll(() => Object.assign(globalThis, { Worker: FakeWorker }));

const request = {
  board: demoBoard('heronlog-4-c'),
  station: NOMINAL_STATION,
  plan: startingPlan('U4', 'SAC305', 4),
  aim: false,
};

test('hands the request over as plain data, tells progress, and ends the worker with the answer', async () => {
  const progress: number[] = [];
  const { answer } = runHeatPlan(request, (doneS) => progress.push(doneS));
  expect(structuredClone(FakeWorker.last.sent[0])).toEqual(request);
  FakeWorker.last.reply({ kind: 'progress', doneS: 12, totalS: 100 });
  FakeWorker.last.reply({ kind: 'problem', words: 'The simulation stopped.' });
  expect(progress).toEqual([12]);
  expect(await answer).toEqual({ kind: 'problem', words: 'The simulation stopped.' });
  expect(FakeWorker.last.ended).toBe(true);
});

test('cancelling ends the worker and answers', async () => {
  const { answer, cancel } = runHeatPlan(request, () => {});
  cancel();
  expect(await answer).toEqual({ kind: 'cancelled' });
  expect(FakeWorker.last.ended).toBe(true);
});

test.each(['onerror', 'onmessageerror'] as const)(
  'a worker that ends by %s becomes a problem that can be tried again',
  async (event) => {
    const { answer } = runHeatPlan(request, () => {});
    FakeWorker.last[event]!();
    expect(await answer).toMatchObject({ kind: 'problem', words: expect.stringMatching(/try again/) });
  },
);
