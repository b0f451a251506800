'use client';

import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import type { AssemblyState } from '@/core/board';
import type { JobView, KeepEvent } from '@/core/job';
import { SoakPart } from './soak-part';
import type { RailResult } from '@/core/proof';
import { formatVolt } from '@/core/units';
import { InstrumentsPart } from './instruments-part';
import { Headline, face, tone, useEntryOffer } from '@/ui';

/** Rails in tree order against their windows, both plug ways, and the functions: what is proven and what comes next. */
export function ProveWork({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  const { rails, plugs, functions, allHold } = job.proof;
  const [failure] = rails.failures;
  const shortsOpen = job.proof.shorts.filter((s) => s.gone !== true);
  const measured = rails.rails.filter((r) => r.state !== 'open').length;
  return (
    <>
      {failure ? (
        <Headline title={`${failure.rail} fails, ${failure.lastGood} is good`} aside="back to Probe, key 3">
          Between them: {failure.suspects.join(', ')}. Everything measured so far is counted there.
        </Headline>
      ) : shortsOpen.length > 0 ? (
        <Headline title={`${shortsOpen[0].net} to ground before power: is the short gone?`} aside="unpowered">
          It read as a short before the work. Power comes after this reading.
        </Headline>
      ) : allHold ? (
        <Headline title="Everything holds" aside="close it, key 9">
          All rails in their windows, both plug ways healthy, all functions tried.
        </Headline>
      ) : (
        <Headline
          title={job.next.stage === 'prove' ? job.next.title : rails.next ? `Measure ${rails.next}` : 'Gates are open'}
          aside={`${measured} of ${rails.rails.length} rails`}
        >
          In the order in which they come up; Enter names the next point.
        </Headline>
      )}
      <InstrumentsPart job={job} />
      <RailTable job={job} />
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="6" mt="4">
        <Box>
          <SectionTitle>Both plug ways</SectionTitle>
          {plugs.map((p) => (
            <ProofLine
              key={`${p.port}${p.side}`}
              name={job.board.ports.length > 1 ? `${p.port}, ${p.side} way` : `${p.side} way`}
              figure={p.volts === undefined ? '' : `${p.volts.toFixed(2)} V  ${p.amps!.toFixed(2)} A`}
              state={p.healthy}
              stem={`usb ${job.board.ports.length > 1 ? `${p.port.toLowerCase()} ` : ''}${p.side.toLowerCase()} `}
            />
          ))}
          <SoakPart job={job} onKeep={onKeep} />
        </Box>
        <Box>
          <SectionTitle>Functions, the likeliest to send it back first</SectionTitle>
          {functions
            .filter((f) => f.works !== undefined)
            .map((f) => (
              <ProofLine key={f.id} name={f.what} figure="" state={f.works} stem={`try ${f.id} `} />
            ))}
          <OpenFunctions job={job} />
        </Box>
      </Grid>
    </>
  );
}

const ASSEMBLY_WORDS: Readonly<Record<AssemblyState, string>> = {
  board: 'with the bare board',
  part: 'in the housing, still open',
  whole: 'closed up',
};
const MOST_CLEARED = 4;

/** What is still to be tried: how far to put it together for each, its chance to fail, what a pass clears. */
function OpenFunctions({ job: { proofOrder, board } }: { job: JobView }) {
  return proofOrder.tests.map(({ id, assembly, failChance, clears, implicates }, k) => (
    <Box key={id}>
      {assembly !== proofOrder.tests[k - 1]?.assembly && (
        <Text fontSize="13px" color="copperText" mt="1">
          {ASSEMBLY_WORDS[assembly]}
        </Text>
      )}
      <ProofLine
        name={board.functions.find((f) => f.id === id)!.what}
        figure={`${(100 * failChance).toFixed(1)} %`}
        state={undefined}
        stem={`try ${id} `}
      />
      <Text fontSize="13px" color="quiet" mb="1">
        {clears.length === 0
          ? 'clears nothing new'
          : `clears ${clears.slice(0, MOST_CLEARED).join(' ')}${clears.length > MOST_CLEARED ? ' …' : ''}`}
        {implicates[0] && `; a failure points to ${implicates[0].ref}`}
      </Text>
    </Box>
  ));
}

function SectionTitle({ children }: { children: string }) {
  return (
    <Text as="h2" fontSize="13px" fontWeight="700" color="quiet" mb="1">
      {children}
    </Text>
  );
}

function ProofLine({
  name,
  figure,
  state,
  stem,
}: {
  name: string;
  figure: string;
  state: boolean | undefined;
  stem: string;
}) {
  const { offerText } = useEntryOffer();
  const words = state === undefined ? 'open' : state ? 'good' : 'fails';
  return (
    <Flex
      as="button"
      w="100%"
      textAlign="left"
      justify="space-between"
      gap="3"
      py="1"
      borderTop="1px solid"
      borderColor="rule"
      cursor="pointer"
      onClick={() => offerText(stem)}
    >
      <Text as="span" fontSize="14px">
        {name}
      </Text>
      <Text as="span" whiteSpace="nowrap">
        <Text as="span" fontFamily="mono" fontWeight="700" mr="2">
          {figure}
        </Text>
        <Text
          as="span"
          color={state === undefined ? 'quiet' : state ? 'leaf' : 'rust'}
          fontWeight={state === false ? '700' : '400'}
        >
          {words}
        </Text>
      </Text>
    </Flex>
  );
}

/** How deep a rail lies under the port, by its first feed. */
function depthOf(job: JobView, id: string): number {
  const rail = job.board.rails.find((r) => r.id === id)!;
  const from = rail.feeds[0].from;
  return from === null ? 0 : 1 + depthOf(job, from);
}

const STATE = {
  passes: { words: 'passes', colour: 'leaf' },
  fails: { words: 'fails', colour: 'rust' },
  open: { words: 'open', colour: 'quiet' },
} as const;

function RailTable({ job }: { job: JobView }) {
  const { offerText } = useEntryOffer();
  const before = new Map(
    job.readings.flatMap((r) =>
      !r.current && r.measurement.kind === 'volts' ? [[r.measurement.rail, r.value] as const] : [],
    ),
  );
  return (
    <chakra.table
      w="100%"
      fontSize="14px"
      css={{ borderCollapse: 'collapse' }}
      aria-label="Rails in the order in which they come up"
    >
      <chakra.thead>
        <chakra.tr color="quiet" fontSize="13px" textAlign="left">
          {['Rail', 'Wanted', '', 'Before', 'Now', ''].map((h, i) => (
            <chakra.th key={i} fontWeight="700" pb="1" borderBottom="1px solid" borderColor="rule">
              {h}
            </chakra.th>
          ))}
        </chakra.tr>
      </chakra.thead>
      <chakra.tbody>
        {job.proof.rails.rails.map((r) => {
          const next = r.rail.id === job.proof.rails.next && job.proof.rails.failures.length === 0;
          return (
            <chakra.tr key={r.rail.id} borderBottom="1px solid" borderColor="rule" bg={next ? 'ground' : undefined}>
              <chakra.td
                py={job.board.rails.length > 12 ? '0.5' : '1'}
                style={{ paddingLeft: `${depthOf(job, r.rail.id) * 14 + 4}px` }}
              >
                <chakra.button
                  type="button"
                  cursor="pointer"
                  fontWeight="700"
                  color={next ? 'copperText' : 'ink'}
                  onClick={() => offerText(`${r.rail.id.toLowerCase()} `)}
                >
                  {depthOf(job, r.rail.id) > 0 && (
                    <Text as="span" color="quiet" aria-hidden>
                      ╰{' '}
                    </Text>
                  )}
                  {r.rail.id}
                </chakra.button>
              </chakra.td>
              <chakra.td fontFamily="mono" whiteSpace="nowrap" fontSize="13px" color="quiet">
                {formatVolt(r.minV)} – {formatVolt(r.maxV)}
              </chakra.td>
              <chakra.td w="132px">
                <WindowBar rail={r} />
              </chakra.td>
              <chakra.td fontFamily="mono" color="quiet" whiteSpace="nowrap">
                {before.get(r.rail.id)}
              </chakra.td>
              <chakra.td
                fontFamily={face.figures}
                fontWeight="700"
                fontSize="16px"
                whiteSpace="nowrap"
                color={STATE[r.state].colour}
              >
                {r.measuredV === undefined ? '' : formatVolt(r.measuredV)}
              </chakra.td>
              <chakra.td
                color={STATE[r.state].colour}
                fontWeight={r.state === 'fails' ? '700' : '400'}
                textAlign="right"
              >
                {next ? 'next' : STATE[r.state].words}
              </chakra.td>
            </chakra.tr>
          );
        })}
      </chakra.tbody>
    </chakra.table>
  );
}

/** The window as a band on a scale from zero, the reading as a tick. */
function WindowBar({ rail }: { rail: RailResult }) {
  const full = rail.expectV * 1.25;
  const at = (volts: number): number => Math.min(118, Math.max(2, (volts / full) * 120));
  return (
    <svg width="120px" height="16px" viewBox="0 0 120 16" aria-hidden>
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
