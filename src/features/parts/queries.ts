import 'server-only';
import * as parts from '@/application/library/parts';
import { database } from '@/db/client';

export type { Parts } from '@/application/library/parts';

/** All part types, how this bench treats their families, and what was reported of them. */
export const loadParts = async () => parts.loadParts(await database());
