'use client';

import { useState, useTransition } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { runMark, type JobView } from '@/core/job';
import { problemText } from '@/core/result';
import { calibrationFromMark, type MarkAnswer } from '@/core/calibration';
import { AnswerNote, FigureLine, MainButton, SidebarPart, PlainButton, ProblemNote, TextInput } from '@/ui';
import { keepMark } from './actions';
import { useHeatDesk } from './desk';
import { LoggedPart } from './logged-part';

/** After the run: when all joints were seen molten, what that says of the station, and taking it over. */
export function MarkPart() {
  const { job, board, station, plan } = useHeatDesk();
  const [text, setText] = useState(() => molten(job));
  const [seen, setSeen] = useState<MarkAnswer>();
  const [problem, setProblem] = useState<string>();
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const compare = (): void => {
    const seconds = Number(text.trim().replace(/\s*s$/, '').replace(',', '.'));
    setAnswer(undefined);
    setSeen(undefined);
    if (!(seconds >= 5 && seconds <= 900))
      return setProblem(`Expected the second at which all joints were molten, 5 to 900; got "${text}".`);
    const got = calibrationFromMark(board, station, plan, seconds);
    setProblem(got.ok ? undefined : problemText(got.problems));
    if (got.ok) setSeen(got.value);
  };
  const keep = (): void =>
    start(async () => {
      const got = await keepMark(job.number, station.id, plan, seen!.seenS);
      setAnswer(got);
      if (got.saved) setSeen(undefined);
    });
  return (
    <SidebarPart title="After the run">
      <Flex gap="2" align="center">
        <TextInput
          w="7em"
          aria-label="Molten at, seconds"
          placeholder="molten at, s"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && compare()}
        />
        <PlainButton type="button" onClick={compare}>
          Compare
        </PlainButton>
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {seen && <Seen seen={seen} multiplier={station.multiplier} efficiency={station.outletEfficiency} />}
      {seen && (
        <MainButton type="button" mt="2" disabled={busy} onClick={keep}>
          Take it into the station
        </MainButton>
      )}
      <AnswerNote answer={answer} />
      <LoggedPart />
    </SidebarPart>
  );
}

/** The mark of the job's latest run, so that nobody has to type it. */
function molten({ state }: JobView): string {
  const mark = runMark(state);
  return mark?.plan.partRef === state.heatPlan?.plan.partRef ? String(mark?.seenS ?? '') : '';
}

/** Beyond this the mark is more likely a slip or a part of another kind than the station. */
const SURPRISING_SDS = 3;

function Seen({ seen, multiplier, efficiency }: { seen: MarkAnswer; multiplier: number; efficiency: number }) {
  const { computedS, seenS, residualSds, calibration: c } = seen;
  const off = seenS - computedS;
  return (
    <>
      <FigureLine name="Seen less computed" value={`${off >= 0 ? '+' : '−'}${Math.abs(off).toFixed(0)} s`} />
      <FigureLine name="Outlet ε" value={`${efficiency.toFixed(2)} → ${c.outletEfficiency.value.toFixed(2)}`} />
      <FigureLine name="Film m" value={`${multiplier.toFixed(2)} → ${c.multiplier.value.toFixed(2)}`} />
      {Math.abs(residualSds) > SURPRISING_SDS && (
        <Text fontSize="14px" color="amberText">
          {Math.abs(residualSds).toFixed(1)} standard deviations off: another nozzle, copper or height than planned?
        </Text>
      )}
    </>
  );
}
