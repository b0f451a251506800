'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { planSeconds } from '@/core/heat';
import { formatSeconds } from '@/core/units';
import { SidebarPart, PlainButton } from '@/ui';
import { useHeatDesk, type HeldRun } from './desk';

/** One run set aside and the one on the screen side by side: another station, copper, alloy or plan. */
export function ComparePart() {
  const { held, last, copper, hold, release, setPlan } = useHeatDesk();
  return (
    <SidebarPart title="Side by side">
      {held && last && <Table held={held} now={{ ...last, copper }} />}
      {held && last && held.plan.partRef !== last.plan.partRef && (
        <Text fontSize="13px" color="amberText">
          Different parts: {held.plan.partRef} held, {last.plan.partRef} now.
        </Text>
      )}
      <Flex gap="3" mt="1">
        <PlainButton type="button" onClick={hold}>
          {held ? 'Hold this one instead' : 'Hold this run to compare'}
        </PlainButton>
        {held && (
          <PlainButton type="button" onClick={release}>
            Let go
          </PlainButton>
        )}
        {held && held.plan !== last?.plan && (
          <PlainButton type="button" onClick={() => setPlan(held.plan)}>
            Back to the held plan
          </PlainButton>
        )}
      </Flex>
    </SidebarPart>
  );
}

const ROWS: readonly (readonly [name: string, of: (run: HeldRun) => string])[] = [
  ['station', (r) => r.station.name],
  ['alloy', (r) => r.plan.alloy],
  ['copper', (r) => (r.copper === 1 ? 'as filed' : `× ${r.copper}`)],
  ['coldest joint', (r) => `${Math.round(r.verdict.coldestPeakC)} °C`],
  ['there at', (r) => (r.verdict.reachedAtS === null ? 'never' : formatSeconds(r.verdict.reachedAtS))],
  ['fastest rise', (r) => `${r.verdict.fastestRiseCPerS.toFixed(1)} °C/s`],
  ['own body', (r) => `${Math.round(r.verdict.bodyPeakC)} °C`],
  [
    'nearest neighbour',
    ({ verdict: { neighbours } }) =>
      neighbours[0]
        ? `${neighbours[0].ref} ${Math.round(neighbours[0].peakC)} of ${Math.round(neighbours[0].limitC)}`
        : '–',
  ],
  ['hottest dial', (r) => `${Math.max(...r.plan.steps.map((s) => s.airSetC ?? 0))} °C`],
  ['whole plan', (r) => formatSeconds(planSeconds(r.plan))],
  ['holds', (r) => (r.verdict.holds ? 'yes' : 'no')],
];

function Table({ held, now }: { held: HeldRun; now: HeldRun }) {
  return (
    <Box as="table" fontSize="13px" w="100%" style={{ borderCollapse: 'collapse' }}>
      <thead>
        <tr>
          <th aria-label="figure" />
          <Box as="th" textAlign="left" fontWeight="700" pr="2">
            held, dashed
          </Box>
          <Box as="th" textAlign="left" fontWeight="700">
            now
          </Box>
        </tr>
      </thead>
      <tbody>
        {ROWS.map(([name, of]) => {
          const [a, b] = [of(held), of(now)];
          return (
            <tr key={name}>
              <Box as="th" textAlign="left" fontWeight="400" color="quiet" pr="2" verticalAlign="baseline">
                {name}
              </Box>
              <td style={{ paddingRight: 8, verticalAlign: 'baseline' }}>{a}</td>
              <td style={{ fontWeight: a === b ? 400 : 700, verticalAlign: 'baseline' }}>{b}</td>
            </tr>
          );
        })}
      </tbody>
    </Box>
  );
}
