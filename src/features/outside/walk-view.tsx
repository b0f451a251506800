'use client';

import { useMemo } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { Port } from '@/core/board';
import { walkPort, walkStem, type JobView, type WalkPin } from '@/core/job';
import { PortDrawing } from '@/drawings/port-drawing';
import { useEntryOffer } from '@/ui';

/** The contacts of the port, one after the other: drawn, judged, and what stands behind the bad ones. */
export function WalkView({ job, port }: { job: JobView; port: Port }) {
  const { offerText } = useEntryOffer();
  const walk = useMemo(
    () => walkPort(job.board, job.state, job.references, port.id),
    [job.board, job.state, job.references, port.id],
  );
  const last = job.readings
    .filter((r) => r.measurement.kind === 'contactDrop' && r.measurement.port === port.id)
    .at(-1);
  const lastPin = walk.pins.find((p) => last?.measurement.kind === 'contactDrop' && p.pin === last.measurement.pin);
  const pick = (pin: string): void => {
    const read = walk.pins.find((p) => p.pin === pin)?.value !== undefined;
    offerText(`${read ? 'fix ' : ''}${walkStem(job.board, port.id, pin)}`);
  };
  const listed = [...walk.bad, ...(lastPin && lastPin.verdict?.state === 'good' ? [lastPin] : [])];
  return (
    <Flex direction="column" flex="1" minH="0" gap="3">
      <PortDrawing pins={walk.pins} next={walk.next?.pin} onPick={pick} />
      <Box overflowY="auto" minH="0" tabIndex={0} role="region" aria-label="What the contacts say">
        {listed.map((p) => (
          <PinLine key={p.pin} p={p} />
        ))}
        {listed.length === 0 && (
          <Text color="quiet">
            Pack out, no charger. The walk names each contact in turn; a click goes to any other.
          </Text>
        )}
      </Box>
    </Flex>
  );
}

function PinLine({ p }: { p: WalkPin }) {
  const bad = p.verdict!.state === 'bad';
  const value = p.value!.kind === 'open' ? 'open' : `${p.value!.value.toFixed(3)} V`;
  return (
    <Flex gap="4" py="1.5" borderBottom="1px solid" borderColor="rule" align="baseline">
      <Text as="span" fontFamily="mono" fontWeight="700" w="90px" flexShrink="0">
        {p.pin} {p.carries}
      </Text>
      <Text
        as="span"
        fontFamily="mono"
        fontWeight="700"
        fontSize="17px"
        w="84px"
        flexShrink="0"
        color={bad ? 'rust' : 'leaf'}
      >
        {value}
      </Text>
      <Text as="span" fontSize="14px">
        <Box as="strong" color={bad ? 'rust' : 'leaf'}>
          {p.verdict!.label}.
        </Box>{' '}
        {p.verdict!.rests.map((r) => `${r.charAt(0).toUpperCase()}${r.slice(1)}.`).join(' ')}
        {p.verdict!.behind.length > 0 && ` Behind it: ${p.verdict!.behind.join(', ')}.`}
      </Text>
    </Flex>
  );
}
