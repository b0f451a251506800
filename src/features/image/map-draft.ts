import { parseImageFamily, type ImageFamily, type ProposedStretch, type Region, type StretchKind } from '@/core/image';
import { fail, type Result } from '@/core/result';
import { formatHex } from '@/core/units';

/** A region as it is typed: offsets and lengths in hexadecimal. */
export interface DraftRegion {
  readonly name: string;
  readonly offset: string;
  readonly length: string;
  readonly meaning: Region['meaning'];
  readonly coversFrom: string;
  readonly coversLength: string;
  readonly algorithm: string;
  readonly bigEndian: boolean;
  readonly copyOf: string;
  readonly position: string;
}

/** A map as it is typed; what cannot be edited here is carried along. */
export interface MapDraft {
  readonly id: string;
  readonly name: string;
  readonly magicHex: string;
  readonly sizeBytes: number;
  readonly rest: Pick<ImageFamily, 'positionOffset' | 'positions' | 'fields' | 'revision'>;
  readonly regions: readonly DraftRegion[];
}

const typed = (value: number): string => formatHex(value, 4);
export const DEFAULT_ALGORITHM = 'CRC-32/ISO-HDLC';

const EMPTY: DraftRegion = {
  ...{ name: '', offset: '', length: '', meaning: 'code', coversFrom: '', coversLength: '' },
  ...{ algorithm: DEFAULT_ALGORITHM, bigEndian: false, copyOf: '', position: '' },
};

export const draftOf = ({ id, name, magicHex, sizeBytes, regions, ...others }: ImageFamily): MapDraft => {
  const { positionOffset, positions, fields, revision } = others;
  return {
    ...{ id, name, magicHex, sizeBytes, rest: { positionOffset, positions, fields, revision } },
    regions: regions.map((r) => ({
      ...EMPTY,
      ...{ name: r.name, offset: typed(r.offset), length: typed(r.length), meaning: r.meaning },
      ...(r.covers && { coversFrom: typed(r.covers.offset), coversLength: typed(r.covers.length) }),
      ...{ algorithm: r.algorithm ?? DEFAULT_ALGORITHM, bigEndian: r.bigEndian ?? false, copyOf: r.copyOf ?? '' },
      position: r.position === undefined ? '' : String(r.position),
    })),
  };
};

/** Bytes that a new family's images begin with. */
const MAGIC_BYTES = 4;

/** A map for an image that no family describes yet. */
export const emptyDraft = (bytes: Uint8Array): MapDraft => ({
  ...{ id: 'new-family', name: 'New family', sizeBytes: bytes.length, rest: {}, regions: [] },
  magicHex: Array.from(bytes.subarray(0, MAGIC_BYTES), (b) => b.toString(16).padStart(2, '0')).join(''),
});

export const withRegion = (draft: MapDraft, from: number, to: number): MapDraft => ({
  ...draft,
  regions: [
    ...draft.regions,
    { ...EMPTY, name: `part ${draft.regions.length + 1}`, offset: typed(from), length: typed(to - from) },
  ].sort((a, b) => parseInt(a.offset, 16) - parseInt(b.offset, 16)),
});

const MEANING_OF: Readonly<Record<StretchKind, Region['meaning']>> = {
  ...{ erased: 'padding', text: 'code', pointers: 'code', dense: 'code', code: 'code', sparse: 'settings' },
  checksum: 'checksum',
};

/** What was proposed, taken as regions: numbered names, checksum fields cut out of what they lie in. */
export function draftFromProposal(draft: MapDraft, proposed: readonly ProposedStretch[]): MapDraft {
  const fields = proposed.filter((s) => s.kind === 'checksum');
  const pieces = proposed.filter((s) => s.kind !== 'checksum').flatMap((s) => around(s, fields));
  const counts = new Map<string, number>();
  const all = [...pieces, ...fields].sort((a, b) => a.offset - b.offset);
  const names = all.map(({ kind }) => {
    const n = (counts.get(kind) ?? 0) + 1;
    counts.set(kind, n);
    return `${kind} ${n}`;
  });
  const first = (s: ProposedStretch): string | undefined => {
    const k = all.findIndex((o) => o.offset === s.copyOf && o.length === s.length);
    return k >= 0 ? names[k] : undefined;
  };
  return {
    ...draft,
    regions: all.map((s, k) => ({
      ...EMPTY,
      ...{ name: names[k], offset: typed(s.offset), length: typed(s.length), meaning: MEANING_OF[s.kind] },
      ...{ copyOf: first(s) ?? '', ...(s.checksum && checksumTyped(s.checksum)) },
    })),
  };
}

const checksumTyped = ({
  algorithm,
  from,
  to,
  field,
}: NonNullable<ProposedStretch['checksum']>): Partial<DraftRegion> => ({
  ...{ algorithm, coversFrom: typed(from), coversLength: typed(to - from), bigEndian: field.bigEndian },
});

/** A stretch without the fields that lie in it. */
function around(stretch: ProposedStretch, fields: readonly ProposedStretch[]): ProposedStretch[] {
  const pieces: ProposedStretch[] = [];
  let at = stretch.offset;
  const end = stretch.offset + stretch.length;
  for (const f of fields.filter((x) => x.offset >= stretch.offset && x.offset < end)) {
    if (f.offset > at) pieces.push({ ...stretch, offset: at, length: f.offset - at });
    at = Math.max(at, f.offset + f.length);
  }
  if (end > at) pieces.push({ ...stretch, offset: at, length: end - at });
  return pieces;
}

/** The map that is typed, checked; the first thing that is not a figure is named. */
export function familyOfDraft({ id, name, magicHex, sizeBytes, rest, regions }: MapDraft): Result<ImageFamily> {
  for (const r of regions) {
    const figures = [r.offset, r.length, ...(r.meaning === 'checksum' ? [r.coversFrom, r.coversLength] : [])];
    const bad = figures.find((f) => !/^[0-9a-f]+$/i.test(f.trim()));
    if (bad !== undefined)
      return fail(
        `Expected a hexadecimal figure; got ${bad.trim() || 'nothing'}.`,
        r.name || 'a region without a name',
      );
  }
  const hex = (text: string): number => parseInt(text.trim(), 16);
  return parseImageFamily({
    ...{ format: 'unisolda-image-family/1', id, name, sizeBytes, magicHex: magicHex.toLowerCase(), ...rest },
    regions: regions.map((r) => ({
      ...{ name: r.name.trim(), offset: hex(r.offset), length: hex(r.length), meaning: r.meaning },
      ...(r.meaning === 'checksum' && {
        covers: { offset: hex(r.coversFrom), length: hex(r.coversLength) },
        ...(r.algorithm !== DEFAULT_ALGORITHM && { algorithm: r.algorithm }),
        ...(r.bigEndian && { bigEndian: true }),
      }),
      ...(r.copyOf && { copyOf: r.copyOf }),
      ...(r.meaning === 'settings' && /^\d+$/.test(r.position) && { position: Number(r.position) }),
    })),
  });
}
