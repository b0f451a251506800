'use client';

import { Box, Text, chakra } from '@chakra-ui/react';
import { unsteadyLabels } from '@/core/diagnose';
import type { JobView } from '@/core/job';
import type { RailResult } from '@/core/proof';
import { formatVolt } from '@/core/units';
import { PageLink, face, tone, useEntryOffer } from '@/ui';

/** How deep a rail lies under the port, by its first feed. */
function depthOf(job: JobView, id: string): number {
  const rail = job.board.rails.find((r) => r.id === id)!;
  const from = rail.feeds[0].from;
  return from === null ? 0 : 1 + depthOf(job, from);
}

const STATE = {
  passes: { words: 'passes', colour: 'leaf' },
  fails: { words: 'fails', colour: 'rust' },
  untested: { words: 'not yet', colour: 'quiet' },
} as const;

/** On a tablet the bar and the good boards make room for what was read; on a telephone what was read before does too. */
const WIDE_ONLY = { base: 'none', xl: 'table-cell' } as const;
const NO_TELEPHONE = { base: 'none', md: 'table-cell' } as const;

const HEADS = ['Rail', 'Wanted', '', 'Good boards', 'Before', 'Now', ''] as const;

/** Rails in tree order: wanted, what good boards read, before the work and now. */
export function RailsView({ job }: { job: JobView }) {
  const { rails } = job.proof;
  const before = new Map(
    job.readings.flatMap((r) =>
      !r.current && r.measurement.kind === 'railVoltage' ? [[r.measurement.rail, r.value] as const] : [],
    ),
  );
  const compared = new Map(job.compared.map((c) => [c.id, c]));
  const stale = rails.rails.filter((r) => r.state === 'untested' && before.has(r.rail.id)).length;
  return (
    <>
      <chakra.table
        w="100%"
        fontSize="14px"
        css={{
          borderCollapse: 'collapse',
          '& td, & th': { paddingRight: '12px' },
          '& td:last-child': { paddingRight: 0 },
        }}
        aria-label="Rails in the order in which they come up"
      >
        <chakra.thead>
          <chakra.tr color="quiet" fontSize="13px" textAlign="left">
            {HEADS.map((h, i) => (
              <chakra.th
                key={i}
                display={i === 2 || i === 3 ? WIDE_ONLY : i === 4 ? NO_TELEPHONE : undefined}
                fontWeight="700"
                pb="1"
                borderBottom="1px solid"
                borderColor="rule"
              >
                {h}
              </chakra.th>
            ))}
          </chakra.tr>
        </chakra.thead>
        <chakra.tbody>
          {rails.rails.map((r) => (
            <RailRow
              key={r.rail.id}
              rail={r}
              depth={depthOf(job, r.rail.id)}
              isNext={r.rail.id === rails.next && rails.failures.length === 0}
              isDense={rails.rails.length > 12}
              before={before.get(r.rail.id)}
              compared={compared.get(`volts:${r.rail.id}`)}
            />
          ))}
        </chakra.tbody>
      </chakra.table>
      {rails.failures.map((f) => (
        <Box key={f.rail} mt="3" borderLeft="3px solid" borderColor="rust" pl="3">
          <Text>
            {f.rail} is down while {f.lastGood} is good: measure round{' '}
            <Box as="strong" fontFamily="mono">
              {f.suspects.join(' ')}
            </Box>{' '}
            next.{' '}
            <PageLink href={`/jobs/${job.number}/probe`} style={{ textDecoration: 'underline' }}>
              Probe goes on from here, key 3
            </PageLink>
            . After the mending everything below it is measured again.
          </Text>
        </Box>
      ))}
      {stale > 0 && (
        <Text mt="3" color="quiet" fontSize="14px">
          {stale} {stale === 1 ? 'rail was' : 'rails were'} read before the last work on the board: measured once more,
          from the input on.
        </Text>
      )}
    </>
  );
}

/** `4.70 – 5.30 V`: one unit for both where it is the same. */
function rangeWords(low: string, high: string): string {
  const [figure, unit] = low.split(' ');
  return high.endsWith(` ${unit}`) ? `${figure} – ${high}` : `${low} – ${high}`;
}

interface RailRowProps {
  readonly rail: RailResult;
  readonly depth: number;
  readonly isNext: boolean;
  readonly isDense: boolean;
  readonly before?: string;
  readonly compared?: JobView['compared'][number];
}

function RailRow({ rail: r, depth, isNext, isDense, before, compared }: RailRowProps) {
  const { offerText } = useEntryOffer();
  const { words, colour } = STATE[r.state];
  const notes = unsteadyLabels(r.unsteady ?? {});
  return (
    <chakra.tr borderBottom="1px solid" borderColor="rule" bg={isNext ? 'ground' : undefined}>
      <chakra.td py={isDense ? '0.5' : '1'} whiteSpace="nowrap" style={{ paddingLeft: `${depth * 14 + 4}px` }}>
        <chakra.button
          type="button"
          cursor="pointer"
          fontWeight="700"
          color={isNext ? 'copperText' : 'ink'}
          onClick={() => offerText(`${r.rail.id.toLowerCase()} `)}
        >
          {depth > 0 && (
            <Text as="span" color="quiet" aria-hidden>
              ╰{' '}
            </Text>
          )}
          {r.rail.id}
        </chakra.button>
      </chakra.td>
      <chakra.td fontFamily="mono" whiteSpace={{ base: 'normal', md: 'nowrap' }} fontSize="13px" color="quiet">
        {rangeWords(formatVolt(r.minV), formatVolt(r.maxV))}
      </chakra.td>
      <chakra.td w="116px" display={WIDE_ONLY}>
        <WindowBar rail={r} />
      </chakra.td>
      <chakra.td
        display={WIDE_ONLY}
        fontFamily="mono"
        fontSize="13px"
        whiteSpace="nowrap"
        color={compared?.within === false ? 'rust' : 'quiet'}
      >
        {compared && rangeWords(...(compared.interval.split(' to ') as [string, string]))}
      </chakra.td>
      <chakra.td display={NO_TELEPHONE} fontFamily="mono" color="quiet" whiteSpace="nowrap">
        {before}
      </chakra.td>
      <chakra.td fontFamily={face.figures} fontWeight="700" fontSize="16px" whiteSpace="nowrap" color={colour}>
        {r.measuredV === undefined ? '' : formatVolt(r.measuredV)}
        {notes.length > 0 && (
          <Text fontSize="13px" fontWeight="400" fontFamily="body">
            {notes.join(', ')}
          </Text>
        )}
      </chakra.td>
      <chakra.td color={colour} fontWeight={r.state === 'fails' ? '700' : '400'} textAlign="right">
        {isNext ? 'next' : words}
      </chakra.td>
    </chakra.tr>
  );
}

/** The window as a band on a scale from zero, the reading as a tick. */
function WindowBar({ rail }: { rail: RailResult }) {
  const full = rail.expectV * 1.25;
  const at = (volts: number): number => Math.min(118, Math.max(2, (volts / full) * 120));
  return (
    <svg width="104px" height="16px" viewBox="0 0 120 16" aria-hidden>
      <line x1={0} x2={120} y1={8} y2={8} stroke={tone.rule} strokeWidth={2} />
      <rect
        x={at(rail.minV)}
        y={3}
        width={Math.max(4, at(rail.maxV) - at(rail.minV))}
        height={10}
        fill={tone.leaf}
        fillOpacity={0.25}
        stroke={tone.leaf}
      />
      {rail.measuredV !== undefined && (
        <line
          x1={at(rail.measuredV)}
          x2={at(rail.measuredV)}
          y1={0}
          y2={16}
          stroke={rail.state === 'fails' ? tone.rust : tone.ink}
          strokeWidth={2.5}
        />
      )}
    </svg>
  );
}
