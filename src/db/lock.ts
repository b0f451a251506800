/** Gives one holder at a time; the others wait in line. */
export class Lock {
  private tail: Promise<void> = Promise.resolve();

  /**
   * @returns a function that releases the lock; calling it again does nothing.
   * @throws when the lock was not free within `patienceMs`: then a write inside a transaction used the outer handle.
   */
  async acquire(patienceMs = 20_000): Promise<() => void> {
    const before = this.tail;
    let release = (): void => {};
    this.tail = new Promise((resolve) => (release = resolve));
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<'late'>((resolve) => (timer = setTimeout(() => resolve('late'), patienceMs)));
    const got = await Promise.race([before.then(() => 'free' as const), late]);
    clearTimeout(timer);
    if (got === 'late') {
      void before.then(release);
      throw new Error(
        `database write lock not free after ${patienceMs} ms: inside a transaction, write through tx only`,
      );
    }
    return release;
  }
}
