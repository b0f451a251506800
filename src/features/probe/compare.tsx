'use client';

import { Flex, Grid, Text } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import type { BoardMark } from '@/drawings/board-marks';
import { Headline } from '@/ui';

/** How the job stands against good boards of its revision, in one line. */
export function CompareHeadline({ job: { compared } }: { job: JobView }) {
  const read = compared.filter((c) => c.within !== undefined);
  const outside = read.filter((c) => c.within === false);
  if (compared.length === 0)
    return (
      <Headline title="No good board to compare with" aside="this revision">
        Two good boards or more make a reference. Repaired jobs give theirs on the Close sheet; CSV comes in on the
        board’s own sheet.
      </Headline>
    );
  return (
    <Headline
      title={
        read.length === 0
          ? 'Nothing read yet that good boards know'
          : outside.length === 0
            ? `All ${read.length} as good boards read`
            : `${outside.length} of ${read.length} not as good boards read`
      }
      aside={`${compared.length - read.length} known points not read yet`}
    >
      The figure of one more good board would lie in the interval with 95 % chance. Filled marks lie outside, rings
      inside, small ones are not read yet.
    </Headline>
  );
}

/** The points outside first, each with its interval. */
export function CompareList({ compared }: { compared: JobView['compared'] }) {
  const read = compared.filter((c) => c.within !== undefined);
  if (read.length === 0) return null;
  return (
    <Grid
      templateColumns="repeat(2, minmax(0, 1fr))"
      columnGap="5"
      mb="2.5"
      role="list"
      aria-label="Against good boards"
    >
      {read.slice(0, MOST_LISTED).map((c) => (
        <Flex key={c.id} role="listitem" borderTop="1px solid" borderColor="rule" py="1" gap="3" align="baseline">
          <Text as="span" fontSize="14px" flex="1" truncate>
            {c.name}
          </Text>
          <Text as="span" fontFamily="mono" fontWeight="700" color={c.within ? 'ink' : 'rust'} whiteSpace="nowrap">
            {c.value}
          </Text>
          <Text as="span" fontSize="13px" color="quiet" whiteSpace="nowrap" w="164px">
            {c.within ? 'in' : 'not in'} {c.interval}
          </Text>
        </Flex>
      ))}
    </Grid>
  );
}

/** So many fit above the drawing; what lies outside comes first. */
const MOST_LISTED = 6;

export const comparedMarks = ({ compared }: JobView): BoardMark[] =>
  compared.flatMap((c): BoardMark[] =>
    c.place ? [{ ...c.place, state: c.within === undefined ? 'faint' : c.within ? 'good' : 'bad' }] : [],
  );
