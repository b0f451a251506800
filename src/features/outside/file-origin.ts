import { sha256Hex } from '@/core/image';
import type { Origin } from '@/core/job';

const LONGEST_NAME = 200;

/** A value's origin where it was read from a file's bytes. */
export const originOfBytes = (
  name: string,
  bytes: Uint8Array,
  reader?: string,
  answers: Readonly<Record<string, string>> = {},
): Origin => ({
  kind: 'file',
  name: name.slice(0, LONGEST_NAME),
  sha256: sha256Hex(bytes),
  ...(reader !== undefined && { reader }),
  ...(Object.keys(answers).length > 0 && { answers }),
});

/** A value's origin where it was read from a file of any kind. */
export const originOfFile = async (
  file: File,
  reader?: string,
  answers?: Readonly<Record<string, string>>,
): Promise<Origin> => originOfBytes(file.name, new Uint8Array(await file.arrayBuffer()), reader, answers);
