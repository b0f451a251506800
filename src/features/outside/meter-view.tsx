'use client';

import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { OUTSIDE_THINGS, meterCases, packRail, type Measurement } from '@/core/diagnose';
import type { JobView, ReadingView } from '@/core/job';
import type { ExpectedDraw } from '@/core/trace';
import { MeterPlane } from '@/drawings/meter-plane';
import { useEntryOffer } from '@/ui';

interface MeterViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly expected: ExpectedDraw;
}

/** Both ways round at each port, on the plane of volts and amps, and below it the other quick tests. */
export function MeterView({ job, port, expected }: MeterViewProps) {
  const { ports } = job.board;
  return (
    <>
      <Grid
        templateColumns={ports.length > 1 ? 'auto 1fr 1fr' : '1fr 1fr'}
        columnGap="5"
        rowGap={ports.length > 1 ? '1' : '2'}
        mb="2"
        alignItems="baseline"
      >
        {ports.map((p) => (
          <PortRow key={p.id} job={job} port={p} named={ports.length > 1} />
        ))}
      </Grid>
      <Text color="quiet" fontSize="14px" mb="1">
        Healthy with this charger and pack: {expected.volts} V, {expected.amps[0].toFixed(2)} to{' '}
        {expected.amps[1].toFixed(2)} A.
      </Text>
      <MeterPlane
        title={ports.length > 1 ? `Port ${port.id}` : 'The meter'}
        designV={port.designV}
        cases={meterCases(job.board, port.id)}
        readings={usbReadings(job, port.id)}
      />
      <QuickTests job={job} port={port} />
    </>
  );
}

const usbReadings = (
  job: JobView,
  port: string,
): { side: PlugSide; volts: number; amps: number; state: 'good' | 'bad' | 'plain' }[] =>
  (['A', 'B'] as const).flatMap((side) => {
    const r = latest(job, (m) => m.kind === 'usbMeter' && m.port === port && m.side === side);
    return r?.raw.kind === 'pair' ? [{ side, volts: r.raw.volts, amps: r.raw.amps, state: r.meaning.state }] : [];
  });

const latest = (job: JobView, is: (m: Measurement) => boolean): ReadingView | undefined =>
  [...job.readings].reverse().find((r) => r.current && is(r.measurement));

function PortRow({ job, port, named }: { job: JobView; port: Port; named: boolean }) {
  return (
    <>
      {named && (
        <Text fontFamily="mono" fontWeight="700">
          {port.id}
        </Text>
      )}
      {(['A', 'B'] as const).map((side) => (
        <WayFigure key={side} job={job} port={port} side={side} large={!named} />
      ))}
    </>
  );
}

const portPrefix = (job: JobView, port: Port): string =>
  job.board.ports.length > 1 ? `${port.id.toLowerCase()} ` : '';

function WayFigure({ job, port, side, large }: { job: JobView; port: Port; side: PlugSide; large: boolean }) {
  const { offerText } = useEntryOffer();
  const r = latest(job, (m) => m.kind === 'usbMeter' && m.port === port.id && m.side === side);
  const stem = `usb ${portPrefix(job, port)}${side.toLowerCase()} `;
  return (
    <Box
      as="button"
      textAlign="left"
      cursor="pointer"
      borderTop="1px solid"
      borderColor="rule"
      pt="1.5"
      onClick={() => offerText(r ? `fix ${stem}` : stem)}
    >
      <Flex align="baseline" gap="2.5" wrap="wrap">
        <Text as="span" color="quiet" fontSize="14px">
          {side} way
        </Text>
        {r?.raw.kind === 'pair' ? (
          <Text
            as="span"
            fontFamily="mono"
            fontWeight="700"
            fontSize={large ? '26px' : '17px'}
            whiteSpace="nowrap"
            color={r.meaning.state === 'bad' ? 'rust' : 'leaf'}
          >
            {r.raw.volts.toFixed(2)} V&ensp;{r.raw.amps.toFixed(2)} A
          </Text>
        ) : (
          <Text as="span" color="quiet" fontFamily="mono" fontSize={large ? '20px' : '16px'}>
            not read yet
          </Text>
        )}
        {r && (
          <Text as="span" fontSize="14px" color={r.meaning.state === 'bad' ? 'rust' : 'leaf'}>
            {r.meaning.message}
          </Text>
        )}
      </Flex>
    </Box>
  );
}

/** Tester, battery connector and swaps: hints that count with their error rates. */
function QuickTests({ job, port }: { job: JobView; port: Port }) {
  const rail = packRail(job.board);
  const prefix = portPrefix(job, port);
  return (
    <Grid
      templateColumns={{ base: 'repeat(2, minmax(0, 1fr))', md: 'repeat(5, 1fr)' }}
      columnGap="4"
      mt="3"
      flexShrink="0"
      role="list"
      aria-label="Quick tests"
    >
      <QuickTest
        name="Quick tester"
        stem={`tester ${prefix}`}
        reading={latest(job, (m) => m.kind === 'portTester' && m.port === port.id)}
      />
      <QuickTest
        name="Battery connector"
        stem="pack "
        reading={latest(job, (m) => m.kind === 'railVoltage' && m.rail === rail)}
      />
      {OUTSIDE_THINGS.map((what) => (
        <QuickTest
          key={what}
          name={`Known-good ${what}`}
          stem={`swap ${prefix}${what} `}
          reading={latest(job, (m) => m.kind === 'knownGoodSwap' && m.port === port.id && m.what === what)}
        />
      ))}
    </Grid>
  );
}

function QuickTest({ name, stem, reading }: { name: string; stem: string; reading?: ReadingView }) {
  const { offerText } = useEntryOffer();
  const colour = reading?.meaning.state === 'bad' ? 'rust' : reading?.meaning.state === 'good' ? 'leaf' : 'ink';
  return (
    <Box role="listitem" borderTop="1px solid" borderColor="rule" pt="1.5">
      <Box
        as="button"
        textAlign="left"
        cursor="pointer"
        w="100%"
        onClick={() => offerText(reading ? `fix ${stem}` : stem)}
      >
        <Text fontSize="14px" color="quiet">
          {name}
        </Text>
        <Text fontFamily="mono" fontWeight={reading ? '700' : '400'} color={reading ? colour : 'quiet'} fontSize="16px">
          {reading?.value ?? 'not tried'}
        </Text>
        {reading && (
          <Text fontSize="13px" color={colour} lineHeight="1.3">
            {reading.meaning.message}
          </Text>
        )}
      </Box>
    </Box>
  );
}
