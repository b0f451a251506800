'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { Port } from '@/core/board';
import { captureBody, dialogueOf, type JobView, type KeepEvent } from '@/core/job';
import type { Dialogue } from '@/core/usb';
import { decodeCapture } from '@/workers/capture/client';
import { FilePick, PlainButton, ProblemNote } from '@/ui';

interface TalkViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly onKeep: KeepEvent;
}

/** The conversation on the CC line, decoded from a capture: who said what, and where it stopped. */
export function TalkView({ job, port, onKeep }: TalkViewProps) {
  const [share, setShare] = useState<number>();
  const [cancel, setCancel] = useState<() => void>();
  const [problem, setProblem] = useState<string>();
  const kept = job.state.captures[port.id];
  const dialogue = useMemo(() => kept && dialogueOf(job.board, kept), [job.board, kept]);

  async function load(file: File): Promise<void> {
    setProblem(undefined);
    setShare(0);
    const started = decodeCapture({ file }, setShare);
    setCancel(() => started.cancel);
    const answer = await started.answer;
    setShare(undefined);
    if (answer.kind === 'problem') return setProblem(`${file.name}: ${answer.words}`);
    if (answer.kind !== 'done') return;
    const stored = await onKeep(
      job.number,
      captureBody(port.id, file.name.slice(0, 200), answer.reading),
      crypto.randomUUID(),
    );
    if (!stored.kept) setProblem(stored.words);
  }

  return (
    <>
      <Flex gap="5" mb="2" fontSize="14px" align="center">
        <FilePick
          label="Load a capture"
          text="load a capture of CC1 and CC2"
          accept=".csv,.vcd"
          onFile={(file) => void load(file)}
        />
        {share !== undefined && (
          <>
            <Text as="span" color="quiet" aria-live="polite">
              Decoding {Math.round(share * 100)} %
            </Text>
            <PlainButton type="button" onClick={cancel}>
              Cancel
            </PlainButton>
          </>
        )}
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {dialogue ? (
        <Conversation dialogue={dialogue} line={kept.line} />
      ) : (
        <Box color="quiet">
          No capture yet: two channels, CC1 and CC2, as CSV or VCD, 2 to 24 million samples a second.
        </Box>
      )}
    </>
  );
}

const SPEAKER = { charger: 'charger', device: 'device', cable: 'cable', line: 'the line' } as const;

function Conversation({ dialogue, line }: { dialogue: Dialogue; line: string | null }) {
  const good = dialogue.stop === 'contract';
  return (
    <Box flex="1" minH="0" overflowY="auto" tabIndex={0} role="region" aria-label="The conversation">
      <Text fontWeight="700" fontSize="19px" color={good ? 'leaf' : 'rust'}>
        {dialogue.headline}
        {dialogue.contract && `: ${dialogue.contract.volts} V, ${dialogue.contract.amps} A`}
      </Text>
      <Text fontSize="14px" color="quiet" mb="2">
        {line ? `${line} talks.` : 'Neither line talks.'}{' '}
        {dialogue.implicated.map(({ ref, why }) => `${ref}: ${why}.`).join(' ')}
      </Text>
      <chakra.table w="100%" fontSize="14px" css={{ borderCollapse: 'collapse' }}>
        <chakra.tbody>
          {dialogue.lines.slice(0, 120).map((l, i) => (
            <chakra.tr key={i} borderBottom="1px solid" borderColor="rule" color={l.intact ? 'ink' : 'rust'}>
              <chakra.td fontFamily="mono" textAlign="right" pr="4" py="1" whiteSpace="nowrap" color="quiet">
                {(l.atS * 1000).toFixed(1)} ms
              </chakra.td>
              <chakra.td
                fontWeight="700"
                pr="4"
                color={l.who === 'charger' ? 'copperText' : l.who === 'device' ? 'tinText' : 'quiet'}
              >
                {SPEAKER[l.who]}
              </chakra.td>
              <chakra.td w="100%">{l.words}</chakra.td>
            </chakra.tr>
          ))}
        </chakra.tbody>
      </chakra.table>
    </Box>
  );
}
