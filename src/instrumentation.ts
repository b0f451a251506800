/** Migrations run before the first request is answered. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { database } = await import('./db/client');
  await database();
}
