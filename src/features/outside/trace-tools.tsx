'use client';

import { useState, useTransition } from 'react';
import { Flex, Text, chakra } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { traceBody, traceReadings, type JobView, type KeepEvent, type Origin, type WayView } from '@/core/job';
import { problemText } from '@/core/result';
import { importMeterCsv, type ColumnChoice, type ExpectedDraw, type MeterImport, type Trace } from '@/core/trace';
import { SCENES, SimulatedMeter, type Scene } from '@/devices/meter';
import { FilePick, PlainButton, ProblemNote } from '@/ui';
import { ColumnAsk } from './column-ask';
import { originOfText } from './file-origin';
import { useLiveMeter, type LiveMeter } from './use-live-meter';

/** A meter's file of an hour is about 2 MB; far beyond that it is something else. */
const MOST_BYTES = 20_000_000;
/** The simulated meter may run faster than a real one. */
const SPEEDS = [1, 10, 60] as const;

interface Asked {
  readonly side: PlugSide;
  readonly name: string;
  readonly text: string;
  readonly imported: MeterImport;
}

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
  const [asked, setAsked] = useState<Asked>();
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

  function load(side: PlugSide, file: File): void {
    setAsked(undefined);
    if (file.size > MOST_BYTES)
      return setProblem(
        `${file.name}: expected a meter’s CSV of at most 20 MB; got ${(file.size / 1e6).toFixed(0)} MB.`,
      );
    start(async () => {
      const text = await file.text();
      const imported = importMeterCsv(text);
      if (!imported.ok) return setProblem(`${file.name}: ${problemText(imported.problems)}`);
      setProblem(undefined);
      if (imported.value.doubts.length > 0) return setAsked({ side, name: file.name, text, imported: imported.value });
      await keep(side, file.name, imported.value.trace, originOfText(file.name, text));
    });
  }

  function choose({ side, name, text }: Asked, choice: ColumnChoice): void {
    start(async () => {
      const imported = importMeterCsv(text, choice);
      if (!imported.ok) return setProblem(`${name}: ${problemText(imported.problems)}`);
      setAsked(undefined);
      await keep(side, name, imported.value.trace, originOfText(name, text));
    });
  }

  function stopLive(): void {
    const trace = live.stop();
    if (!trace) return setProblem('Expected three samples or more from the meter; got fewer. Let it run for a while.');
    start(() => keep(liveSide, 'simulated meter', trace, { kind: 'simulated', by: 'simulated meter' }));
  }

  return (
    <>
      <Flex gap="5" mb="2" fontSize="14px" wrap="wrap" align="baseline">
        {(['A', 'B'] as const).map((side) => (
          <FilePick
            key={side}
            label={`Load a trace, ${side} way`}
            text={busy ? 'keeping …' : `load a trace, ${side} way`}
            accept=".csv,text/csv"
            onFile={(file) => load(side, file)}
          />
        ))}
        {job.simulators && (
          <LiveControls
            running={live.running}
            side={liveSide}
            onSide={setSide}
            onStart={(scene, speed) => live.start(new SimulatedMeter(scene, port.designV, Date.now() % 1000, speed))}
            onStop={stopLive}
          />
        )}
      </Flex>
      {asked && (
        <ColumnAsk
          key={`${asked.side} ${asked.name}`}
          name={asked.name}
          imported={asked.imported}
          onChoose={(choice) => choose(asked, choice)}
          onDrop={() => setAsked(undefined)}
        />
      )}
      {problem && <ProblemNote text={problem} />}
    </>
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
