/** Stands in for the browser's worker: the test plays the other side. */
export class FakeWorker {
  static readonly made: FakeWorker[] = [];
  onmessage?: (event: { data: unknown }) => void;
  onerror?: () => void;
  onmessageerror?: () => void;
  readonly sent: unknown[] = [];
  ended = false;

  constructor() {
    FakeWorker.made.push(this);
  }
  static get last(): FakeWorker {
    return FakeWorker.made[FakeWorker.made.length - 1];
  }
  postMessage(message: unknown): void {
    this.sent.push(structuredClone(message));
  }
  terminate(): void {
    this.ended = true;
  }
  done(value: unknown, tookMs = 1): void {
    this.onmessage?.({ data: { kind: 'done', value, tookMs } });
  }
}

/** Every worker that is made from here on is a fake one. */
export const fakeWorkers = (): void => void Object.assign(globalThis, { Worker: FakeWorker });
