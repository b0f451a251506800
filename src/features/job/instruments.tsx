'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import { idealReading, interpretReading, Predictor, SOUND, valueLabel, type Measurement } from '@/core/diagnose';
import type { EntryMode, JobView, StageId } from '@/core/job';
import {
  bench,
  openNetworkLine,
  openSerial,
  serialAsker,
  SHIPPED,
  type Connected,
  type InstrumentDefinition,
} from '@/devices/instruments';
import { MainButton, Named, PlainButton, ProblemNote, SelectBox, SidebarPart, TextInput } from '@/ui';
import { shopInstruments } from './actions';
import { dueMeasurement } from './due-measurement';
import { suggestionOf } from './suggestion';
import { useBench, useHand } from './use-hand';
import { useVerdictTones } from './verdict-tones';

export interface HandPartProps {
  readonly job: JobView;
  readonly stage: StageId;
  readonly mode: EntryMode;
  readonly testIndex: number;
  readonly bareStem?: string;
}

/** The meter in hand at every page where a reading is due: the value large, what it should be, what it says, and the pedal. */
export function HandPart({ job, stage, mode, testIndex, bareStem }: HandPartProps) {
  const connected = useBench();
  const due = useMemo(() => {
    const test = job.tests[testIndex] ?? job.tests[0];
    return dueMeasurement(job, bareStem ?? suggestionOf(job, stage, test?.stem), mode);
  }, [job, stage, mode, testIndex, bareStem]);
  if (!connected.some((c) => c.meter && !c.isLost)) return null;
  return (
    <SidebarPart title="In hand">
      <LiveValue job={job} due={due} />
    </SidebarPart>
  );
}

/** The real instruments of this bench: which there are, and one more. */
export function InstrumentsPart() {
  const connected = useBench();
  const [left, setLeft] = useState<string>();
  return (
    <SidebarPart title="Instruments">
      {connected.map((c) => (
        <ConnectedLine key={c.id} c={c} onOff={setLeft} />
      ))}
      {left && <ProblemNote text={left} />}
      <ConnectForm />
    </SidebarPart>
  );
}

const COLOUR = { good: 'leaf', bad: 'rust', plain: 'ink' } as const;

function LiveValue({ job, due }: { job: JobView; due: Measurement | undefined }) {
  const { board, state } = job;
  const tones = useVerdictTones();
  const meaningOf = (value: number) =>
    due && interpretReading(Predictor.of(board), due, asValue(value), new Set(state.absent), job.references);
  const { shown, taking, problem, take } = useHand(board, due, (value) =>
    tones.sound(value === undefined ? 'refused' : (meaningOf(value)?.state ?? 'plain')),
  );
  const expected = useMemo(() => due && idealReading(Predictor.of(board), due, SOUND).value, [board, due]);
  if (!due) return <Text fontSize="14px">No reading is due here that a meter takes.</Text>;
  const meaning = shown === undefined ? undefined : meaningOf(shown);
  return (
    <Box mb="2" aria-live="polite">
      <Text
        fontFamily="mono"
        fontWeight="700"
        fontSize="34px"
        lineHeight="1.15"
        color={COLOUR[meaning?.state ?? 'plain']}
      >
        {shown === undefined ? '–' : valueLabel(due, asValue(shown))}
      </Text>
      <Text fontSize="14px">
        {taking ? 'Hold the probe still: three readings have to agree.' : (meaning?.message ?? '')}
      </Text>
      {expected && (
        <Text fontSize="14px" color="quiet">
          A sound board reads {valueLabel(due, expected)}.
        </Text>
      )}
      {problem && <ProblemNote text={problem} />}
      <Flex mt="1" gap="3" align="center">
        <MainButton type="button" disabled={taking} onClick={take}>
          Take it, F9
        </MainButton>
        <PlainButton type="button" aria-pressed={tones.on} onClick={tones.toggle}>
          {tones.on ? 'Tones on' : 'Tones off'}
        </PlainButton>
      </Flex>
    </Box>
  );
}

const asValue = (value: number) =>
  Number.isFinite(value) ? ({ kind: 'figure', value } as const) : ({ kind: 'open' } as const);

/** @param onOff told what could not be switched off as it was taken off. */
function ConnectedLine({ c, onOff }: { c: Connected; onOff: (left: string | undefined) => void }) {
  return (
    <Box py="1" borderBottom="1px dotted" borderColor="rule">
      <Text fontSize="14px" fontWeight="600" lineHeight="1.3" wordBreak="break-word">
        {c.name}
      </Text>
      <Flex align="center" gap="3">
        <Text fontSize="13px" color={c.isLost ? 'rust' : 'quiet'}>
          {c.isLost ? lostWords(c) : c.way}
        </Text>
        <Box ml="auto">
          <PlainButton type="button" onClick={() => void bench.disconnect(c.id).then(onOff)}>
            Take off
          </PlainButton>
        </Box>
      </Flex>
    </Box>
  );
}

const lostWords = ({ supply }: Connected): string =>
  supply ? 'line lost: its output counts as on, switch it off there' : 'line lost: connect it again';

type Way = 'serial' | 'network';

function ConnectForm() {
  const [definitions, setDefinitions] = useState<readonly InstrumentDefinition[]>();
  const [name, setName] = useState(SHIPPED[0].name);
  const [way, setWay] = useState<Way>('network');
  const [address, setAddress] = useState('127.0.0.1:5025');
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  if (!definitions)
    return (
      <PlainButton
        type="button"
        mt="1"
        onClick={() => void shopInstruments().then((own) => setDefinitions([...own, ...SHIPPED]))}
      >
        Connect an instrument
      </PlainButton>
    );
  const definition = definitions.find((d) => d.name === name) ?? definitions[0];

  async function connect(): Promise<void> {
    setBusy(true);
    setProblem(undefined);
    try {
      await bench.connect(definition, await open(way, address, definition));
      setDefinitions(undefined);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  }
  const ways = serialAsker() ? WAYS : WAYS.filter(([w]) => w !== 'serial');
  return (
    <Flex
      as="form"
      direction="column"
      gap="2"
      mt="2"
      onSubmit={(event) => {
        event.preventDefault();
        void connect();
      }}
    >
      <Named name="What it is">
        <SelectBox value={definition.name} options={definitions.map((d) => [d.name, d.name])} onChange={setName} />
      </Named>
      <Named name="How it is reached">
        <SelectBox value={way} options={ways} onChange={(w) => setWay(w as Way)} />
      </Named>
      {way === 'network' && (
        <Named name="Address">
          <TextInput value={address} onChange={(e) => setAddress(e.target.value)} fontFamily="mono" />
        </Named>
      )}
      <Flex gap="2">
        <PlainButton type="submit" disabled={busy}>
          {busy ? 'Trying it…' : 'Connect and try it'}
        </PlainButton>
        <PlainButton type="button" onClick={() => setDefinitions(undefined)}>
          Close
        </PlainButton>
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </Flex>
  );
}

const WAYS: readonly (readonly [Way, string])[] = [
  ['network', 'over the network, through the server'],
  ['serial', 'a serial line of this browser'],
];

async function open(way: Way, address: string, { dialect, line }: InstrumentDefinition) {
  if (way === 'serial') return openSerial(await serialAsker()!(), line);
  return openNetworkLine(address.trim(), dialect.kind === 'supply' ? dialect.off : undefined);
}
