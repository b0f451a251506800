'use client';

import { useState, useTransition } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { GOALS_BY_ALLOY, type GoalSets, type HeatGoals } from '@/core/heat';
import { ALLOYS, alloySchema, type AlloyName } from '@/core/joints';
import { Headline, MainButton, Named, PlainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { keepGoals } from './actions';

/** What the bench asks of every heat plan, a set for each alloy. */
export function GoalsWork({ goals }: { goals: GoalSets }) {
  return (
    <>
      <Headline title="What a plan has to keep" aside="this bench">
        One set for each alloy. Limits that a board file gives for a part stand before these.
      </Headline>
      {alloySchema.options.map((alloy) => (
        <GoalSet key={alloy} alloy={alloy} sets={goals} />
      ))}
    </>
  );
}

const FIGURES = [
  ['coldestOverLiquidusK', 'Coldest joint above liquidus, K'],
  ['neighbourUnderSolidusK', 'Neighbours’ joints below solidus, K'],
  ['plasticLimitC', 'Plastic bodies, °C'],
] as const;

/** Left empty, they do not limit. */
const OR_NOTHING = [
  ['riseLimitCPerS', 'Fastest rise, °C/s, empty: told only'],
  ['dialLimitC', 'Hottest dial, °C, empty: the station’s'],
] as const;

function GoalSet({ alloy, sets }: { alloy: AlloyName; sets: GoalSets }) {
  const [texts, setTexts] = useState(() => textsOf(sets[alloy]));
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const keep = (next: Record<keyof HeatGoals, string>): void =>
    start(async () => {
      const orNothing = (text: string): number | null => (text.trim() === '' ? null : Number(text));
      const figures = Object.fromEntries(FIGURES.map(([name]) => [name, Number(next[name])]));
      const goals = {
        ...figures,
        ceilings: next.ceilings,
        riseLimitCPerS: orNothing(next.riseLimitCPerS),
        dialLimitC: orNothing(next.dialLimitC),
      };
      setAnswer(await keepGoals(alloy, goals));
    });
  const usual = (): void => {
    const texts = textsOf(GOALS_BY_ALLOY[alloy]);
    setTexts(texts);
    keep(texts);
  };
  return (
    <Flex as="section" aria-label={alloy} direction="column" gap="2" py="3" borderBottom="1px solid" borderColor="rule">
      <Text fontWeight="700">
        {alloy}, {ALLOYS[alloy].words}, {ALLOYS[alloy].solidusC} to {ALLOYS[alloy].liquidusC} °C
      </Text>
      <Flex gap="3" wrap="wrap" align="flex-end">
        {FIGURES.map(([name, label]) => (
          <Named key={name} name={label}>
            <TextInput
              w="12em"
              inputMode="decimal"
              value={texts[name]}
              onChange={(e) => setTexts({ ...texts, [name]: e.target.value })}
            />
          </Named>
        ))}
        {OR_NOTHING.map(([name, label]) => (
          <Named key={name} name={label}>
            <TextInput
              w="14em"
              inputMode="decimal"
              value={texts[name]}
              onChange={(e) => setTexts({ ...texts, [name]: e.target.value })}
            />
          </Named>
        ))}
        <Named name="Package ceilings">
          <SelectBox
            value={texts.ceilings}
            options={[
              ['leadFree', 'lead-free table'],
              ['tinLead', 'tin-lead table'],
            ]}
            onChange={(ceilings) => setTexts({ ...texts, ceilings })}
          />
        </Named>
      </Flex>
      <Flex gap="3" align="baseline">
        <MainButton type="button" disabled={busy} onClick={() => keep(texts)}>
          Keep for {alloy}
        </MainButton>
        <PlainButton type="button" disabled={busy} onClick={usual}>
          Back to the usual
        </PlainButton>
        {answer?.saved && (
          <Text role="status" color="leaf">
            {answer.message}
          </Text>
        )}
      </Flex>
      {answer && !answer.saved && <ProblemNote text={answer.message} />}
    </Flex>
  );
}

const textsOf = (goals: HeatGoals): Record<keyof HeatGoals, string> => ({
  coldestOverLiquidusK: String(goals.coldestOverLiquidusK),
  neighbourUnderSolidusK: String(goals.neighbourUnderSolidusK),
  plasticLimitC: String(goals.plasticLimitC),
  ceilings: goals.ceilings,
  riseLimitCPerS: goals.riseLimitCPerS === null ? '' : String(goals.riseLimitCPerS),
  dialLimitC: goals.dialLimitC === null ? '' : String(goals.dialLimitC),
});
