import { sha256Hex } from '@/core/image';
import type { Origin } from '@/core/job';

const LONGEST_NAME = 200;

/** A value's origin where it was read from a file's bytes. */
export const originOfBytes = (name: string, bytes: Uint8Array): Origin => ({
  kind: 'file',
  name: name.slice(0, LONGEST_NAME),
  sha256: sha256Hex(bytes),
});

/** A value's origin where it was read from a file of any kind. */
export const originOfFile = async (file: File): Promise<Origin> =>
  originOfBytes(file.name, new Uint8Array(await file.arrayBuffer()));
