'use client';

import { useState } from 'react';
import { Flex, Grid, Text } from '@chakra-ui/react';
import { MEASUREMENT_KINDS, type Practice } from '@/core/diagnose';
import { ColumnHeads, Headline, LIST_WIDTH } from '@/ui';
import { draftOf, figuresOf, type Draft } from './draft';
import { FigureInput } from './figure-input';
import { KeepForm } from './keep-form';

const COLUMNS = 'minmax(0, 320px) 110px 150px';

const percent = (rate: number): string => String(Number((rate * 100).toFixed(1)));

/** How often each kind of reading is wrong: the defaults, and what this bench has settled instead. */
export function ReadingsPart({ practice }: { practice: Practice }) {
  const [rates, setRates] = useState<Draft>(() => draftOf(practice.errorRates, 100));
  return (
    <>
      <Headline title="How often a reading is wrong" aside="this bench">
        A slipped probe, a bad ground, a tester that is fooled: no single reading rules a part out. An empty field keeps
        the default, an engineering estimate. Trust a quick tester more or less here.
      </Headline>
      <KeepForm action="Keep these rates" read={() => ({ errorRates: figuresOf(rates, 100) })}>
        <ColumnHeads maxW="640px" columns={COLUMNS} names={['Kind of reading', 'Default', 'Here']} mt="4" />
        {MEASUREMENT_KINDS.map(({ kind, label, errorRate }) => (
          <Grid
            key={kind}
            templateColumns={COLUMNS}
            minW={LIST_WIDTH}
            columnGap="4"
            alignItems="baseline"
            py="1.5"
            borderBottom="1px solid"
            borderColor="rule"
            maxW="640px"
          >
            <Text as="span">{label}</Text>
            <Text as="span" fontFamily="mono" color="quiet">
              {percent(errorRate)} %
            </Text>
            <Flex align="baseline" gap="1.5" fontFamily="mono">
              <FigureInput
                label={`Error rate of ${label}, per cent`}
                value={rates[kind]}
                usual=""
                onChange={(text) => setRates({ ...rates, [kind]: text })}
              />
              %
            </Flex>
          </Grid>
        ))}
      </KeepForm>
    </>
  );
}
