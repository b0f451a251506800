import { Box, Grid, Text } from '@chakra-ui/react';
import type { PointGroup } from '@/core/ledger';

/** Width and height of one strip in its own units. */
const [W, H] = [600, 34];
const EDGE = 12;
/** An open input stands at the right, apart. */
const OPEN_X = W - EDGE;

export interface PointStripsProps {
  readonly groups: readonly PointGroup[];
  /** How a figure of this point is written. */
  readonly format: (value: number) => string;
  readonly near?: number;
}

/** What a point read for each cause, one strip each on a common scale: a mark for each reading, the middle one tall. */
export function PointStrips({ groups, format, near }: PointStripsProps) {
  const finite = groups.flatMap((g) => g.values).filter((v) => Number.isFinite(v));
  const hasOpen = groups.some((g) => g.values.includes(Infinity));
  const scale = scaleOf(finite, hasOpen);
  return (
    <Box role="list" aria-label="Readings by cause">
      {groups.map((g) => (
        <Grid
          key={g.name}
          role="listitem"
          templateColumns="190px minmax(0, 1fr)"
          columnGap="4"
          alignItems="center"
          borderBottom="1px solid"
          borderColor="rule"
          py="1"
        >
          <Box>
            <Text fontWeight="700" lineHeight="1.25">
              {g.name}
            </Text>
            <Text fontSize="13px" color="quiet">
              {g.count} {g.count === 1 ? 'reading' : 'readings'}
              {g.values.length > 0 && `, middle ${format(g.values[Math.floor((g.values.length - 1) / 2)])}`}
            </Text>
          </Box>
          {g.values.length > 0 ? (
            <Strip group={g} x={scale} near={near} />
          ) : (
            <Text fontSize="14px">{g.words.map(([w, n]) => `${w} ${n}×`).join(', ')}</Text>
          )}
        </Grid>
      ))}
      {finite.length > 0 && (
        <Grid templateColumns="190px minmax(0, 1fr)" columnGap="4">
          <span />
          <Box display="flex" justifyContent="space-between" fontFamily="mono" fontSize="13px" color="quiet">
            <span>{format(Math.min(...finite))}</span>
            <span>{hasOpen ? 'open' : format(Math.max(...finite))}</span>
          </Box>
        </Grid>
      )}
    </Box>
  );
}

/** Places on the strip: evenly, or by decades where the figures span more than two of them. */
function scaleOf(values: readonly number[], hasOpen: boolean): (value: number) => number {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const isWide = low > 0 && high / low > 100;
  const at = (v: number): number => (isWide ? Math.log(v) : v);
  const span = at(high) - at(low) || 1;
  const width = W - 2 * EDGE - (hasOpen ? 60 : 0);
  return (v) => (Number.isFinite(v) ? EDGE + (width * (at(v) - at(low))) / span : OPEN_X);
}

function Strip({ group, x, near }: { group: PointGroup; x: (v: number) => number; near?: number }) {
  const middle = group.values[Math.floor((group.values.length - 1) / 2)];
  return (
    <Box
      as="svg"
      color={group.name === 'good boards' ? 'leaf' : 'copper'}
      width="100%"
      height={`${H}px`}
      aria-hidden
      {...{ viewBox: `0 0 ${W} ${H}`, preserveAspectRatio: 'none' }}
    >
      <line x1={0} x2={W} y1={H - 4} y2={H - 4} stroke="var(--u-colors-rule)" vectorEffect="non-scaling-stroke" />
      {near !== undefined && (
        <line
          x1={x(near)}
          x2={x(near)}
          y1={0}
          y2={H}
          stroke="var(--u-colors-ink)"
          strokeDasharray="3 3"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {group.values.map((v, i) => (
        <line
          key={i}
          x1={x(v)}
          x2={x(v)}
          y1={v === middle ? 2 : 14}
          y2={H - 4}
          stroke="currentColor"
          strokeWidth={v === middle ? 3 : 1.5}
          strokeOpacity={v === middle ? 1 : 0.6}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </Box>
  );
}
