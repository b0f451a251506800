/** Migrations run before the first request is answered; the boards' tables are computed while nobody waits yet. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { database } = await import('./db/client');
  const db = await database();
  void import('./db/boards').then(async ({ listBoards }) => {
    const { warmUp } = await import('./core/diagnose');
    for (const board of await listBoards(db)) {
      await new Promise((resolve) => setTimeout(resolve, BETWEEN_BOARDS_MS));
      warmUp(board);
    }
  });
}

/** Requests get through between two boards. */
const BETWEEN_BOARDS_MS = 200;
