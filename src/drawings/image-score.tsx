'use client';

import { useMemo, type KeyboardEvent } from 'react';
import { Box, Text, chakra } from '@chakra-ui/react';
import { stretchAt, type AlignedStretch, type ImageFamily } from '@/core/image';
import { formatHex, formatOffset } from '@/core/units';

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
        <System key={offset} {...{ voices, family, offset, selected, onChoose }} />
      ))}
    </Box>
  );
}

type SystemProps = Pick<ImageScoreProps, 'voices' | 'family' | 'selected' | 'onChoose'> & { readonly offset: number };

function System({ voices, family, offset, selected, onChoose }: SystemProps) {
  const [first, ...others] = voices;
  const region = useMemo(() => regionNear(family, offset), [family, offset]);
  const lines = others.map((voice) => lineOf(first.bytes, voice, offset));
  return (
    <Box
      display="grid"
      gridTemplateColumns="76px 1fr"
      columnGap="3"
      borderBottom="1px solid"
      borderColor="rule"
      py="0.5"
    >
      <Text color={region ? 'ink' : 'quiet'} fontWeight={region ? 700 : 400} whiteSpace="nowrap">
        {formatOffset(offset)}
      </Text>
      <Box>
        {region && (
          <Text fontFamily="body" fontSize="13px" fontWeight="700" color="copperText">
            {region}
          </Text>
        )}
        <FirstLine bytes={first.bytes} offset={offset} selected={selected} onChoose={onChoose} />
        {lines.map(
          (line, k) =>
            line.some((cell) => cell.kind !== 'same') && (
              <Box key={k} whiteSpace="pre" color="rust" title={others[k].name}>
                {line.map((cell, i) => (
                  <span key={i}>
                    {gapBefore(i)}
                    {cell.text}
                  </span>
                ))}
                <chakra.span color="quiet" fontFamily="body">
                  {'  '}
                  {others.length > 1 ? `${k + 2} ` : ''}
                  {noteOf(line)}
                </chakra.span>
              </Box>
            ),
        )}
      </Box>
    </Box>
  );
}

/** Bytes stand in fours; a wider space after each eight. */
const gapBefore = (i: number): string => (i === 0 ? '' : i % 8 === 0 ? '  ' : i % 4 === 0 ? ' ' : '');

function FirstLine({
  bytes,
  offset,
  selected,
  onChoose,
}: {
  bytes: Uint8Array;
  offset: number;
  selected?: { readonly from: number; readonly to: number };
  onChoose?: (offset: number, extend: boolean) => void;
}) {
  const row = bytes.subarray(offset, offset + SCORE_BYTES);
  const text = textIn(row);
  return (
    <Box whiteSpace="pre">
      {Array.from(row, (byte, i) => {
        const place = offset + i;
        const isChosen = selected !== undefined && place >= selected.from && place < selected.to;
        return (
          <chakra.span key={i}>
            {gapBefore(i)}
            <chakra.span
              color={isChosen ? 'paper' : byte === 0xff || byte === 0 ? 'quiet' : 'ink'}
              bg={isChosen ? 'copperText' : undefined}
              opacity={!isChosen && byte === 0xff ? 0.75 : 1}
              cursor={onChoose ? 'pointer' : undefined}
              onClick={onChoose && ((e) => onChoose(place, e.shiftKey))}
            >
              {byte === 0xff ? '··' : formatHex(byte, 2)}
            </chakra.span>
          </chakra.span>
        );
      })}
      {text && (
        <chakra.span fontFamily="body" fontStyle="italic" color="tinText">
          {'  '}
          {text}
        </chakra.span>
      )}
    </Box>
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
