'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { Port } from '@/core/board';
import { traceBody, type JobView, type KeepEvent, type OutsideView } from '@/core/job';
import { problemText } from '@/core/result';
import { importMeterCsv } from '@/core/trace';
import { TraceDrawing } from '@/drawings/trace-drawing';
import { FilePick, ProblemNote } from '@/ui';

interface TraceViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly outside: OutsideView;
  readonly onKeep: KeepEvent;
}

/** A meter's file of an hour is about 2 MB; far beyond that it is something else. */
const MOST_BYTES = 20_000_000;
/** The last part of a trace stands for the reading, s. */
const SETTLED_S = 5;

/** Meter traces of both plug ways on one time axis, cut into named segments. */
export function TraceView({ job, port, outside, onKeep }: TraceViewProps) {
  const [problem, setProblem] = useState<string>();
  const [doubts, setDoubts] = useState<readonly string[]>([]);
  const [busy, start] = useTransition();

  function load(side: 'A' | 'B', file: File): void {
    if (file.size > MOST_BYTES)
      return setProblem(
        `${file.name}: expected a meter’s CSV of at most 20 MB; got ${(file.size / 1e6).toFixed(0)} MB.`,
      );
    start(async () => {
      const imported = importMeterCsv(await file.text());
      if (!imported.ok) return setProblem(`${file.name}: ${problemText(imported.problems)}`);
      const { trace } = imported.value;
      const kept = await onKeep(
        job.number,
        traceBody(port.id, side, file.name.slice(0, 200), trace),
        crypto.randomUUID(),
      );
      if (!kept.kept) return setProblem(kept.words);
      await onKeep(
        job.number,
        { kind: 'reading', measurement: { kind: 'usb', port: port.id, side }, value: settled(trace) },
        crypto.randomUUID(),
      );
      setProblem(undefined);
      setDoubts(imported.value.doubts);
    });
  }

  const traced = outside.ways.filter((w) => w.trace);
  return (
    <>
      <Flex gap="5" mb="2" fontSize="14px" wrap="wrap">
        {(['A', 'B'] as const).map((side) => (
          <FilePick
            key={side}
            label={`Load a trace, ${side} way`}
            text={busy ? 'keeping …' : `load a trace, ${side} way`}
            accept=".csv,text/csv"
            onFile={(file) => load(side, file)}
          />
        ))}
        {doubts.map((d) => (
          <Text key={d} as="span" color="amberText">
            {d}
          </Text>
        ))}
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {traced.length > 0 ? (
        <TraceDrawing ways={outside.ways} expected={outside.expected} />
      ) : (
        <Box color="quiet">
          No trace yet: the CSV of any USB meter will do. Plug in, wait a minute, save, load it here; then the other way
          round.
        </Box>
      )}
    </>
  );
}

/** The last seconds of a trace as a reading for the belief. */
function settled(trace: { timesS: Float64Array; volts: Float64Array; amps: Float64Array }): {
  kind: 'pair';
  volts: number;
  amps: number;
} {
  const end = trace.timesS[trace.timesS.length - 1];
  const from = trace.timesS.findIndex((t) => t >= end - SETTLED_S);
  const mean = (values: Float64Array): number => values.slice(from).reduce((s, v) => s + v, 0) / (values.length - from);
  return { kind: 'pair', volts: Number(mean(trace.volts).toFixed(3)), amps: Number(mean(trace.amps).toFixed(3)) };
}
