import { Box } from '@chakra-ui/react';
import { tone } from '@/ui';

const WIDTH = 720;
const HEIGHT = 18;

/** Where in an image its reads do not agree: a mark for each place. */
export function UnstableStrip({ offsets, length }: { offsets: readonly number[]; length: number }) {
  return (
    <Box my="1" bg="mat">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        style={{ width: '100%', display: 'block' }}
        role="img"
        aria-label={`Unstable bytes: ${offsets.length} places between the image's beginning and its end`}
      >
        {offsets.map((offset) => (
          <line
            key={offset}
            x1={(WIDTH * offset) / length}
            x2={(WIDTH * offset) / length}
            y1="2"
            y2={HEIGHT - 2}
            stroke={tone.matCopper}
            strokeWidth="1.5"
          />
        ))}
      </svg>
    </Box>
  );
}
