import { z } from 'zod';
import { filePresetSchema, MOST_PRESETS, type FilePreset } from '../core/import';
import type { Database } from '../db/client';
import { findFilePresets, saveFilePresets } from '../db/knowledge';
import type { Session } from '../db/session';
import { refused, type ActionResult } from './action-result';
import { keep } from './once';

const listSchema = z.array(filePresetSchema).max(MOST_PRESETS);

/** What was said of the instruments' files of this bench. */
export const loadFilePresets = async (db: Session): Promise<FilePreset[]> =>
  (await findFilePresets(db, (json) => listSchema.parse(json))) ?? [];

/** Keeps what a person said of an instrument's files; the same name or the same look of files replaces what was said before. */
export async function keepFilePreset(db: Database, preset: unknown): Promise<ActionResult> {
  const parsed = filePresetSchema.safeParse(preset);
  if (!parsed.success) return refused('Expected a name for the instrument, of at most 60 letters.', 'badInput');
  return keep(db, 'file presets', async (tx) => {
    const { name, reader, signature } = parsed.data;
    const others = (await loadFilePresets(tx)).filter(
      (p) => p.name !== name && !(p.reader === reader && p.signature === signature),
    );
    await saveFilePresets(tx, [...others, parsed.data].slice(-MOST_PRESETS));
    return `Kept: files like it are read as those of ${name} from now on.`;
  });
}
