'use client';

import { useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { FoundChecksum, FoundChecksums } from '@/core/checksum';
import { formatOffset } from '@/core/units';
import { PlainButton, ProblemNote } from '@/ui';
import { checksumTask } from '@/workers/checksum/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import type { KeptImage } from './queries';

const MOST_IMAGES = 8;

/** Checksums found by their values alone, in all kept images of the family: what no map says, and what a map says wrongly. */
export function ChecksumPart({
  library,
  onFound,
}: {
  library: readonly KeptImage[];
  onFound: (claims: readonly FoundChecksum[]) => void;
}) {
  // Units of one layout have one length.
  const images = library.filter((i) => i.sizeBytes === library[0].sizeBytes).slice(0, MOST_IMAGES);
  const [isFetching, setFetching] = useState(false);
  const { status, start, cancel } = useWorkerTask(checksumTask);
  const isSearching = isFetching || status.kind === 'running';
  if (images.length === 0) return null;

  async function search(): Promise<void> {
    setFetching(true);
    const bytes = await Promise.all(
      images.map(async (i) => new Uint8Array(await (await fetch(`/images/${i.sha256}`)).arrayBuffer())),
    );
    setFetching(false);
    const answer = await start(bytes);
    if (answer.kind === 'done') onFound(answer.value.claims);
  }
  return (
    <Box as="section" aria-label="Checksums by their values" borderTop="1px solid" borderColor="rule" mt="5" pt="2">
      <Flex gap="3" align="center" fontSize="14px">
        <Text fontWeight="700">Checksums by their values</Text>
        {isSearching ? (
          <>
            <Text color="quiet">{leftWords(status.kind === 'running' ? status : {})}</Text>
            <PlainButton type="button" onClick={cancel}>
              Cancel
            </PlainButton>
          </>
        ) : (
          <PlainButton type="button" onClick={() => void search()}>
            Search in {images.length === 1 ? 'the kept image' : `${images.length} kept images`}
          </PlainButton>
        )}
      </Flex>
      {status.kind === 'problem' && <ProblemNote text={status.message} />}
      {status.kind === 'done' && <Found found={status.value} />}
    </Box>
  );
}

function leftWords({ progress: share = 0, tookMs = 0 }: { progress?: number; tookMs?: number }): string {
  const leftS = share > 0 ? Math.ceil((tookMs * (1 - share)) / share / 1000) : undefined;
  return `${Math.round(100 * share)} %${leftS === undefined ? '' : `, ${leftS} s left`}`;
}

function Found({ found: { claims, possible, tried } }: { found: FoundChecksums }) {
  return (
    <Box fontSize="14px" mt="1">
      {claims.map((claim) => (
        <Flex
          key={`${claim.field.offset} ${claim.algorithm}`}
          gap="3"
          py="1"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text fontWeight="700" minW="11em">
            {claim.algorithm}
          </Text>
          <Text fontFamily="mono">{rangeWords(claim)}</Text>
        </Flex>
      ))}
      <Text color="quiet" mt="1">
        {claims.length === 0 && 'None that chance does not explain. '}
        {(tried / 1e9).toFixed(1)} thousand million ranges and fields tried; {possible.length} more hold that chance
        would make as well. Images of more units of the family make short checksums sure.
      </Text>
    </Box>
  );
}

function rangeWords({ from, to, field, anywhere }: FoundChecksum): string {
  const range = `${formatOffset(from)} to ${formatOffset(to)}`;
  if (anywhere) return `${range} comes to zero`;
  const order = field.bytes === 1 ? '' : field.bigEndian ? ', high byte first' : ', low byte first';
  const inside = field.fill === 'outside' ? '' : `, itself taken for ${field.fill.toUpperCase()}`;
  return `${range} at ${formatOffset(field.offset)}${order}${inside}`;
}
