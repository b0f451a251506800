'use client';

import { useState, type FormEvent } from 'react';
import { Flex } from '@chakra-ui/react';
import { COUPON_ALLOYS_C, THRESHOLD_S, type AskedTrial, type Trial } from '@/core/calibration';
import { seededRandom } from '@/core/math';
import { twinOf, type Blow } from '@/devices/station';
import type { Station } from '@/core/heat';
import { Named, PlainButton, SelectBox, TextInput } from '@/ui';

interface TrialFormProps {
  readonly station: Station;
  readonly blow: Omit<Blow, 'setC'>;
  readonly asked: AskedTrial;
  /** Whether the simulated station is offered. */
  readonly simulators: boolean;
  readonly onTrial: (trial: Trial) => void;
  readonly onProblem: (words: string) => void;
}

const KINDS = [
  ['melt', 'timed at a set point'],
  ['threshold', `lowest set point within ${THRESHOLD_S} s`],
] as const;

/** One trial of the melt coupon, by hand or on the simulated station. It begins with what would help most. */
export function TrialForm({ station, blow, asked, simulators, onTrial, onProblem }: TrialFormProps) {
  const [kind, setKind] = useState<AskedTrial['kind']>(asked.kind);
  const [alloy, setAlloy] = useState(String(asked.alloyC));
  const [set, setSet] = useState(asked.kind === 'melt' ? String(asked.setC) : '');
  const [seconds, setSeconds] = useState('');
  const alloyC = Number(alloy);

  function keep(setC: number, at: number): void {
    const [low, high] = station.setC;
    if (!(setC >= low && setC <= high))
      return onProblem(`Expected a set point from ${low} to ${high} °C; got "${set}".`);
    if (kind === 'melt' && !(at >= 1 && at <= 600))
      return onProblem(`Expected the seconds until it melted, 1 to 600; got "${seconds}".`);
    onTrial(kind === 'melt' ? { kind, ...blow, setC, alloyC, seconds: at } : { kind, ...blow, setC, alloyC });
  }

  function simulate(): void {
    const twin = twinOf(station, seededRandom(Date.now() % 1_000_003));
    if (kind === 'threshold') return keep(twin.threshold(blow, alloyC), 0);
    const setC = Number(set);
    const melted = twin.melt({ ...blow, setC }, alloyC);
    if (melted === null) return onProblem(`The ${alloyC} °C alloy did not melt at ${setC} within three minutes.`);
    keep(setC, Math.round(10 * melted) / 10);
  }

  return (
    <Flex
      as="form"
      gap="3"
      wrap="wrap"
      align="flex-end"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        keep(Number(set), Number(seconds));
      }}
    >
      <Named name="Seen">
        <SelectBox value={kind} options={KINDS} onChange={(k) => setKind(k as AskedTrial['kind'])} />
      </Named>
      <Named name="Alloy">
        <SelectBox value={alloy} options={COUPON_ALLOYS_C.map((c) => [String(c), `${c} °C`])} onChange={setAlloy} />
      </Named>
      <Named name="Set point, °C">
        <TextInput w="6em" inputMode="numeric" value={set} onChange={(e) => setSet(e.target.value)} />
      </Named>
      {kind === 'melt' && (
        <Named name="Melted after, s">
          <TextInput w="6em" inputMode="decimal" value={seconds} onChange={(e) => setSeconds(e.target.value)} />
        </Named>
      )}
      <PlainButton type="submit">Add the trial</PlainButton>
      {simulators && (
        <PlainButton type="button" onClick={simulate}>
          Try it on the simulated station
        </PlainButton>
      )}
    </Flex>
  );
}
