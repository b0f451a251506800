'use client';

import { useCallback, useMemo, useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { Predictor, entryStem, idealReading, singleFaults, SOUND, type Measurement } from '@/core/diagnose';
import type { JobView } from '@/core/job';
import { adviseLimit } from '@/core/proof';
import { CHARGERS, expectDraw } from '@/core/trace';
import { formatAmp, formatChance, formatVolt } from '@/core/units';
import { BenchSupply, Multimeter, SimulatedMultimeter, SimulatedSupply } from '@/devices/instruments';
import { MainButton, PlainButton, ProblemNote, SelectBox, useEntryOffer, useEntryPedal } from '@/ui';

/** Faults that a supply sees as a short at its own output, ohm. Engineering estimate. */
const SHORT_OHM = 0.5;
/** More than this a fault's own net takes to ground, and the supply does not notice. Engineering estimate. */
const LOUD_BELOW_OHM = 5;

/** What the probe is held to next: the short that has to be gone first, then rail by rail. */
function nextToProbe({ proof }: JobView): Measurement | undefined {
  const short = proof.shorts.find((s) => s.gone !== true);
  if (short) return { kind: 'ohm', net: short.net };
  return proof.rails.next === undefined ? undefined : { kind: 'volts', rail: proof.rails.next };
}

/** The board that lies on the simulated bench: all good, or with one fault of its own. */
class SimulatedBoard {
  readonly supply: SimulatedSupply;
  readonly meter: SimulatedMultimeter;
  private under?: Measurement;
  private faultId: string = SOUND.id;

  constructor(
    private readonly board: Board,
    private readonly drawA: number,
    seed: number,
  ) {
    this.supply = new SimulatedSupply(() => ({ drawA: this.drawA, ...(this.isShorted() && { shortOhm: SHORT_OHM }) }));
    this.meter = new SimulatedMultimeter(() => ({ ohm: this.figure('ohm'), volts: this.figure('volts') }), seed);
  }

  /** The probe is held to a place. */
  hold(place: Measurement): void {
    this.under = place;
  }
  has(faultId: string): void {
    this.faultId = faultId;
  }

  private fault() {
    return singleFaults(this.board).find((f) => f.id === this.faultId) ?? SOUND;
  }
  private isShorted(): boolean {
    const [input] = this.board.ports;
    return this.reading({ kind: 'ohm', net: input.vbusRail }) < LOUD_BELOW_OHM;
  }
  private figure(kind: 'ohm' | 'volts'): number {
    if (this.under?.kind !== kind) return 0;
    if (kind === 'volts' && this.supply.output.limits) return 0;
    return kind === 'volts' && this.supply.output.volts === 0 ? 0 : this.reading(this.under);
  }
  private reading(m: Measurement): number {
    const { value } = idealReading(Predictor.of(this.board), m, this.fault());
    return value.kind === 'figure' ? value.value : value.kind === 'open' ? Infinity : 0;
  }
}

const limitWords = ({ volts, amps }: { volts: number; amps: number }, wantedV: number): string =>
  volts > wantedV / 2
    ? `It limits at ${formatAmp(amps)} with ${formatVolt(volts)}: a good board may want a step more. Look for what gets warm before giving it.`
    : `It limits: ${formatVolt(volts)} at ${formatAmp(amps)}. Something shorts the input: output off.`;

/** Supply and meter: the probe held, the pedal pressed, and the value lands where it belongs. */
export function InstrumentsPart({ job }: { job: JobView }) {
  const { board } = job;
  const [port] = board.ports;
  const pack = job.state.packOut ? 'out' : 'partly';
  const draw = expectDraw(port, CHARGERS[CHARGERS.length - 1], pack);
  const advice = adviseLimit({ volts: draw.volts, drawA: draw.amps, shortChance: job.shortChance });
  const [bench] = useState(() => new SimulatedBoard(board, (draw.amps[0] + draw.amps[1]) / 2, job.number));
  const [instruments] = useState(() => ({ supply: new BenchSupply(bench.supply), meter: new Multimeter(bench.meter) }));
  const [faultId, setFaultId] = useState<string>(SOUND.id);
  const [output, setOutput] = useState<{ volts: number; amps: number; limits: boolean }>();
  const [problem, setProblem] = useState<string>();
  const { offerText } = useEntryOffer();
  const faults = useMemo(
    () => [[SOUND.id, 'all good'] as const, ...singleFaults(board).map((f) => [f.id, f.words] as const)],
    [board],
  );
  const next = nextToProbe(job);
  const shortOpen = next?.kind === 'ohm';
  const taking = useRef(false);

  async function power(on: boolean): Promise<void> {
    setProblem(undefined);
    await instruments.supply.set(draw.volts, advice.limitA);
    await instruments.supply.switch(on);
    const { volts, amps } = await instruments.supply.output();
    setOutput(on ? { volts, amps, limits: volts < 0.9 * draw.volts } : undefined);
  }
  const take = useCallback(async (): Promise<void> => {
    if (!next || taking.current) return;
    taking.current = true;
    try {
      setProblem(undefined);
      bench.hold(next);
      if (next.kind === 'volts' && !(await instruments.supply.isOn()))
        return setProblem('Expected power on the board for a rail; the output is off. Switch it on first.');
      const value = next.kind === 'volts' ? await instruments.meter.volts() : await instruments.meter.ohm();
      const figure = Number.isFinite(value) ? String(Number(value.toPrecision(4))) : 'ol';
      offerText(`${entryStem(board, next)}${figure}`, { take: true });
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      taking.current = false;
    }
  }, [bench, board, instruments, next, offerText]);
  const press = useCallback(() => void take(), [take]);
  useEntryPedal(next ? press : undefined);

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
        <Text fontWeight="700">Simulated supply and meter</Text>
        <SelectBox
          label="The board on the simulated bench"
          value={faultId}
          options={faults}
          onChange={(id) => {
            setFaultId(id);
            bench.has(id);
          }}
        />
        {output ? (
          <PlainButton type="button" onClick={() => void power(false)}>
            Output off
          </PlainButton>
        ) : (
          <PlainButton type="button" disabled={shortOpen} onClick={() => void power(true)}>
            Output on: {formatVolt(draw.volts)}, limit {formatAmp(advice.limitA)}
          </PlainButton>
        )}
        {next && (
          <MainButton type="button" onClick={() => void take()}>
            Take {entryStem(board, next).trim()}, F9
          </MainButton>
        )}
      </Flex>
      <Text mt="1" color={output?.limits ? 'rust' : 'quiet'} aria-live="polite">
        {shortOpen
          ? 'Power comes after this reading: a short that was there is to be gone first.'
          : output?.limits
            ? limitWords(output, draw.volts)
            : output
              ? `${formatVolt(output.volts)}, ${formatAmp(output.amps)} of ${formatAmp(draw.amps[0])} to ${formatAmp(draw.amps[1])} expected.`
              : `A short is there with ${formatChance(job.shortChance)}: at the limit it gets ${advice.shortW.toFixed(1)} W; a good board starts with ${formatChance(advice.startsChance)}.`}
      </Text>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}
