'use client';

import { useState, useTransition } from 'react';
import { Flex, Grid, Text, chakra } from '@chakra-ui/react';
import { ERROR_RATE, KIND_WORDS, type MeasurementKind, type Practice } from '@/core/diagnose';
import { ColumnHeads, Headline, MainButton, ProblemNote } from '@/ui';
import { keepPractice, type PracticeAnswer } from './actions';

const COLUMNS = 'minmax(0, 320px) 110px 150px';
const KINDS = Object.keys(ERROR_RATE) as MeasurementKind[];

const percent = (rate: number): string => String(Number((rate * 100).toFixed(1)));

/** How often each kind of reading is wrong: the defaults, and what this bench has settled instead. */
export function PracticeSheet({ practice }: { practice: Practice }) {
  const [typed, setTyped] = useState<Partial<Record<MeasurementKind, string>>>(() =>
    Object.fromEntries(Object.entries(practice.errorRates ?? {}).map(([kind, rate]) => [kind, percent(rate)])),
  );
  const [answer, setAnswer] = useState<PracticeAnswer>();
  const [busy, start] = useTransition();
  const keep = (): void =>
    start(async () => {
      const rates = Object.entries(typed).flatMap(([kind, text]) =>
        text.trim() === '' ? [] : [[kind, Number(text.replace(',', '.')) / 100] as const],
      );
      setAnswer(await keepPractice({ errorRates: Object.fromEntries(rates) }));
    });
  return (
    <>
      <Headline title="How often a reading is wrong" aside="this bench">
        A slipped probe, a bad ground, a tester that is fooled: no single reading rules a part out. An empty field keeps
        the default, an engineering estimate. Trust a quick tester more or less here.
      </Headline>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <ColumnHeads columns={COLUMNS} names={['Kind of reading', 'Default', 'Here']} mt="4" />
        {KINDS.map((kind) => (
          <Grid
            key={kind}
            templateColumns={COLUMNS}
            columnGap="4"
            alignItems="baseline"
            py="1.5"
            borderBottom="1px solid"
            borderColor="rule"
            maxW="640px"
          >
            <Text as="span">{KIND_WORDS[kind]}</Text>
            <Text as="span" fontFamily="mono" color="quiet">
              {percent(ERROR_RATE[kind])} %
            </Text>
            <Flex align="baseline" gap="1.5" fontFamily="mono">
              <chakra.input
                aria-label={`Error rate of ${KIND_WORDS[kind]}, per cent`}
                inputMode="decimal"
                value={typed[kind] ?? ''}
                onChange={(e) => setTyped({ ...typed, [kind]: e.target.value })}
                w="5em"
                bg="ground"
                border="1px solid"
                borderColor="rule"
                px="2"
                fontWeight="700"
              />
              %
            </Flex>
          </Grid>
        ))}
        <Flex mt="4" gap="4" align="baseline">
          <MainButton type="submit" disabled={busy}>
            Keep these rates
          </MainButton>
          {answer?.kept && (
            <Text role="status" color="leaf">
              {answer.words}
            </Text>
          )}
        </Flex>
        {answer && !answer.kept && <ProblemNote text={answer.words} />}
      </form>
    </>
  );
}
