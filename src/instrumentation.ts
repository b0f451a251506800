/** The database is opened before the first request is answered; the boards' tables are computed while nobody waits yet. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { startBench } = await import('./application/start');
  await startBench();
}
