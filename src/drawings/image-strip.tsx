'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { ImageFamily, Stretch } from '@/core/image';
import { tone } from '@/ui';

const HEIGHT = 46;

/** The whole image from left to right: what differs rises in rust, what is erased stays empty, regions are named below. */
export function ImageStrip({
  family,
  overview,
  compared,
}: {
  family: ImageFamily;
  overview: readonly Stretch[];
  compared: boolean;
}) {
  const share = (bytes: number): number => (bytes / family.sizeBytes) * 100;
  const named = family.regions.filter((r) => share(r.length) > 5);
  return (
    <Box my="2">
      <svg
        viewBox={`0 0 ${overview.length} ${HEIGHT}`}
        preserveAspectRatio="none"
        style={{ display: 'block', width: '100%', height: 46, background: tone.mat }}
        role="img"
        aria-label={compared ? 'Where the two images differ' : 'What the image holds'}
      >
        {overview.map((s, i) => (
          <g key={i}>
            {!s.erased && <rect x={i} y={0} width={1.02} height={HEIGHT} fill={tone.matFill} />}
            {s.differs > 0 && (
              <rect
                x={i}
                y={HEIGHT - Math.max(8, Math.sqrt(s.differs) * HEIGHT)}
                width={1.02}
                height={HEIGHT}
                fill={tone.matRust}
              />
            )}
          </g>
        ))}
        {family.regions.map((r) => (
          <line
            key={r.name}
            x1={(share(r.offset) / 100) * overview.length}
            x2={(share(r.offset) / 100) * overview.length}
            y1={0}
            y2={HEIGHT}
            stroke={tone.matLine}
            strokeWidth={0.18}
          />
        ))}
      </svg>
      <Box position="relative" h="20px" fontSize="13px" color="quiet">
        {named.map((r) => (
          <Text key={r.name} as="span" position="absolute" whiteSpace="nowrap" style={{ left: `${share(r.offset)}%` }}>
            {r.name}
          </Text>
        ))}
      </Box>
      <Flex gap="4" fontSize="13px" color="quiet">
        <span>dark: erased · light: used{compared ? ' · red, rising: differs' : ''}</span>
      </Flex>
    </Box>
  );
}
