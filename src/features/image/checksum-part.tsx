'use client';

import { useEffect, useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { FoundChecksum, FoundChecksums } from '@/core/checksum';
import { formatOffset } from '@/core/units';
import { PlainButton, ProblemNote } from '@/ui';
import { checksumsInWorker } from '@/workers/checksum/client';
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
  const [done, setDone] = useState<{ share: number; tookMs: number }>();
  const [found, setFound] = useState<FoundChecksums>();
  const [problem, setProblem] = useState<string>();
  const cancel = useRef(() => {});
  useEffect(() => () => cancel.current(), []);
  if (images.length === 0) return null;

  async function search(): Promise<void> {
    setProblem(undefined);
    setFound(undefined);
    setDone({ share: 0, tookMs: 0 });
    const bytes = await Promise.all(
      images.map(async (i) => new Uint8Array(await (await fetch(`/images/${i.sha256}`)).arrayBuffer())),
    );
    const run = checksumsInWorker({ images: bytes }, ({ done: share, tookMs }) => setDone({ share, tookMs }));
    cancel.current = run.cancel;
    const reply = await run.answer;
    setDone(undefined);
    if (reply.kind === 'problem') setProblem(reply.message);
    if (reply.kind !== 'found') return;
    setFound(reply.found);
    onFound(reply.found.claims);
  }
  return (
    <Box as="section" aria-label="Checksums by their values" borderTop="1px solid" borderColor="rule" mt="5" pt="2">
      <Flex gap="3" align="center" fontSize="14px">
        <Text fontWeight="700">Checksums by their values</Text>
        {done ? (
          <>
            <Text color="quiet">{leftWords(done)}</Text>
            <PlainButton type="button" onClick={() => cancel.current()}>
              Cancel
            </PlainButton>
          </>
        ) : (
          <PlainButton type="button" onClick={() => void search()}>
            Search in {images.length === 1 ? 'the kept image' : `${images.length} kept images`}
          </PlainButton>
        )}
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {found && <Found found={found} />}
    </Box>
  );
}

function leftWords({ share, tookMs }: { share: number; tookMs: number }): string {
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
