'use client';

import { useCallback, useMemo, useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import { entryStem, meterReads, singleFaults, SOUND, type Measurement } from '@/core/diagnose';
import type { JobView } from '@/core/job';
import { adviseLimit } from '@/core/proof';
import { CHARGERS, expectDraw } from '@/core/trace';
import { formatAmp, formatChance, formatVolt } from '@/core/units';
import { bench as realBench, takeSafely, type Multimeter, type Source } from '@/devices/instruments';
import { MainButton, PlainButton, ProblemNote, SelectBox, useEntryOffer, useEntryPedal } from '@/ui';
import { SimulatedBoard } from './simulated-board';
import { useBoardPower, type Output } from './use-board-power';
import { useInstruments, type Instruments } from './use-instruments';
import type { ProvePlace } from './view';

/** What the probe is held to next: the short that has to be gone first, then joint by joint, or rail by rail. */
function nextToProbe({ proof }: JobView, { view, walk }: ProvePlace): Measurement | undefined {
  const short = proof.shorts.find((s) => s.gone !== true);
  if (short) return { kind: 'groundResistance', net: short.net };
  if (view === 'unpowered') return walk?.next && { kind: 'jointDrop', ref: walk.ref, pin: walk.next.pin };
  return proof.rails.next === undefined ? undefined : { kind: 'railVoltage', rail: proof.rails.next };
}

const readWith = (meter: Multimeter, m: Measurement): Promise<number> => meter.settled(meterReads(m) ?? 'Ω');

const limitWords = ({ volts, amps }: { volts: number; amps: number }, wantedV: number): string =>
  volts > wantedV / 2
    ? `It limits at ${formatAmp(amps)} with ${formatVolt(volts)}: a good board may want a step more. Look for what gets warm before giving it.`
    : `It limits: ${formatVolt(volts)} at ${formatAmp(amps)}. Something shorts the input: output off.`;

/** Supply and meter: the probe held, the pedal pressed, and the value lands where it belongs. */
export function InstrumentsPart({ job, place }: { job: JobView; place: ProvePlace }) {
  const { board } = job;
  const [port] = board.ports;
  const pack = job.state.packOut ? 'out' : 'partly';
  const draw = expectDraw(port, CHARGERS[CHARGERS.length - 1], pack);
  const advice = adviseLimit({ volts: draw.volts, drawA: draw.amps, shortChance: job.shortChance });
  const [bench] = useState(() => new SimulatedBoard(board, (draw.amps[0] + draw.amps[1]) / 2, job.number));
  const instruments = useInstruments(bench, job.simulators);
  const { supply, simulatedMeter: meter, supplyName } = instruments;
  const [faultId, setFaultId] = useState<string>(SOUND.id);
  const [problem, setProblem] = useState<string>();
  const fed = { supply, volts: draw.volts, limitA: advice.limitA };
  const { output, power } = useBoardPower({ ...fed, onProblem: setProblem });
  const { offerText } = useEntryOffer();
  const faults = useMemo(
    () => [[SOUND.id, 'all good'] as const, ...singleFaults(board).map((f) => [f.id, f.label] as const)],
    [board],
  );
  const next = nextToProbe(job, place);
  const shortOpen = next?.kind === 'groundResistance';
  const taking = useRef(false);

  const take = useCallback(async (): Promise<void> => {
    if (!next || !meter || taking.current) return;
    taking.current = true;
    try {
      setProblem(undefined);
      bench.hold(next);
      if (next.kind === 'railVoltage' && supply && (await supply.state()) === 'off')
        return setProblem('Expected power on the board for a rail; the output is off. Switch it on first.');
      const sources: Source[] = [
        ...realBench.sources(),
        ...(supply && supplyName === undefined ? [{ name: 'the simulated supply', state: () => supply.state() }] : []),
      ];
      const taken = await takeSafely(meterReads(next) ?? 'Ω', sources, () => readWith(meter, next));
      if ('refused' in taken) return setProblem(taken.refused);
      const { value } = taken;
      const figure = Number.isFinite(value) ? String(Number(value.toPrecision(4))) : 'ol';
      offerText(`${entryStem(board, next)}${figure}`, {
        take: true,
        origin: { kind: 'simulated', by: 'simulated meter' },
      });
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      taking.current = false;
    }
  }, [bench, board, meter, supply, supplyName, next, offerText, setProblem]);
  const press = useCallback(() => void take(), [take]);
  useEntryPedal(next && meter ? press : undefined);

  return (
    <Box
      as="section"
      aria-label="Supply and meter"
      borderTop="1px solid"
      borderColor="rule"
      pt="2"
      mb="3"
      fontSize="14px"
    >
      <Flex gap="3" align="center" wrap="wrap">
        <Text fontWeight="700">{benchName(instruments, job.simulators)}</Text>
        {job.simulators && (supplyName === undefined || meter) && (
          <Box maxW="19em">
            <SelectBox
              label="The board on the simulated bench"
              value={faultId}
              options={faults}
              onChange={(id) => {
                setFaultId(id);
                bench.has(id);
              }}
            />
          </Box>
        )}
        {output ? (
          <PlainButton type="button" onClick={() => void power(false)}>
            Output off
          </PlainButton>
        ) : (
          supply &&
          place.view === 'rails' && (
            <PlainButton type="button" disabled={shortOpen} onClick={() => void power(true)}>
              Output on: {formatVolt(draw.volts)}, limit {formatAmp(advice.limitA)}
            </PlainButton>
          )
        )}
        {next && meter && (
          <MainButton type="button" onClick={() => void take()}>
            Take {entryStem(board, next).trim()}, F9
          </MainButton>
        )}
      </Flex>
      {(shortOpen || place.view === 'rails') && (
        <Text mt="1" color={output?.limits ? 'rust' : 'quiet'} aria-live="polite">
          {shortOpen
            ? 'Power comes after this reading: a short that was there is to be gone first.'
            : powerWords(output, draw, advice, job.shortChance)}
        </Text>
      )}
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

/** What the output shows, or what to expect before it is on. */
function powerWords(
  output: Output | undefined,
  draw: ReturnType<typeof expectDraw>,
  advice: ReturnType<typeof adviseLimit>,
  shortChance: number,
): string {
  const [low, high] = draw.amps;
  if (!output)
    return `A short is there with ${formatChance(shortChance)}: at the limit it gets ${advice.shortW.toFixed(1)} W; a good board starts with ${formatChance(advice.startsChance)}.`;
  if (output.limits) return limitWords(output, draw.volts);
  return `${formatVolt(output.volts)}, ${formatAmp(output.amps)} of ${formatAmp(low)} to ${formatAmp(high)} expected.`;
}

function benchName({ supplyName, hasRealMeter, simulatedMeter }: Instruments, simulators: boolean): string {
  if (simulators && supplyName === undefined && !hasRealMeter) return 'Simulated supply and meter';
  const supply = supplyName ?? (simulators ? 'Simulated supply' : undefined);
  const meter = hasRealMeter ? 'meter in hand' : simulatedMeter && 'simulated meter';
  return [supply, meter].filter(Boolean).join('; ') || 'No supply is connected';
}
