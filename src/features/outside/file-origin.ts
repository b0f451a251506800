import { sha256Hex, sha256OfText } from '@/core/image';
import type { Origin } from '@/core/job';

const LONGEST_NAME = 200;

/** A value's origin where it was read from a text file. */
export const originOfText = (name: string, text: string): Origin => ({
  kind: 'file',
  name: name.slice(0, LONGEST_NAME),
  sha256: sha256OfText(text),
});

/** A value's origin where it was read from a file of any kind. */
export const originOfFile = async (file: File): Promise<Origin> => ({
  kind: 'file',
  name: file.name.slice(0, LONGEST_NAME),
  sha256: sha256Hex(new Uint8Array(await file.arrayBuffer())),
});
