'use client';

import { useState } from 'react';
import { Box, Grid, Text } from '@chakra-ui/react';
import { formatMinutes } from '@/core/units';
import { AnswerNote, ColumnHeads, Headline, PlainButton, LIST_WIDTH } from '@/ui';
import { keepLearning } from './actions';
import type { Learning } from './queries';

const COLUMNS = 'minmax(0, 1.3fr) 90px 90px 70px minmax(0, 1.6fr)';

/** What the closed jobs taught the planner, what it moved, whether it told the jobs better, and the way back. */
export function LearningSheet({ learning }: { learning: Learning }) {
  const [answer, setAnswer] = useState<{ readonly saved: boolean; readonly message: string }>();
  const { steps, isUsed, jobs } = learning;
  const helped = steps.filter((s) => s.moved.gain - s.moved.spread > 0).length;
  const harmed = steps.filter((s) => s.moved.gain + s.moved.spread < 0).length;
  return (
    <>
      <Headline
        title={
          jobs === 0
            ? 'Nothing to learn from yet'
            : `Learning told ${helped} of ${steps.length} kinds of steps better${harmed > 0 ? `, ${harmed} worse` : ''}`
        }
        aside={`${jobs} closed jobs`}
      >
        Each job is left out in turn, its minutes told by the others, and held against what ships. Above nothing
        learning helped.
      </Headline>
      <ColumnHeads columns={COLUMNS} names={['Step', 'Ships', 'Learned', 'Jobs', 'Did it help?']} />
      {steps.map((s) => (
        <Grid
          key={s.kind}
          templateColumns={COLUMNS}
          minW={LIST_WIDTH}
          columnGap="4"
          py="1.5"
          borderBottom="1px solid"
          borderColor="rule"
          alignItems="baseline"
        >
          <Text>{s.words}</Text>
          <Text fontFamily="mono">{formatMinutes(s.ships)}</Text>
          <Text fontFamily="mono" fontWeight="700">
            {formatMinutes(s.learned)}
          </Text>
          <Text fontFamily="mono">{s.moved.seen}</Text>
          <Text fontSize="14px">
            {helpWords(s.moved)}
            {s.change && (
              <Box as="strong" color="amberText">
                {' '}
                From the {ordinal(s.change.at + 1)} job on it takes another time.
              </Box>
            )}
          </Text>
        </Grid>
      ))}
      <Box mt="4">
        <PlainButton type="button" onClick={() => void keepLearning(!isUsed).then(setAnswer)}>
          {isUsed ? 'Plan with what ships instead' : 'Plan with what was learned'}
        </PlainButton>
        <AnswerNote answer={answer} />
      </Box>
    </>
  );
}

function helpWords({ seen, gain, spread }: Learning['steps'][number]['moved']): string {
  if (seen < 2) return 'too few to say';
  const figure = `${gain >= 0 ? '+' : ''}${gain.toFixed(2)} ± ${spread.toFixed(2)} nat a job`;
  if (gain - spread > 0) return `it did: ${figure}`;
  return gain + spread < 0 ? `it told them worse: ${figure}` : `not to be told yet: ${figure}`;
}

function ordinal(n: number): string {
  const tail = n % 100 > 10 && n % 100 < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${tail}`;
}
