'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import {
  DEFAULT_BLOW,
  driftOf,
  trialWords,
  type Calibration,
  type CalibrationRecord,
  type Trial,
} from '@/core/calibration';
import { multiplierAt, type Station } from '@/core/heat';
import {
  AnswerNote,
  BigFigure,
  CautionNote,
  ColumnHeads,
  FigureLine,
  Headline,
  MainButton,
  SidebarPart,
  Named,
  PlainButton,
  ProblemNote,
  TextInput,
  usePlace,
  LIST_WIDTH,
} from '@/ui';
import { LogCurves } from '@/drawings/log-curves';
import { keepCalibration } from './actions';
import { FixedPointForm } from './fixed-point-form';
import { LoggerPart } from './logger-part';
import type { KnownStation } from './queries';
import { TrialForm } from './trial-form';
import type { StationFit } from '@/workers/calibration/task';
import { useCalibration } from './use-calibration';

const EMPTY: readonly Trial[] = [];

/** One station: what its air does, how that was found, and finding it again. */
export function StationSheet({ station, history, simulators }: KnownStation & { readonly simulators: boolean }) {
  const { day } = usePlace();
  const [trials, setTrials] = useState<readonly Trial[]>(EMPTY);
  const [flow, setFlow] = useState(String(Math.min(station.flowLpm[1], DEFAULT_BLOW.flowLpm)));
  const [set, setSet] = useState(String(DEFAULT_BLOW.setC));
  const [problem, setProblem] = useState<string>();
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const { fit, problem: crash } = useCalibration(station, trials);
  const flowLpm = Number(flow);
  const blow = { ...DEFAULT_BLOW, flowLpm };
  const add = (trial: Trial): void => {
    setProblem(undefined);
    setAnswer(undefined);
    setTrials([...trials, trial]);
  };
  const keep = (): void =>
    start(async () => {
      const got = await keepCalibration(station.id, trials, crypto.randomUUID());
      setAnswer(got);
      if (got.saved) setTrials(EMPTY);
    });
  const flowHolds = flowLpm >= station.flowLpm[0] && flowLpm <= station.flowLpm[1];
  return (
    <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) 300px' }} columnGap="8">
      <Box minW="0">
        <Headline title={station.name} aside={`${Math.round(100 * station.doubt)} % doubt`}>
          {history.length > 0
            ? `Calibrated ${day(history[history.length - 1].at)}; every plan for it is computed with these figures.`
            : 'Never calibrated here: its figures are taken from elsewhere, and every plan carries their doubt.'}
        </Headline>
        <Flex gap="8" wrap="wrap" mb="5">
          <BigFigure name="outlet efficiency ε" value={station.outletEfficiency.toFixed(2)} />
          <BigFigure name={`film multiplier m at ${flow} l/min`} value={multiplierAt(station, flowLpm).toFixed(2)} />
          <BigFigure name="entrainment, nozzle widths" value={station.spreadDiameters.toFixed(1)} />
          <BigFigure name="outlet lag" value={`${station.outletLagS.toFixed(0)} s`} />
        </Flex>
        <Text as="h2" fontWeight="700" fontSize="17px">
          Calibrate
        </Text>
        <Text fontSize="14px" color="quiet" mb="2">
          Coupon of 40 × 40 × 1.6 mm with an 8 mm copper slug; nozzle {DEFAULT_BLOW.nozzleMm} mm,{' '}
          {DEFAULT_BLOW.heightMm} mm above it, from the room’s {DEFAULT_BLOW.ambientC} °C each time.
        </Text>
        <Flex gap="3" align="flex-end" mb="3">
          <Named name="Flow, l/min">
            <TextInput w="6em" inputMode="numeric" value={flow} onChange={(e) => setFlow(e.target.value)} />
          </Named>
          <Named name="Set point of a log, °C">
            <TextInput w="7em" inputMode="numeric" value={set} onChange={(e) => setSet(e.target.value)} />
          </Named>
          {!flowHolds && (
            <ProblemNote text={`Expected a flow from ${station.flowLpm.join(' to ')} l/min; got "${flow}".`} />
          )}
        </Flex>
        <Text fontWeight="700">With thermocouples</Text>
        <LoggerPart
          station={station}
          blow={{ ...blow, setC: Number(set) }}
          simulators={simulators}
          onTrial={add}
          onProblem={setProblem}
        />
        <Text fontSize="14px" color="quiet" mt="2">
          A probe on a surface reads some per cent of the rise low. Ice or boiling water, or an alloy that melts under
          it, tells by how much.
        </Text>
        <FixedPointForm ambientC={blow.ambientC} onTrial={add} onProblem={setProblem} />
        <Text fontWeight="700" mt="4">
          With the melt coupon
        </Text>
        {fit && (
          <>
            <Text mb="2" color="copperText">
              Next, it narrows the doubt most: {trialWords(fit.next)}.
            </Text>
            <TrialForm
              key={`${trials.length}`}
              station={station}
              blow={blow}
              asked={fit.next}
              simulators={simulators}
              onTrial={add}
              onProblem={setProblem}
            />
          </>
        )}
        {!fit && !crash && <Text color="quiet">Computing what the trials say.</Text>}
        {(problem ?? crash) && <ProblemNote text={(problem ?? crash)!} />}
        <Trials trials={trials} onDrop={(i) => setTrials(trials.filter((_, k) => k !== i))} />
        <FittedLogs trials={trials} fit={fit} />
      </Box>
      <Flex direction="column" gap="5" minW="0">
        <FitPart station={station} fit={fit} trials={trials.length} busy={busy} onKeep={keep} />
        <AnswerNote answer={answer} />
        <HistoryPart history={history} />
        <StationPart station={station} />
        <CautionNote
          title="Hot air."
          text="The slug stays hot for minutes and fumes rise from every melt: extraction on, nothing that burns near the jet, your shop’s rules first."
        />
      </Flex>
    </Grid>
  );
}

const TRIAL_COLUMNS = '90px minmax(0, 1fr) 90px 90px';

function Trials({ trials, onDrop }: { trials: readonly Trial[]; onDrop: (i: number) => void }) {
  if (trials.length === 0) return null;
  return (
    <Box mt="4" as="section" aria-label="Trials">
      <ColumnHeads columns={TRIAL_COLUMNS} names={['Set', 'Seen', 'Flow', '']} />
      {trials.map((trial, i) => (
        <Grid
          key={i}
          templateColumns={TRIAL_COLUMNS}
          minW={LIST_WIDTH}
          columnGap="4"
          py="1.5"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text fontFamily="mono" fontWeight="700">
            {trial.kind === 'fixedPoint' ? '' : trial.setC}
          </Text>
          <Text>{seen(trial)}</Text>
          <Text fontFamily="mono">{trial.kind === 'fixedPoint' ? '' : trial.flowLpm}</Text>
          <PlainButton type="button" aria-label={`Leave out trial ${i + 1}`} onClick={() => onDrop(i)}>
            leave out
          </PlainButton>
        </Grid>
      ))}
    </Box>
  );
}

/** The last log over what the found station would have shown. */
function FittedLogs({ trials, fit }: { trials: readonly Trial[]; fit?: StationFit }) {
  const log = trials.filter((t) => t.kind === 'log').at(-1);
  const computed = fit?.computed?.at(-1);
  if (!log || !computed) return null;
  const shown = log.probes.map(({ place, readC }) => ({ name: place, readC }));
  return (
    <Box h="220px" mt="3">
      <LogCurves curves={[...shown, ...computed.map((c) => ({ ...c, computed: true }))]} />
    </Box>
  );
}

function seen(trial: Trial): string {
  if (trial.kind === 'melt') return `${trial.alloyC} °C alloy melted after ${trial.seconds.toFixed(1)} s`;
  if (trial.kind === 'threshold') return `${trial.alloyC} °C alloy melts here within two minutes, not lower`;
  if (trial.kind === 'fixedPoint') return `probe shows ${trial.readC} at ${trial.trueC} °C`;
  return `log of ${trial.probes[0].readC.length - 1} s, ${trial.probes.length} ${trial.probes.length === 1 ? 'probe' : 'probes'}`;
}

const range = ({ value, sd }: { value: number; sd: number }): string =>
  `${value.toFixed(2)} ± ${(1.96 * sd).toFixed(2)}`;

interface FitPartProps {
  readonly station: Station;
  readonly fit?: StationFit;
  readonly trials: number;
  readonly busy: boolean;
  readonly onKeep: () => void;
}

function FitPart({ station, fit, trials, busy, onKeep }: FitPartProps) {
  if (trials === 0)
    return (
      <SidebarPart title="What the trials say">
        <Text fontSize="14px" color="quiet">
          Nothing yet: run a log or add a trial.
        </Text>
      </SidebarPart>
    );
  return (
    <SidebarPart title="What the trials say, 95 %">
      {fit?.refused && <ProblemNote text={fit.refused} />}
      {fit?.calibration && (
        <>
          <FitFigures calibration={fit.calibration} />
          <Text fontSize="14px" mt="1" mb="2">
            {changeWords(station, fit.calibration)}
          </Text>
          <FitNote fit={fit.calibration.fit} />
          <MainButton type="button" disabled={busy} onClick={onKeep}>
            Take it over
          </MainButton>
        </>
      )}
    </SidebarPart>
  );
}

const FitFigures = ({ calibration: c }: { calibration: Calibration }) => (
  <>
    <FigureLine name="Outlet ε" value={range(c.outletEfficiency)} />
    <FigureLine name="Film m" value={range(c.multiplier)} />
    <FigureLine name="Entrainment" value={range(c.spreadDiameters)} />
    <FigureLine name="Lag, s" value={range(c.outletLagS)} />
    {c.lossShare && <FigureLine name="Losses, of 1" value={range(c.lossShare)} />}
    <FigureLine
      name="Residuals, of 1"
      value={c.misfit.toFixed(1)}
      colour={c.fit?.holds === false ? 'amberText' : 'ink'}
    />
  </>
);

/** Whether the trials can have come from one station, and what broke where they cannot. */
function FitNote({ fit }: { fit: Calibration['fit'] }) {
  if (!fit || fit.holds) return null;
  return (
    <Text role="note" fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3" mb="3">
      These trials do not fit one station as it is taken to be. {fit.broken} {fit.contradicting}
    </Text>
  );
}

function changeWords(station: Station, { outletEfficiency, multiplier }: Calibration): string {
  const e = 100 * (outletEfficiency.value / station.outletEfficiency - 1);
  const m = 100 * (multiplier.value / station.multiplier - 1);
  const signed = (x: number): string => `${x >= 0 ? '+' : '−'}${Math.abs(x).toFixed(0)} %`;
  return `Against the figures in use: ε ${signed(e)}, m ${signed(m)}.`;
}

function HistoryPart({ history }: { history: readonly CalibrationRecord[] }) {
  const { day } = usePlace();
  if (history.length === 0) return null;
  return (
    <SidebarPart title="History">
      {history.toReversed().map((record, i) => {
        const before = history[history.length - 2 - i];
        const drift = before && driftOf(before.calibration, record.calibration);
        return (
          <Box key={record.at + i} mb="1.5" fontSize="14px">
            <Text as="span" fontFamily="mono">
              {day(record.at)}
            </Text>{' '}
            ε {record.calibration.outletEfficiency.value.toFixed(2)}, m {record.calibration.multiplier.value.toFixed(2)}{' '}
            at {record.flowLpm} l/min, {record.trials} {record.trials === 1 ? 'trial' : 'trials'}
            {drift && (
              <Text as="span" color={drift.real ? 'amberText' : 'quiet'}>
                {drift.real
                  ? `. Drifted: more than the doubts explain (${Math.max(Math.abs(drift.efficiencySds), Math.abs(drift.multiplierSds)).toFixed(1)} sd)`
                  : '. No drift beyond the doubt'}
              </Text>
            )}
          </Box>
        );
      })}
    </SidebarPart>
  );
}

const StationPart = ({ station }: { station: Station }) => (
  <SidebarPart title="What it can do">
    <FigureLine name="Dial, °C" value={station.setC.join(' to ')} />
    <FigureLine name="Flow, l/min" value={station.flowLpm.join(' to ')} />
    <FigureLine name="Nozzles, mm" value={station.nozzlesMm.join(' ')} />
    <FigureLine name="Plate" value={station.plate ? `to ${station.plate.maxSetC} °C` : 'none'} />
    {station.irons.map(({ name, setC, tipsMm }) => (
      <FigureLine key={name} name={`${name}, tips ${tipsMm.join(' ')}`} value={`${setC.join(' to ')} °C`} />
    ))}
    {station.multiplierByFlow.map((k) => (
      <FigureLine key={k.flowLpm} name={`m at ${k.flowLpm} l/min`} value={k.multiplier.toFixed(2)} />
    ))}
  </SidebarPart>
);
