import { rmSync } from 'node:fs';
import type { Client } from '@libsql/client';

/**
 * Saves what an open database still holds beside the place where its file was. A deleted or replaced file is still whole for
 * whoever has it open; a cut one may not be.
 * @returns in a sentence where it was saved, or that it could not be.
 */
export async function rescue(client: Client, file: string, now = new Date()): Promise<string> {
  const copy = `${file}.saved-${now.toISOString().replace(/[:.]/g, '-')}`;
  try {
    await client.execute(`VACUUM INTO '${copy.replaceAll("'", "''")}'`);
    return `What was kept until now is saved in ${copy}.`;
  } catch {
    rmSync(copy, { force: true });
    return 'What was in it cannot be read any more: restore the last copy.';
  }
}
