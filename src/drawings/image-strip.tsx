'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { ImageFamily, Stretch } from '@/core/image';

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
      <chakra.svg
        viewBox={`0 0 ${overview.length} ${HEIGHT}`}
        preserveAspectRatio="none"
        w="100%"
        h="46px"
        bg="mat"
        role="img"
        aria-label={compared ? 'Where the two images differ' : 'What the image holds'}
        display="block"
      >
        {overview.map((s, i) => (
          <g key={i}>
            {!s.erased && <chakra.rect x={i} y={0} width={1.02} height={HEIGHT} fill="matFill" />}
            {s.differs > 0 && (
              <chakra.rect
                x={i}
                y={HEIGHT - Math.max(8, Math.sqrt(s.differs) * HEIGHT)}
                width={1.02}
                height={HEIGHT}
                fill="matRust"
              />
            )}
          </g>
        ))}
        {family.regions.map((r) => (
          <chakra.line
            key={r.name}
            x1={(share(r.offset) / 100) * overview.length}
            x2={(share(r.offset) / 100) * overview.length}
            y1={0}
            y2={HEIGHT}
            stroke="matLine"
            strokeWidth={0.18}
          />
        ))}
      </chakra.svg>
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
