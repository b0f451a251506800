'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { captureBody, captureReading, dialogueOf, type JobView, type KeepEvent, TYPED, type Origin } from '@/core/job';
import { problemText } from '@/core/result';
import {
  captureCsv,
  conversation,
  edgesOf,
  OFFERS_65W,
  readHexList,
  TROUBLES,
  type CaptureReading,
  type ConversationTrouble,
  type Dialogue,
} from '@/core/usb';
import { FilePick, PlainButton, ProblemNote, ReadingAsk } from '@/ui';
import { useCaptureFile } from './use-capture-file';

interface TalkViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly onKeep: KeepEvent;
}

/** The conversation on the CC line: from a capture, from hex, or simulated; who said what, and where it stopped. */
export function TalkView({ job, port, onKeep }: TalkViewProps) {
  const [problem, setProblem] = useState<string>();
  const [plugged, setPlugged] = useState<PlugSide>('A');
  const [listing, setListing] = useState(false);
  const kept = job.state.captures[port.id];
  const dialogue = useMemo(() => kept && dialogueOf(job.board, kept), [job.board, kept]);

  async function keep(name: string, reading: CaptureReading, origin: Origin): Promise<void> {
    const body = captureBody(port.id, name.slice(0, 200), reading);
    const stored = await onKeep(job.number, body, crypto.randomUUID(), origin);
    if (!stored.saved) return setProblem(stored.message);
    const { stop } = dialogueOf(job.board, body);
    const said = await onKeep(job.number, captureReading(port, body.line, plugged, stop), crypto.randomUUID(), origin);
    if (!said.saved) setProblem(said.message);
  }

  const capture = useCaptureFile({ onProblem: setProblem, onRead: keep });

  async function takeList(text: string): Promise<void> {
    const reading = readHexList(text);
    if (!reading.ok) return setProblem(problemText(reading.problems));
    setProblem(undefined);
    setListing(false);
    await keep('hex list', reading.value, TYPED);
  }

  return (
    <>
      <Flex gap="5" mb="2" fontSize="14px" align="baseline" wrap="wrap">
        <FilePick
          label="Load a capture"
          text="load a capture"
          accept=".csv,.txt,.vcd,.sr"
          onFile={(file) => void capture.take(file)}
        />
        <chakra.button
          type="button"
          cursor="pointer"
          color="copperText"
          textDecoration="underline"
          aria-expanded={listing}
          onClick={() => setListing(!listing)}
        >
          type it as hex
        </chakra.button>
        <chakra.select
          aria-label="Plugged"
          value={plugged}
          onChange={(e) => setPlugged(e.target.value as PlugSide)}
          bg="transparent"
          color="quiet"
        >
          <option value="A">plugged A way</option>
          <option value="B">plugged B way</option>
        </chakra.select>
        {job.simulators && (
          <SimulatedTalk port={port} plugged={plugged} onCapture={(file) => void capture.take(file, true)} />
        )}
        {capture.share !== undefined && (
          <>
            <Text as="span" color="quiet" aria-live="polite">
              Decoding {Math.round(capture.share * 100)} %
            </Text>
            <PlainButton type="button" onClick={capture.cancel}>
              Cancel
            </PlainButton>
          </>
        )}
      </Flex>
      <ReadingAsk reading={capture.reading} title="a capture" />
      {listing && <HexList onRead={(text) => void takeList(text)} />}
      {problem && <ProblemNote text={problem} />}
      {dialogue ? (
        <Conversation dialogue={dialogue} line={kept.line} />
      ) : (
        <Box color="quiet">
          No capture yet: channels with CC1 and CC2 as rows of levels or volts, as a value change dump or as a session
          archive, from 2.4 million samples a second.
        </Box>
      )}
    </>
  );
}

const TROUBLE_WORDS: Record<ConversationTrouble, string> = {
  none: 'nothing wrong',
  noAnswer: 'device does not answer',
  noRd: 'no pull-down',
  refused: 'request refused',
  collapse: 'contract collapses',
  noisy: 'noisy line',
  badImage: 'image does not run',
};

/** Two million samples a second are enough for the line and keep the file small. */
const SIMULATED_HZ = 4e6;

/** A charger and a device that have what is chosen wrong with them, captured as a file and read like any other. */
function SimulatedTalk({
  port,
  plugged,
  onCapture,
}: {
  port: Port;
  plugged: PlugSide;
  onCapture: (file: File) => void;
}) {
  const [trouble, setTrouble] = useState<ConversationTrouble>('noAnswer');
  function run(): void {
    const want = OFFERS_65W.findIndex((o) => o.kind === 'fixed' && o.voltageMv === port.designV * 1000) + 1;
    const packets = conversation({ trouble, offers: OFFERS_65W, want: Math.max(1, want), wantMa: 2000 });
    const edges = edgesOf(packets, { seed: Date.now() % 1000, jitterS: 5e-8, clockError: 0.01, glitchesPerS: 20 });
    const text = captureCsv(edges, port.sides[0].side === plugged ? 'CC1' : 'CC2', SIMULATED_HZ);
    onCapture(new File([text], `simulated, ${TROUBLE_WORDS[trouble]}.csv`));
  }
  return (
    <Flex as="section" aria-label="Simulated conversation" gap="2" ml="auto" align="baseline" color="quiet">
      <Text as="span">simulate:</Text>
      <chakra.select
        aria-label="What is wrong"
        value={trouble}
        onChange={(e) => setTrouble(e.target.value as ConversationTrouble)}
        bg="transparent"
      >
        {TROUBLES.map((t) => (
          <option key={t} value={t}>
            {TROUBLE_WORDS[t]}
          </option>
        ))}
      </chakra.select>
      <PlainButton type="button" onClick={run}>
        Capture
      </PlainButton>
    </Flex>
  );
}

function HexList({ onRead }: { onRead: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <Box mb="2">
      <chakra.textarea
        aria-label="Messages as hex"
        value={text}
        onChange={(e) => setText(e.target.value)}
        placeholder={'12.5ms 41A1 0001912C 0002D12C 0004B12C 00064145\n13.1ms 0041'}
        rows={4}
        w="100%"
        fontFamily="mono"
        fontSize="14px"
        bg="ground"
        border="1px solid"
        borderColor="rule"
        p="2"
      />
      <Flex gap="4" align="baseline" mt="1">
        <PlainButton type="button" onClick={() => onRead(text)} disabled={text.trim() === ''}>
          Read them
        </PlainButton>
        <Text fontSize="14px" color="quiet">
          One message a line: time in ms if known, then header and objects as words, or bytes with their check sum.
        </Text>
      </Flex>
    </Box>
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
        {line ? `${line} talks.` : dialogue.lines.length > 0 ? '' : 'Neither line talks.'}{' '}
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
