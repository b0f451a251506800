'use client';

import { useState, useTransition } from 'react';
import { Flex } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { calibrationFromCurve, type LoggedAnswer, type ThermoLog } from '@/core/calibration';
import { thermoTable } from '@/core/import';
import { problemText } from '@/core/result';
import {
  AnswerNote,
  FigureLine,
  FilePick,
  MainButton,
  Named,
  PlainButton,
  ProblemNote,
  ReadingAsk,
  SelectBox,
  useFileReading,
} from '@/ui';
import { keepLogged } from './actions';
import { useHeatDesk, type LoggedRun } from './desk';

/** A thermocouple's file over the prediction: what is left between the two, and what it says of the station. */
export function LoggedPart() {
  const { job, board, station, plan, last, logged, setLogged } = useHeatDesk();
  const [seen, setSeen] = useState<LoggedAnswer>();
  const [problem, setProblem] = useState<string>();
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const places = last!.run.parts.map((p) => p.ref);

  function show(run: LoggedRun): void {
    const got = calibrationFromCurve(board, station, plan, run.curve);
    setLogged(run);
    setAnswer(undefined);
    setSeen(got.ok ? got.value : undefined);
    setProblem(got.ok ? undefined : problemText(got.problems));
  }
  const reading = useFileReading<ThermoLog>({
    reader: thermoTable,
    onProblem: setProblem,
    onRead: ({ timesS, probes, airOnS }, { name }) => {
      const [probe] = probes;
      const there = timesS.map((_, i) => i).filter((i) => !Number.isNaN(probe.readC[i]));
      const curve = {
        ref: plan.partRef,
        timesS: there.map((i) => timesS[i] - airOnS),
        readC: there.map((i) => probe.readC[i]),
      };
      show({ name: probes.length > 1 ? `${name}, ${probe.name}` : name, curve });
    },
  });
  const drop = (): void => {
    setLogged(undefined);
    setSeen(undefined);
  };
  const keep = (): void =>
    start(async () => {
      const got = await keepLogged(job.number, station.id, plan, logged!.curve, crypto.randomUUID());
      setAnswer(got);
      if (got.saved) setSeen(undefined);
    });
  return (
    <>
      <Flex gap="3" align="center" mt="2">
        <FilePick
          label="Logged curve, CSV"
          text="Lay a logged curve over it, CSV"
          accept=".csv,.txt"
          onFile={(file) => void reading.take(file)}
        />
        {logged && (
          <PlainButton type="button" onClick={drop}>
            Take it off
          </PlainButton>
        )}
      </Flex>
      {logged && (
        <Named name={`${logged.name} sat at`}>
          <SelectBox
            value={logged.curve.ref}
            onChange={(ref) => show({ ...logged, curve: { ...logged.curve, ref } })}
            options={places.map((ref) => [ref, ref])}
          />
        </Named>
      )}
      <ReadingAsk reading={reading} title={thermoTable.title} />
      {problem && <ProblemNote text={problem} />}
      {seen && <Residuals seen={seen} multiplier={station.multiplier} efficiency={station.outletEfficiency} />}
      {seen && (
        <MainButton type="button" mt="2" disabled={busy} onClick={keep}>
          Take the log into the station
        </MainButton>
      )}
      <AnswerNote answer={answer} />
    </>
  );
}

function Residuals({ seen, multiplier, efficiency }: { seen: LoggedAnswer; multiplier: number; efficiency: number }) {
  const { residualsK, rmsK, rmsAfterK, calibration: c } = seen;
  const worst = residualsK.reduce((a, b) => (Math.abs(b.offK) > Math.abs(a.offK) ? b : a));
  return (
    <>
      <FigureLine name="Read less computed, rms" value={`${rmsK.toFixed(1)} K`} />
      <FigureLine
        name={`Most, at ${worst.atS} s`}
        value={`${worst.offK >= 0 ? '+' : '−'}${Math.abs(worst.offK).toFixed(1)} K`}
      />
      <FigureLine name="Left when taken over, rms" value={`${rmsAfterK.toFixed(1)} K`} />
      <FigureLine name="Outlet ε" value={`${efficiency.toFixed(2)} → ${c.outletEfficiency.value.toFixed(2)}`} />
      <FigureLine name="Film m" value={`${multiplier.toFixed(2)} → ${c.multiplier.value.toFixed(2)}`} />
    </>
  );
}
