'use client';

import { useState } from 'react';
import { Grid, Text } from '@chakra-ui/react';
import { PART_KINDS, PART_KIND_WORDS } from '@/core/board';
import { HISTORY_FACTORS, HISTORY_FLAGS, type HistoryFlag, type Practice } from '@/core/diagnose';
import { HISTORY_WORDS } from '@/core/job';
import { ColumnHeads, Headline, LIST_WIDTH } from '@/ui';
import { draftOf, figuresOf, type Draft } from './draft';
import { FigureInput } from './figure-input';
import { KeepForm } from './keep-form';

const COLUMNS = 'minmax(0, 200px) repeat(5, 108px)';

/** How much likelier each line of the owner's story makes each kind of part. */
export function StoryPart({ practice }: { practice: Practice }) {
  const [typed, setTyped] = useState<Readonly<Record<HistoryFlag, Draft>>>(
    () =>
      Object.fromEntries(HISTORY_FLAGS.map((flag) => [flag, draftOf(practice.factors?.[flag])])) as Record<
        HistoryFlag,
        Draft
      >,
  );
  const read = (): Practice => ({
    factors: Object.fromEntries(HISTORY_FLAGS.map((flag) => [flag, figuresOf(typed[flag])])),
  });
  return (
    <>
      <Headline title="What the owner’s story changes" aside="times as likely">
        Directions are common practice, sizes are engineering estimates: the pale figures. Type over what this bench
        knows better; an empty field keeps the pale one, and 1 says that it changes nothing.
      </Headline>
      <KeepForm action="Keep these factors" read={read}>
        <ColumnHeads
          maxW="860px"
          columns={COLUMNS}
          names={['Kind of part', ...HISTORY_FLAGS.map((f) => HISTORY_WORDS[f])]}
          mt="4"
        />
        {PART_KINDS.map((kind) => (
          <Grid
            key={kind}
            templateColumns={COLUMNS}
            minW={LIST_WIDTH}
            columnGap="4"
            alignItems="baseline"
            py="1"
            borderBottom="1px solid"
            borderColor="rule"
            maxW="860px"
          >
            <Text as="span">{PART_KIND_WORDS[kind]}</Text>
            {HISTORY_FLAGS.map((flag) => (
              <FigureInput
                key={flag}
                label={`${PART_KIND_WORDS[kind]}, ${HISTORY_WORDS[flag]}`}
                value={typed[flag][kind]}
                usual={String(HISTORY_FACTORS[flag][kind] ?? 1)}
                onChange={(text) => setTyped({ ...typed, [flag]: { ...typed[flag], [kind]: text } })}
              />
            ))}
          </Grid>
        ))}
      </KeepForm>
    </>
  );
}
