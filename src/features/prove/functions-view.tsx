'use client';

import { Box, Grid, Text } from '@chakra-ui/react';
import type { AssemblyState } from '@/core/board';
import type { JobView, KeepEvent } from '@/core/job';
import { ProofLine, SectionTitle } from './proof-line';
import { SoakPart } from './soak-part';

/** What was tried, what is still to be tried in its order, and the soak. */
export function FunctionsView({ job, onKeep }: { job: JobView; onKeep: KeepEvent }) {
  return (
    <Grid templateColumns={{ base: '1fr', md: '3fr 2fr' }} gap="6">
      <Box>
        <SectionTitle>Functions, the likeliest to send it back first</SectionTitle>
        {job.proof.functions
          .filter((f) => f.works !== undefined)
          .map((f) => (
            <ProofLine key={f.id} name={f.what} figure="" state={f.works} stem={`try ${f.id} `} />
          ))}
        <OpenFunctions job={job} />
      </Box>
      <SoakPart job={job} onKeep={onKeep} />
    </Grid>
  );
}

const ASSEMBLY_WORDS: Readonly<Record<AssemblyState, string>> = {
  board: 'with the bare board',
  part: 'in the housing, still open',
  whole: 'closed up',
};
const MOST_CLEARED = 4;
const MOST_IMPLICATED = 3;

/** What is still to be tried: how far to put it together for each, its chance to fail, what a pass clears. */
function OpenFunctions({ job: { proofOrder, board } }: { job: JobView }) {
  return proofOrder.tests.map(({ id, assembly, failChance, clears, implicates }, k) => (
    <Box key={id}>
      {assembly !== proofOrder.tests[k - 1]?.assembly && (
        <Text fontSize="13px" color="copperText" mt="1">
          {ASSEMBLY_WORDS[assembly]}
        </Text>
      )}
      <ProofLine
        name={board.functions.find((f) => f.id === id)!.what}
        figure={`${(100 * failChance).toFixed(1)} %`}
        state={undefined}
        stem={`try ${id} `}
      />
      <Text fontSize="13px" color="quiet" mb="1">
        {clears.length === 0
          ? 'clears nothing new'
          : `clears ${clears.slice(0, MOST_CLEARED).join(' ')}${clears.length > MOST_CLEARED ? ' …' : ''}`}
        {implicates.length > 0 &&
          `; a failure points to ${implicates
            .slice(0, MOST_IMPLICATED)
            .map((s) => s.ref)
            .join(', ')}`}
      </Text>
    </Box>
  ));
}
