/** Stands in for the browser's worker: the test plays the other side. */
export class FakeWorker<Reply> {
  static last: FakeWorker<unknown>;
  onmessage?: (event: { data: Reply }) => void;
  onerror?: () => void;
  onmessageerror?: () => void;
  readonly sent: unknown[] = [];
  ended = false;

  constructor() {
    FakeWorker.last = this as FakeWorker<unknown>;
  }
  postMessage(message: unknown): void {
    this.sent.push(structuredClone(message));
  }
  terminate(): void {
    this.ended = true;
  }
  reply(data: Reply): void {
    this.onmessage?.({ data });
  }
}

/** Every worker that is made from here on is a fake one. */
export const fakeWorkers = (): void => void Object.assign(globalThis, { Worker: FakeWorker });
