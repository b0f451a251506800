'use client';

import { useState, useSyncExternalStore, useTransition } from 'react';
import { Flex, Text, chakra } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { traceBody, traceReadings, type JobView, type KeepEvent, type Origin, type WayView } from '@/core/job';
import { meterTable, type MeterTable } from '@/core/import';
import type { ExpectedDraw, Trace } from '@/core/trace';
import { bench, type Connected } from '@/devices/instruments';
import { SCENES, SimulatedMeter, type Scene } from '@/devices/meter';
import { FilePick, PlainButton, ProblemNote, ReadingAsk, SelectBox, useFileReading, type ReadFile } from '@/ui';
import { originOfBytes } from './file-origin';
import { useLiveMeter, type LiveMeter } from './use-live-meter';

/** The simulated meter may run faster than a real one. */
const SPEEDS = [1, 10, 60] as const;

/** A meter that runs, and the plug way it is at. */
export interface TraceDesk {
  readonly live: LiveMeter;
  readonly side: PlugSide;
  readonly setSide: (side: PlugSide) => void;
}

export function useTraceDesk(): TraceDesk {
  const live = useLiveMeter();
  const [side, setSide] = useState<PlugSide>('A');
  return { live, side, setSide };
}

/** The ways with the running meter's trace in the place of the kept one. */
export const withLive = (ways: readonly WayView[], { live, side }: TraceDesk): readonly WayView[] =>
  ways.map((w) => (live.trace && w.side === side ? { side, trace: live.trace, segments: [] } : w));

export interface TraceToolsProps {
  readonly job: JobView;
  readonly port: Port;
  readonly expected: ExpectedDraw;
  readonly desk: TraceDesk;
  readonly onKeep: KeepEvent;
}

/** Ways to get a trace: a meter's file for either plug way, or the simulated meter. */
export function TraceTools({ job, port, expected, desk, onKeep }: TraceToolsProps) {
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const { live, side: liveSide, setSide } = desk;

  /** Keeps a trace and what it says, one event after the other. */
  async function keep(side: PlugSide, name: string, trace: Trace, origin: Origin): Promise<void> {
    const body = traceBody(port.id, side, name.slice(0, 200), trace);
    const kept = await onKeep(job.number, body, crypto.randomUUID(), origin);
    if (!kept.saved) return setProblem(kept.message);
    for (const reading of traceReadings(port, body, expected)) {
      const answer = await onKeep(job.number, reading, crypto.randomUUID(), origin);
      if (!answer.saved) return setProblem(answer.message);
    }
    setProblem(undefined);
  }

  const kept = (side: PlugSide) => (table: MeterTable, file: ReadFile, answers: Readonly<Record<string, string>>) =>
    start(() => keep(side, file.name, table.trace, originOfBytes(file.name, file.bytes, meterTable.id, answers)));
  const readings = {
    A: useFileReading<MeterTable>({ reader: meterTable, onProblem: setProblem, onRead: kept('A') }),
    B: useFileReading<MeterTable>({ reader: meterTable, onProblem: setProblem, onRead: kept('B') }),
  };

  const connected = useSyncExternalStore(bench.subscribe, bench.list, () => NONE);
  const real = connected.findLast((c) => c.definition.dialect.kind === 'usbMeter' && !c.isLost);

  function stopLive(name: string, origin: Origin, missing?: string): void {
    const trace = live.stop();
    if (!trace) return setProblem('Expected three samples or more from the meter; got fewer. Let it run for a while.');
    start(async () => {
      await keep(liveSide, name, trace, origin);
      if (missing !== undefined) setProblem(`Kept. ${missing}`);
    });
  }

  return (
    <>
      <Flex gap="5" mb="2" fontSize="14px" wrap="wrap" align="baseline">
        {(['A', 'B'] as const).map((side) => (
          <FilePick
            key={side}
            label={`Load a trace, ${side} way`}
            text={busy ? 'keeping …' : `load a trace, ${side} way`}
            accept=".csv,.tsv,.txt,text/csv"
            onFile={(file) => void readings[side].take(file)}
          />
        ))}
        {real?.stream && (
          <RealControls
            name={real.name}
            running={live.running}
            side={liveSide}
            onSide={setSide}
            onStart={() => live.start(real.stream!)}
            onStop={() => stopLive(real.name, { kind: 'instrument', identification: real.name }, real.stream!.missing)}
          />
        )}
        {job.simulators && !real && (
          <LiveControls
            running={live.running}
            side={liveSide}
            onSide={setSide}
            onStart={(scene, speed) => live.start(new SimulatedMeter(scene, port.designV, Date.now() % 1000, speed))}
            onStop={() => stopLive('simulated meter', { kind: 'simulated', by: 'simulated meter' })}
          />
        )}
      </Flex>
      {(['A', 'B'] as const).map((side) => (
        <ReadingAsk key={side} reading={readings[side]} title={`${meterTable.title}, ${side} way`} />
      ))}
      {problem && <ProblemNote text={problem} />}
    </>
  );
}

const NONE: readonly Connected[] = [];

/** A USB meter on a line: recorded into one plug way as it runs. */
function RealControls({
  name,
  running,
  side,
  onSide,
  onStart,
  onStop,
}: Omit<LiveControlsProps, 'onStart'> & { readonly name: string; readonly onStart: () => void }) {
  return (
    <Flex as="section" aria-label="USB meter" gap="2" ml="auto" align="baseline">
      <Text as="span" color="quiet">
        {name}:
      </Text>
      <SelectBox
        label="Plug way"
        value={side}
        disabled={running}
        options={[
          ['A', 'A way'],
          ['B', 'B way'],
        ]}
        onChange={(way) => onSide(way as PlugSide)}
      />
      <PlainButton type="button" onClick={running ? onStop : onStart}>
        {running ? 'Stop and keep' : 'Record'}
      </PlainButton>
    </Flex>
  );
}

interface LiveControlsProps {
  readonly running: boolean;
  readonly side: PlugSide;
  readonly onSide: (side: PlugSide) => void;
  readonly onStart: (scene: Scene, speed: number) => void;
  readonly onStop: () => void;
}

/** The simulated meter stands in for one on a cable. */
function LiveControls({ running, side, onSide, onStart, onStop }: LiveControlsProps) {
  const [scene, setScene] = useState<Scene>('charging');
  const [speed, setSpeed] = useState<number>(1);
  return (
    <Flex as="section" aria-label="Simulated meter" gap="2" ml="auto" align="baseline" color="quiet">
      <Text as="span">simulated meter:</Text>
      <chakra.select
        aria-label="Scene"
        value={scene}
        onChange={(e) => setScene(e.target.value as Scene)}
        bg="transparent"
      >
        {SCENES.map((s) => (
          <option key={s}>{s}</option>
        ))}
      </chakra.select>
      <chakra.select
        aria-label="Plug way"
        value={side}
        onChange={(e) => onSide(e.target.value as PlugSide)}
        bg="transparent"
      >
        <option value="A">A way</option>
        <option value="B">B way</option>
      </chakra.select>
      <chakra.select
        aria-label="Speed"
        value={speed}
        onChange={(e) => setSpeed(Number(e.target.value))}
        bg="transparent"
      >
        {SPEEDS.map((s) => (
          <option key={s} value={s}>
            {s}×
          </option>
        ))}
      </chakra.select>
      <PlainButton type="button" onClick={() => (running ? onStop() : onStart(scene, speed))}>
        {running ? 'Stop and keep' : 'Run'}
      </PlainButton>
    </Flex>
  );
}
