'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { PlugSide, Port } from '@/core/board';
import { traceBody, traceReadings, type JobView, type KeepEvent, type OutsideView } from '@/core/job';
import { problemText } from '@/core/result';
import { importMeterCsv, type ColumnChoice, type MeterImport, type Trace } from '@/core/trace';
import { SCENES, SimulatedMeter, type Scene } from '@/devices/meter';
import { TraceDrawing } from '@/drawings/trace-drawing';
import { FilePick, PlainButton, ProblemNote } from '@/ui';
import { ColumnAsk } from './column-ask';
import { useLiveMeter } from './use-live-meter';

interface TraceViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly outside: OutsideView;
  readonly onKeep: KeepEvent;
}

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

/** Meter traces of both plug ways on one time axis, cut into named segments: from files, or live. */
export function TraceView({ job, port, outside, onKeep }: TraceViewProps) {
  const [problem, setProblem] = useState<string>();
  const [asked, setAsked] = useState<Asked>();
  const [busy, start] = useTransition();
  const [liveSide, setLiveSide] = useState<PlugSide>('A');
  const live = useLiveMeter();

  /** Keeps a trace and what it says, one event after the other. */
  async function keep(side: PlugSide, name: string, trace: Trace): Promise<void> {
    const body = traceBody(port.id, side, name.slice(0, 200), trace);
    const kept = await onKeep(job.number, body, crypto.randomUUID());
    if (!kept.kept) return setProblem(kept.words);
    for (const reading of traceReadings(port, body, outside.expected)) {
      const answer = await onKeep(job.number, reading, crypto.randomUUID());
      if (!answer.kept) return setProblem(answer.words);
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
      await keep(side, file.name, imported.value.trace);
    });
  }

  function choose({ side, name, text }: Asked, choice: ColumnChoice): void {
    start(async () => {
      const imported = importMeterCsv(text, choice);
      if (!imported.ok) return setProblem(`${name}: ${problemText(imported.problems)}`);
      setAsked(undefined);
      await keep(side, name, imported.value.trace);
    });
  }

  function stopLive(): void {
    const trace = live.stop();
    if (!trace) return setProblem('Expected three samples or more from the meter; got fewer. Let it run for a while.');
    start(() => keep(liveSide, 'simulated meter', trace));
  }

  const ways = live.trace
    ? outside.ways.map((w) => (w.side === liveSide ? { side: w.side, trace: live.trace, segments: [] } : w))
    : outside.ways;
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
        <LiveControls
          running={live.running}
          side={liveSide}
          onSide={setLiveSide}
          onStart={(scene, speed) => live.start(new SimulatedMeter(scene, port.designV, Date.now() % 1000, speed))}
          onStop={stopLive}
        />
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
      {ways.some((w) => w.trace) ? (
        <TraceDrawing ways={ways} expected={outside.expected} />
      ) : (
        <Box color="quiet">
          No trace yet: the CSV of any USB meter will do. Plug in, wait a minute, save, load it here; then the other way
          round. Or let the simulated meter run.
        </Box>
      )}
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
