'use client';

import { Box, Text, chakra } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { formatChance, formatInHundred, formatMinutes } from '@/core/units';
import { SidebarPart, OddsBar } from '@/ui';

/** Suspects with their odds, the readings that made them, and the repairs that compete with the next test. */
export function ProbeSidebar({ job }: { job: JobView }) {
  const shown = job.suspects.filter((s, i) => i < 4 && (s.p > 0.005 || i === 0));
  // With two faults at once the chances sum to more than one: the rest is then not worth a bar.
  const rest = 1 - shown.reduce((sum, s) => sum + s.p, 0);
  const cured = job.curedChance > 0.05;
  return (
    <>
      <SidebarPart title="Suspects">
        {shown.map((s, i) => (
          <SuspectLine key={s.ref} suspect={s} first={i === 0} />
        ))}
        {rest > 0.005 && <OddsBar name="Everything else" share={rest} figure={formatChance(rest)} colour="tin" />}
        {job.pairs.slice(0, 2).map((pair) => (
          <Text key={pair.refs.join()} fontSize="14px" mt="1">
            <strong>{pair.refs.join(' and ')} together</strong>: {formatChance(pair.p)}.
          </Text>
        ))}
      </SidebarPart>
      {job.modelled && (
        <Text fontSize="14px" color="quiet">
          Modelled: {job.modelled.parts} parts round the ports and their rails. Of {job.modelled.beyond} further ones
          only what pulls at these nets counts; read a net out there, and it counts too.
        </Text>
      )}
      {job.unexplained && <Unexplained unexplained={job.unexplained} />}
      {(job.cured.length > 0 || cured) && (
        <SidebarPart title="Cured">
          {job.cured.map((s) => (
            <Text key={s.label} fontSize="14px" color="leaf">
              {s.label}: mended, {formatChance(s.p)}.
            </Text>
          ))}
          {cured && (
            <Text fontSize="14px" color="quiet" mt="1">
              {formatChance(job.curedChance)} that nothing else was wrong.
            </Text>
          )}
        </SidebarPart>
      )}
      {job.surprise && (
        <Text fontSize="14px" color="amberText" borderLeft="3px solid" borderColor="amber" pl="3">
          {job.surprise}
        </Text>
      )}
      {job.differences.length > 0 && (
        <SidebarPart title="Since the work">
          {job.differences.slice(0, MOST_DIFFERENCES).map((d) => (
            <Text key={d.seq} fontSize="14px" mb="1">
              <strong>{d.name}</strong> {d.after}, was {d.before}:{' '}
              <Text as="span" color={DIFFERENCE_COLOUR[d.state]}>
                {d.summary}.
              </Text>
            </Text>
          ))}
        </SidebarPart>
      )}
      {job.rankingFlips.length > 0 && (
        <SidebarPart title="What would change this">
          {job.rankingFlips.map((turn) => (
            <Text key={turn} fontSize="14px">
              {turn}
            </Text>
          ))}
        </SidebarPart>
      )}
      {job.repairs.length > 0 && (
        <SidebarPart title="Or work now">
          {job.repairs.slice(0, 3).map((r) => (
            <Text key={r.label} fontSize="14px">
              {r.label}: {formatMinutes(r.minutes)}, cures {formatInHundred(r.cureChance)}.
            </Text>
          ))}
        </SidebarPart>
      )}
    </>
  );
}

/** No listed fault explains what was read: what does not fit, and what narrows it down. */
function Unexplained({ unexplained: { strange, unlisted } }: { unexplained: NonNullable<JobView['unexplained']> }) {
  return (
    <SidebarPart title="No listed fault explains this">
      <Text fontSize="14px" color="rust" mb="1">
        Something that no list holds is at work with {formatChance(unlisted)}.
        {strange.length > 0 && ' What does not fit:'}
      </Text>
      {strange.slice(0, MOST_STRANGE).map((reading) => (
        <Text key={reading} fontSize="14px" fontFamily="mono">
          {reading}
        </Text>
      ))}
      <Text fontSize="14px" color="quiet" mt="1">
        Narrow it down before any part is changed: read again, halve the way along the rail, compare with a good board,
        take an optional part off. Or stop.
      </Text>
    </SidebarPart>
  );
}

const MOST_STRANGE = 3;
const MOST_DIFFERENCES = 4;
const DIFFERENCE_COLOUR = { good: 'leaf', bad: 'rust', plain: 'quiet' } as const;

/** A suspect with its odds; it opens into the readings that made it one. */
function SuspectLine({ suspect: s, first }: { suspect: JobView['suspects'][number]; first: boolean }) {
  const bar = <OddsBar name={s.label} share={s.p} figure={formatChance(s.p)} colour={first ? 'copper' : 'tin'} />;
  if (s.reasons.length === 0) return bar;
  return (
    <details open={first}>
      <chakra.summary cursor="pointer" listStyle="none" title="The readings behind it">
        {bar}
      </chakra.summary>
      <Box borderLeft="2px solid" borderColor="rule" pl="2.5" mb="1.5">
        {s.reasons.map((reason) => (
          <Text key={reason} fontSize="14px" mb="0.5">
            {reason}
          </Text>
        ))}
      </Box>
    </details>
  );
}
