/** The worker's side of a task. */
import { fail, ok, type Result } from '../core/result';
import { atMostEvery, serveTask } from './serve';
import type { TaskReply, WorkerTask } from './task';

type Halves = WorkerTask<number, number, string>;

/** What a worker that computes so says to a request. */
async function said(
  compute: (n: number, tell: (progress: string) => void) => Result<number> | Promise<Result<number>>,
  moved?: (value: number) => Transferable[],
): Promise<[TaskReply<number, string>, Transferable[] | undefined][]> {
  const posted: [TaskReply<number, string>, Transferable[] | undefined][] = [];
  const scope = {
    onmessage: undefined as ((event: { data: number }) => Promise<void>) | undefined,
    postMessage: (reply: TaskReply<number, string>, { transfer }: { transfer?: Transferable[] }) =>
      void posted.push([reply, transfer]),
  };
  Object.assign(globalThis, { self: scope });
  serveTask<Halves>({ stopped: 'Halving stopped', compute, moved });
  await scope.onmessage!({ data: 6 });
  return posted;
}

test('a value comes with its time, and what it moves; progress before it', async () => {
  const bytes = new ArrayBuffer(4);
  const [progress, done] = await said(
    async (n, tell) => {
      tell('began');
      return ok(n / 2);
    },
    () => [bytes],
  );
  expect(progress[0]).toMatchObject({ kind: 'progress', progress: 'began', tookMs: expect.any(Number) });
  expect(done).toEqual([{ kind: 'done', value: 3, tookMs: expect.any(Number) }, [bytes]]);
});

test('what cannot be answered is told in its own sentence; what breaks says what stopped, and why', async () => {
  expect(await said((n) => fail(`Expected an odd number; got ${n}.`))).toEqual([
    [{ kind: 'problem', message: 'Expected an odd number; got 6.' }, []],
  ]);
  const broken = await said(() => {
    throw new Error('no memory');
  });
  expect(broken[0][0]).toEqual({ kind: 'problem', message: 'Halving stopped: no memory' });
});

test('progress that comes quicker than it is told is left out', () => {
  const clock = jest.spyOn(performance, 'now');
  const told: number[] = [];
  clock.mockReturnValue(0);
  const tell = atMostEvery<number>(60, (k) => told.push(k));
  for (const ms of [10, 59, 60, 100, 121]) {
    clock.mockReturnValue(ms);
    tell(ms);
  }
  clock.mockRestore();
  expect(told).toEqual([60, 121]);
});
