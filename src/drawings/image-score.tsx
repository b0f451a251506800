'use client';

import { memo, type CSSProperties, type KeyboardEvent, type MouseEvent } from 'react';
import { Box } from '@chakra-ui/react';
import { stretchAt, type AlignedStretch, type ImageFamily } from '@/core/image';
import { formatHex, formatOffset } from '@/core/units';
import { face, tone } from '@/ui';

export const SCORE_BYTES = 32;

export interface ScoreVoice {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** How it lies against the first; none for the first itself. */
  readonly aligned?: readonly AlignedStretch[];
}

interface ImageScoreProps {
  readonly voices: readonly ScoreVoice[];
  readonly family?: ImageFamily;
  /** Offset of the first system shown, a multiple of its bytes. */
  readonly at: number;
  readonly systems: number;
  readonly onGo: (offset: number) => void;
  readonly selected?: { readonly from: number; readonly to: number };
  /** A byte was chosen; `extend`: the choice goes on to it. */
  readonly onChoose?: (offset: number, extend: boolean) => void;
}

/**
 * Images as a score: each system is 32 bytes, its first line the first image in full, below it a line for each other
 * image that writes only what differs. Moved content is laid where it belongs.
 */
export function ImageScore({ voices, family, at, systems, onGo, selected, onChoose }: ImageScoreProps) {
  const [first] = voices;
  const last = Math.max(0, Math.ceil(first.bytes.length / SCORE_BYTES) - systems) * SCORE_BYTES;
  const go = (offset: number): void => onGo(Math.min(last, Math.max(0, offset - (offset % SCORE_BYTES))));
  const offsets = Array.from({ length: systems }, (_, k) => at + k * SCORE_BYTES).filter((o) => o < first.bytes.length);

  function onKeyDown(e: KeyboardEvent): void {
    const page = (systems - 1) * SCORE_BYTES;
    const to = {
      ArrowDown: at + SCORE_BYTES,
      ArrowUp: at - SCORE_BYTES,
      PageDown: at + page,
      PageUp: at - page,
      Home: 0,
      End: last,
    }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    go(to);
  }
  return (
    <Box
      tabIndex={0}
      role="group"
      aria-label={`Bytes from ${formatOffset(at)}; arrow and page keys move`}
      onKeyDown={onKeyDown}
      onWheel={(e) => go(at + Math.sign(e.deltaY) * 3 * SCORE_BYTES)}
      fontFamily="mono"
      fontSize="13px"
      lineHeight="1.35"
      overflow="hidden"
      css={{ overscrollBehavior: 'contain' }}
      borderTop="1px solid"
      borderColor="rule"
    >
      {offsets.map((offset) => (
        <System key={offset} {...{ voices, family, offset, onChoose }} selected={withinSystem(selected, offset)} />
      ))}
    </Box>
  );
}

/** The part of a choice that concerns a system: the others need not be drawn again. */
function withinSystem(selected: ImageScoreProps['selected'], offset: number): ImageScoreProps['selected'] {
  return selected && selected.from < offset + SCORE_BYTES && selected.to > offset ? selected : undefined;
}

type SystemProps = Pick<ImageScoreProps, 'voices' | 'family' | 'selected' | 'onChoose'> & { readonly offset: number };

// Plain elements: a system has some forty, and styled ones made scrolling stall (measured).
const STYLE = {
  system: {
    display: 'grid',
    gridTemplateColumns: '76px 1fr',
    columnGap: 12,
    borderBottom: `1px solid ${tone.rule}`,
    padding: '2px 0',
    whiteSpace: 'pre',
  },
  region: { fontFamily: face.text, fontWeight: 700, color: tone.copperText },
  note: { color: tone.quiet, fontFamily: face.text },
  text: { color: tone.tinText, fontFamily: face.text, fontStyle: 'italic' },
  chosen: { color: tone.paper, background: tone.copperText },
  quiet: { color: tone.quiet },
} satisfies Record<string, CSSProperties>;

const System = memo(function System({ voices, family, offset, selected, onChoose }: SystemProps) {
  const [first, ...others] = voices;
  const region = regionNear(family, offset);
  return (
    <div style={STYLE.system}>
      <span style={region ? { fontWeight: 700 } : STYLE.quiet}>{formatOffset(offset)}</span>
      <div>
        {region && <div style={STYLE.region}>{region}</div>}
        <FirstLine bytes={first.bytes} offset={offset} selected={selected} onChoose={onChoose} />
        {others.map((voice, k) => {
          const line = lineOf(first.bytes, voice, offset);
          if (line.every((cell) => cell.kind === 'same')) return null;
          return (
            <div key={k} style={{ color: tone.rust }} title={voice.name}>
              {line.map((cell, i) => gapBefore(i) + cell.text).join('')}
              <span style={STYLE.note}>
                {'  '}
                {others.length > 1 ? `${k + 2} ` : ''}
                {noteOf(line)}
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
});

/** Bytes stand in fours; a wider space after each eight. */
const gapBefore = (i: number): string => (i === 0 ? '' : i % 8 === 0 ? '  ' : i % 4 === 0 ? ' ' : '');

type Look = 'plain' | 'quiet' | 'chosen';

/** Bytes that look alike stand in one element; where bytes can be chosen each has its own. */
function FirstLine({
  bytes,
  offset,
  selected,
  onChoose,
}: Pick<ImageScoreProps, 'selected' | 'onChoose'> & { readonly bytes: Uint8Array; readonly offset: number }) {
  const row = bytes.subarray(offset, offset + SCORE_BYTES);
  const text = textIn(row);
  const runs: { at: number; look: Look; digits: string }[] = [];
  row.forEach((byte, i) => {
    const place = offset + i;
    const isChosen = selected !== undefined && place >= selected.from && place < selected.to;
    const look = isChosen ? 'chosen' : byte === 0xff || byte === 0 ? 'quiet' : 'plain';
    const digits = gapBefore(i) + (byte === 0xff ? '··' : formatHex(byte, 2));
    const last = runs[runs.length - 1];
    if (!onChoose && last?.look === look) last.digits += digits;
    else runs.push({ at: place, look, digits });
  });
  const choose = (e: MouseEvent<HTMLElement>): void => {
    const at = (e.target as HTMLElement).dataset.at;
    if (at !== undefined) onChoose?.(Number(at), e.shiftKey);
  };
  return (
    <div onClick={onChoose && choose} style={onChoose && { cursor: 'pointer' }}>
      {runs.map(({ at, look, digits }) => (
        <span key={at} data-at={at} style={look === 'plain' ? undefined : STYLE[look]}>
          {digits}
        </span>
      ))}
      {text && (
        <span style={STYLE.text}>
          {'  '}
          {text}
        </span>
      )}
    </div>
  );
}

/** Letters in a row that are worth reading. */
const LEAST_LETTERS = 6;

const textIn = (row: Uint8Array): string =>
  (String.fromCharCode(...row).match(/[\x20-\x7e]{6,}/g) ?? [])
    .filter((t) => t.trim().length >= LEAST_LETTERS)
    .join(' … ');

interface Cell {
  readonly kind: 'same' | 'differs' | 'absent';
  readonly text: string;
  /** How far it stands from its place. */
  readonly shift?: number;
  /** Bytes that the other has before it. */
  readonly extra?: number;
}

/** What another image has against each byte of a system. */
function lineOf(first: Uint8Array, { bytes, aligned = [] }: ScoreVoice, offset: number): Cell[] {
  const end = Math.min(first.length, offset + SCORE_BYTES);
  const cells: Cell[] = [];
  let k = stretchAt(aligned, offset);
  for (let i = offset; i < end; i++) {
    while (k + 1 < aligned.length && aligned[k + 1].offset <= i) k += 1;
    const stretch = aligned[k];
    const shift = stretch?.shift;
    const extra = stretch?.offset === i ? stretch.extraBefore : undefined;
    const told = { shift, ...(extra && { extra }) };
    if (shift === undefined) cells.push({ kind: 'absent', text: '--' });
    else if (bytes[i + shift] === first[i] && !extra) cells.push({ ...told, kind: 'same', text: '  ' });
    else
      cells.push({
        ...told,
        kind: 'differs',
        text: bytes[i + shift] === first[i] ? '‸ ' : formatHex(bytes[i + shift], 2),
      });
  }
  return cells;
}

/** What the digits of a line do not show: bytes more, bytes missing, content that moved. */
function noteOf(line: readonly Cell[]): string {
  const extra = line.reduce((sum, c) => sum + (c.extra ?? 0), 0);
  const absent = line.filter((c) => c.kind === 'absent').length;
  const shift = line.find((c) => c.shift)?.shift;
  return [
    extra > 0 && `${extra.toLocaleString('en')} more here`,
    absent > 0 && `${absent} missing`,
    shift && `moved by ${shift > 0 ? '+' : '−'}${Math.abs(shift)}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The region that begins within a system, if one does. */
function regionNear(family: ImageFamily | undefined, offset: number): string | undefined {
  const names = family?.regions.filter((r) => r.offset >= offset && r.offset < offset + SCORE_BYTES).map((r) => r.name);
  return names?.length ? names.join(' · ') : undefined;
}
