'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { ImageFamily, OverviewCell, Texture } from '@/core/image';
import { tone } from '@/ui';

/** One image as a band. */
export interface StripRow {
  readonly name: string;
  readonly overview: readonly OverviewCell[];
}

interface ImageStripProps {
  readonly family?: ImageFamily;
  readonly rows: readonly StripRow[];
  readonly sizeBytes: number;
  /** The part that is looked at. */
  readonly window?: { readonly offset: number; readonly length: number };
  readonly onGo?: (offset: number) => void;
}

const BAND = 34;
const GAP = 3;
/** How high each texture stands in its band: the fuller the content, the fuller the band. */
const LEVEL: Readonly<Record<Texture, number>> = { erased: 0, zero: 0.06, plain: 0.3, text: 0.5, code: 0.75, dense: 1 };

/** Whole images from left to right, one band each: how full it is, and in rust what differs from the first. */
export function ImageStrip({ family, rows, sizeBytes, window, onGo }: ImageStripProps) {
  const count = rows[0].overview.length;
  const height = rows.length * (BAND + GAP) - GAP;
  const at = (offset: number): number => (offset / sizeBytes) * count;
  return (
    <Box
      my="2"
      display="grid"
      gridTemplateColumns={rows.length > 1 ? 'minmax(0, 1fr) minmax(0, 150px)' : '1fr'}
      columnGap="3"
    >
      <Box bg="mat">
        <svg
          viewBox={`0 0 ${count} ${height}`}
          preserveAspectRatio="none"
          style={{ display: 'block', width: '100%', height, cursor: onGo ? 'pointer' : undefined }}
          role="img"
          aria-label={
            rows.length > 1 ? `${rows.length} images, and where they differ from the first` : 'The image at a glance'
          }
          onClick={(e) => {
            const box = e.currentTarget.getBoundingClientRect();
            onGo?.(Math.floor(((e.clientX - box.left) / box.width) * sizeBytes));
          }}
        >
          {rows.map((row, k) => (
            <Band key={k} row={row} y={k * (BAND + GAP)} />
          ))}
          {(family?.regions ?? []).map((r) => (
            <line
              key={r.name}
              x1={at(r.offset)}
              x2={at(r.offset)}
              y1={0}
              y2={height}
              stroke={tone.matLine}
              strokeWidth={count / 1600}
              opacity={0.7}
            />
          ))}
          {window && (
            <rect
              x={at(window.offset)}
              width={Math.max(count / 400, at(window.length))}
              y={0}
              height={height}
              fill="none"
              stroke={tone.matCopper}
              strokeWidth={2}
              vectorEffect="non-scaling-stroke"
            />
          )}
        </svg>
      </Box>
      {rows.length > 1 && (
        <Box fontSize="13px">
          {rows.map((row, k) => (
            <Text
              key={k}
              title={row.name}
              h={`${BAND + GAP}px`}
              lineHeight="1.25"
              overflow="hidden"
              fontWeight={k === 0 ? 700 : 400}
            >
              {row.name}
            </Text>
          ))}
        </Box>
      )}
      <RegionNames family={family} />
      <Flex gap="4" fontSize="13px" color="quiet" gridColumn="1 / -1">
        <span>
          low: nearly empty · half: text · high: code · full: packed
          {rows.length > 1 ? ' · red from the top: differs' : ''}
        </span>
      </Flex>
    </Box>
  );
}

/** Stretches of one texture as one shape; differences hang from the top. */
function Band({ row: { overview }, y }: { row: StripRow; y: number }) {
  const runs: { from: number; to: number; texture: Texture }[] = [];
  overview.forEach(({ texture }, k) => {
    const last = runs[runs.length - 1];
    if (last?.texture === texture) last.to = k + 1;
    else runs.push({ from: k, to: k + 1, texture });
  });
  return (
    <>
      {runs.map(({ from, to, texture }) => (
        <rect
          key={from}
          x={from}
          width={to - from}
          y={y + BAND * (1 - LEVEL[texture])}
          height={BAND * LEVEL[texture]}
          fill={texture === 'text' ? tone.tin : tone.matFill}
        />
      ))}
      {overview.map(({ differs }, k) =>
        differs > 0 ? (
          <rect key={k} x={k} width={1.05} y={y} height={Math.max(7, Math.sqrt(differs) * BAND)} fill={tone.matRust} />
        ) : null,
      )}
    </>
  );
}

/** A name takes about so many per cent of the width for each letter. */
const LETTER_PERCENT = 0.95;

/** Names below, those that find room. */
function RegionNames({ family }: { family?: ImageFamily }) {
  if (!family) return null;
  return (
    <Box position="relative" h="20px" fontSize="13px" color="quiet">
      {namesWithRoom(family).map(({ name, percent }) => (
        <Text key={name} as="span" position="absolute" whiteSpace="nowrap" style={{ left: `${percent}%` }}>
          {name}
        </Text>
      ))}
    </Box>
  );
}

function namesWithRoom({ regions, sizeBytes }: ImageFamily): { name: string; percent: number }[] {
  const named: { name: string; percent: number }[] = [];
  let free = 0;
  for (const { name, offset, meaning } of [...regions].sort((a, b) => a.offset - b.offset)) {
    const percent = (offset / sizeBytes) * 100;
    const needed = name.length * LETTER_PERCENT;
    if (meaning === 'checksum' || percent < free || percent + needed > 100) continue;
    free = percent + needed;
    named.push({ name, percent });
  }
  return named;
}
