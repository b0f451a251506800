import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { parseBoardText, photoPlaceSchema, type Board, type PhotoPlace, type Side } from '../board';
import { sha256Hex } from '../image';
import { hiddenInJpeg, pictureType } from '../picture';
import { parseReferencesCsv, referencesCsv, type ReferenceReading } from '../reference';
import { fail, ok, problemText, type Result } from '../result';

/** All that belongs to a board: its file, its photographs, what was read on good ones. */
export interface BoardPackage {
  readonly board: Board;
  readonly photos: readonly { readonly side: Side; readonly place: PhotoPlace; readonly jpeg: Uint8Array }[];
  readonly references: readonly ReferenceReading[];
}

const MANIFEST = 'manifest.json';
const BOARD = 'board.json';
const REFERENCES = 'references.csv';
const photoName = (side: Side): string => `${side}.jpg`;

/** The manifest of a board package `unisolda-package/1`: every file with its size and hash. */
export const packageManifestSchema = z.object({
  format: z.literal('unisolda-package/1'),
  board: z.string(),
  files: z.record(
    z.string().regex(/^[a-z0-9.-]+$/, 'expected a plain file name'),
    z.object({ bytes: z.number().int().min(0), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
  photos: z
    .partialRecord(z.enum(['front', 'back']), photoPlaceSchema)
    .default({})
    .describe('where each lies on the board'),
});

/** Larger packages are none of a board, bytes; and no file in one is larger than that. */
const MOST_BYTES = 40e6;
const MOST_FILES = 12;

/** Packs a board into one archive (zip) with a manifest of hashes. */
export function packBoard({ board, photos, references }: BoardPackage): Uint8Array {
  const files: Record<string, Uint8Array> = {
    [BOARD]: strToU8(JSON.stringify(board, null, 1)),
    ...(references.length > 0 && { [REFERENCES]: strToU8(referencesCsv(references)) }),
    ...Object.fromEntries(photos.map((p) => [photoName(p.side), p.jpeg])),
  };
  const manifest = {
    format: 'unisolda-package/1',
    board: board.id,
    files: Object.fromEntries(
      Object.entries(files).map(([name, b]) => [name, { bytes: b.length, sha256: sha256Hex(b) }]),
    ),
    photos: Object.fromEntries(photos.map((p) => [p.side, p.place])),
  };
  return zipSync({ [MANIFEST]: strToU8(JSON.stringify(manifest, null, 1)), ...files }, { mtime: FIXED_TIME });
}

/** Archives of the same board are the same bytes: nothing in them says when they were made. */
const FIXED_TIME = new Date(1980, 0, 1);

/**
 * Opens a package and holds it against its manifest.
 * @returns all of it, or a sentence: no archive, too large, a file that is missing or not as the manifest has it.
 */
export function openPackage(bytes: Uint8Array): Result<BoardPackage> {
  if (bytes.length > MOST_BYTES)
    return fail(`Expected a board package of at most ${MOST_BYTES / 1e6} MB; got ${(bytes.length / 1e6).toFixed(0)}.`);
  const files = unpacked(bytes);
  if (!files.ok) return files;
  const text = files.value[MANIFEST];
  if (!text) return fail('Expected a board package with its manifest; this archive has none.');
  const manifest = readManifest(strFromU8(text));
  if (!manifest.ok) return manifest;
  for (const [name, { bytes: size, sha256 }] of Object.entries(manifest.value.files)) {
    const file = files.value[name];
    if (!file) return fail(`The manifest names ${name}; it is not in the archive.`);
    if (file.length !== size || sha256Hex(file) !== sha256)
      return fail(`${name} is not as the manifest has it: the archive was changed or is damaged.`);
  }
  const extra = Object.keys(files.value).find((name) => name !== MANIFEST && !manifest.value.files[name]);
  if (extra !== undefined) return fail(`Expected the files of the manifest only; got ${extra} as well.`);
  return contentsOf(files.value, manifest.value.photos);
}

function unpacked(bytes: Uint8Array): Result<Record<string, Uint8Array>> {
  let [files, size] = [0, 0];
  try {
    return ok(
      unzipSync(bytes, {
        filter: ({ originalSize }) => {
          size += originalSize;
          // Declared sizes are looked at before anything is unpacked.
          if (++files > MOST_FILES || size > MOST_BYTES) throw new Error('it holds more than a board package does');
          return true;
        },
      }),
    );
  } catch (error) {
    return fail(`Expected a board package (zip); got something else: ${(error as Error).message}.`);
  }
}

function readManifest(text: string): Result<z.infer<typeof packageManifestSchema>> {
  try {
    const parsed = packageManifestSchema.safeParse(JSON.parse(text));
    return parsed.success ? ok(parsed.data) : fail(`The manifest cannot be read: ${parsed.error.issues[0].message}.`);
  } catch {
    return fail('The manifest cannot be read: it is no JSON.');
  }
}

function contentsOf(
  files: Readonly<Record<string, Uint8Array>>,
  places: Readonly<Partial<Record<Side, PhotoPlace>>>,
): Result<BoardPackage> {
  const board = parseBoardText(strFromU8(files[BOARD] ?? new Uint8Array()));
  if (!board.ok) return fail(`${BOARD}: ${problemText(board.problems)}`);
  const references = files[REFERENCES] ? parseReferencesCsv(strFromU8(files[REFERENCES])) : ok([]);
  if (!references.ok) return fail(`${REFERENCES}: ${problemText(references.problems)}`);
  const photos: BoardPackage['photos'][number][] = [];
  for (const side of ['front', 'back'] as const) {
    const jpeg = files[photoName(side)];
    const place = places[side];
    if (!jpeg || !place) continue;
    if (pictureType(jpeg) !== 'image/jpeg') return fail(`${photoName(side)}: expected a JPEG picture.`);
    const hidden = hiddenInJpeg(jpeg);
    if (hidden) return fail(`${photoName(side)}: expected nothing but the picture; it carries ${hidden}.`);
    photos.push({ side, place, jpeg });
  }
  return ok({ board: board.value, photos, references: references.value });
}
