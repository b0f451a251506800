'use client';

import { Box, Grid, Text } from '@chakra-ui/react';
import { FLAW_WORDS, OUTCOME_WORDS, type ExerciseReview as Review } from '@/core/drill';
import { HeatCurves } from '@/drawings/heat-curves';
import { ColumnHeads, FigureLine, Headline } from '@/ui';
import type { ExerciseView } from './queries';

/** Afterwards: the score, the one lesson, and the truth. */
export function ExerciseReview({ exercise: { spec, board }, review }: { exercise: ExerciseView; review: Review }) {
  return (
    <>
      <Headline title={`${Math.round(100 * review.score)} of 100`} aside={`${spec.name}, grade ${spec.grade}`}>
        <Text as="span" color={review.score < 1 ? 'amberText' : 'ink'} fontWeight="600">
          {review.lesson}
        </Text>
      </Headline>
      {review.kind === 'air' && (
        <AirReview review={review} partRef={spec.kind === 'air' ? spec.ref : board.parts[0].ref} />
      )}
      {review.kind === 'eyes' && <EyesReview review={review} />}
      {review.kind === 'lines' && <LinesReview review={review} />}
    </>
  );
}

const seconds = (s: number | undefined): string => (s === undefined ? 'never' : `${s} s`);

function AirReview({ review, partRef }: { review: Extract<Review, { kind: 'air' }>; partRef: string }) {
  const { curves, verdict, liftS, couldS, coldestAtLiftC, mistakes } = review;
  return (
    <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) 280px' }} gap="8">
      <Box h="420px">
        <HeatCurves run={curves} verdict={verdict} partRef={partRef} atS={liftS ?? 0} />
      </Box>
      <Box>
        <FigureLine name="Could have been lifted from" value={seconds(couldS)} />
        <FigureLine name="Was lifted at" value={seconds(liftS)} />
        {coldestAtLiftC !== undefined && (
          <FigureLine
            name="Coldest joint then"
            value={`${coldestAtLiftC.toFixed(0)} °C`}
            colour={mistakes.some((m) => m.name === 'pulledCold') ? 'rust' : 'leaf'}
          />
        )}
        {verdict.neighbours.slice(0, 3).map((n) => (
          <FigureLine
            key={n.ref}
            name={`${n.ref}, may have ${n.limitC.toFixed(0)} °C`}
            value={`${n.peakC.toFixed(0)} °C`}
            colour={n.holds ? 'ink' : 'rust'}
          />
        ))}
        <FigureLine
          name={`Its own body, may have ${verdict.bodyLimitC.toFixed(0)} °C`}
          value={`${verdict.bodyPeakC.toFixed(0)} °C`}
        />
        {mistakes.map((m) => (
          <Text key={m.name} color="rust" fontWeight="600" mt="2">
            {m.words}
          </Text>
        ))}
        {mistakes.length === 0 && (
          <Text color="leaf" fontWeight="600" mt="2">
            No mistake.
          </Text>
        )}
      </Box>
    </Grid>
  );
}

const EyesReview = ({ review }: { review: Extract<Review, { kind: 'eyes' }> }) => (
  <Box maxW="560px">
    <FigureLine name="Bad ones seen" value={`${review.hits} of ${review.there}`} />
    <FigureLine
      name="Sound ones called bad"
      value={`${review.falseAlarms} of ${review.sound}`}
      colour={review.falseAlarms > 0 ? 'rust' : 'ink'}
    />
    <FigureLine
      name="How far apart bad and sound are to your eye, in its deviations"
      value={review.dPrime.toFixed(1)}
    />
    <Text fontWeight="700" mt="5" mb="1">
      By what was wrong
    </Text>
    {review.byFlaw.map(({ flaw, there, seen }) => (
      <FigureLine
        key={flaw}
        name={FLAW_WORDS[flaw]}
        value={`${seen} of ${there}`}
        colour={seen < there ? 'rust' : 'leaf'}
      />
    ))}
  </Box>
);

const LINE_COLUMNS = '34px minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.2fr)';

const LinesReview = ({ review }: { review: Extract<Review, { kind: 'lines' }> }) => (
  <>
    <ColumnHeads columns={LINE_COLUMNS} names={['', 'Was', 'You said', 'Look first at']} />
    {review.rows.map((row, i) => (
      <Grid
        key={i}
        templateColumns={LINE_COLUMNS}
        columnGap="4"
        py="1.5"
        borderBottom="1px solid"
        borderColor="rule"
        alignItems="baseline"
      >
        <Text fontFamily="mono" color="quiet">
          {i + 1}
        </Text>
        <Text fontWeight="700">{OUTCOME_WORDS[row.truth]}</Text>
        <Text color={row.answer === row.truth ? 'leaf' : 'rust'}>
          {row.answer === row.truth ? 'the same' : row.answer ? OUTCOME_WORDS[row.answer] : 'nothing'}
        </Text>
        <Text fontSize="14px">{row.implicates[0] ?? '–'}</Text>
      </Grid>
    ))}
  </>
);
