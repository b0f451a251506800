import { Box, Flex, Text } from '@chakra-ui/react';
import { SOURCE_WORDS } from '@/core/parts';
import { formatChance } from '@/core/units';
import type { RouteView } from '@/core/choice';

const MOST_REPORTS = 4;

/** How sure a chip is: the posterior with its bounds, what was proven, and who says so. */
export function SuccessPart({ route: { success, functions, reports } }: { route: RouteView }) {
  return (
    <Box>
      <Flex align="baseline" gap="2">
        <Text as="span" fontFamily="mono" fontWeight="700" fontSize="28px" lineHeight="1.1">
          {formatChance(success.mean)}
        </Text>
        <Text as="span" fontSize="13px" color="quiet">
          of such chips work here
        </Text>
      </Flex>
      <Bounds low={success.low} mean={success.mean} high={success.high} />
      <Text fontSize="13px" color="quiet">
        {success.reports === 0
          ? 'No report yet.'
          : `${success.worked} of ${success.reports} ${success.reports === 1 ? 'report' : 'reports'} say it worked.`}{' '}
        95 % bounds {formatChance(success.low)} to {formatChance(success.high)}.
      </Text>
      {functions.map((f) => (
        <Text key={f.fn} fontSize="14px" mt="0.5" color={f.worked > 0 ? 'leaf' : f.failed > 0 ? 'rust' : 'amberText'}>
          {f.what}: {proofWords(f.worked, f.failed)}
        </Text>
      ))}
      {reports
        .slice(-MOST_REPORTS)
        .reverse()
        .map((r, i) => (
          <Text key={i} fontSize="13px" color="quiet" mt="0.5">
            {r.date}, {SOURCE_WORDS[r.source]}: {r.worked ? 'worked' : 'did not work'}
            {r.note && `, ${r.note}`}
          </Text>
        ))}
    </Box>
  );
}

function proofWords(worked: number, failed: number): string {
  if (worked === 0 && failed === 0) return 'never tried';
  const parts = [worked > 0 && `${worked} proven`, failed > 0 && `${failed} failed`];
  return parts.filter(Boolean).join(', ');
}

/** The bounds as a length on the whole scale, with the mean as a mark in it. */
function Bounds({ low, mean, high }: { low: number; mean: number; high: number }) {
  const share = (x: number): string => `${(100 * x).toFixed(1)}%`;
  return (
    <Box position="relative" h="9px" my="1.5" bg="track" role="presentation">
      <Box position="absolute" h="9px" bg="tin" style={{ left: share(low), width: share(high - low) }} />
      <Box position="absolute" h="9px" w="3px" bg="ink" style={{ left: share(mean) }} />
    </Box>
  );
}
