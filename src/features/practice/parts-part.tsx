'use client';

import { useState, useTransition } from 'react';
import { Flex, Grid, Text } from '@chakra-ui/react';
import { PART_KINDS, PART_KIND_WORDS } from '@/core/board';
import { DEAD_ON_ARRIVAL, DOUBLE_SHARE, HOUR_PRICE, PART_KIND_DEFINITIONS, type Practice } from '@/core/diagnose';
import type { KindRecord } from '@/core/job';
import { ColumnHeads, Headline, PlainButton, LIST_WIDTH } from '@/ui';
import { learnFromJobs } from './actions';
import { draftOf, figuresOf, type Draft } from './draft';
import { FigureInput } from './figure-input';
import { KeepForm } from './keep-form';

const COLUMNS = 'minmax(0, 220px) 130px minmax(0, 210px) 130px';
/** A record that moves less than this is left at one. */
const LEAST_MOVE = 0.05;

/** What this bench's own records say of each kind of part, and what parts and time cost. */
export function PartsPart({ practice }: { practice: Practice }) {
  const [records, setRecords] = useState<Draft>(() => draftOf(practice.records));
  const [prices, setPrices] = useState<Draft>(() => draftOf(practice.prices?.parts));
  const [hour, setHour] = useState<Draft>(() => draftOf({ hour: practice.prices?.hour }));
  const [shares, setShares] = useState<Draft>(() =>
    draftOf({ doubleShare: practice.doubleShare, deadOnArrival: practice.deadOnArrival }, 100),
  );
  const [learned, setLearned] = useState<Awaited<ReturnType<typeof learnFromJobs>>>();
  const [busy, start] = useTransition();
  const learn = (): void =>
    start(async () => {
      const answer = await learnFromJobs();
      setLearned(answer);
      const moved = answer.records.filter((r) => Math.abs(r.factor - 1) >= LEAST_MOVE);
      setRecords(draftOf(Object.fromEntries(moved.map((r) => [r.kind, r.factor]))));
    });
  const read = (): Practice => ({
    records: figuresOf(records),
    prices: { ...figuresOf(hour), parts: figuresOf(prices) },
    // An emptied field goes back to the default.
    doubleShare: undefined,
    deadOnArrival: undefined,
    ...figuresOf(shares, 100),
  });
  return (
    <>
      <Headline title="What this bench has found, and what it pays" aside="in your money">
        Records shift the odds before a reading is taken; prices and risk weigh work against tests. Pale figures are
        defaults, engineering estimates.
      </Headline>
      <KeepForm
        action="Keep these figures"
        read={read}
        aside={
          <PlainButton type="button" disabled={busy} onClick={learn}>
            Fill in from closed jobs
          </PlainButton>
        }
      >
        <Flex gap="8" my="3" wrap="wrap" fontSize="15px">
          <Single label="An hour at the bench" usual={String(HOUR_PRICE)} name="hour" draft={hour} onChange={setHour} />
          <Single
            label="Two faults at once, %"
            usual={String(100 * DOUBLE_SHARE)}
            name="doubleShare"
            draft={shares}
            onChange={setShares}
          />
          <Single
            label="New parts that are bad, %"
            usual={String(100 * DEAD_ON_ARRIVAL)}
            name="deadOnArrival"
            draft={shares}
            onChange={setShares}
          />
        </Flex>
        {learned && (
          <Text role="status" mb="2">
            {learned.jobs === 0
              ? 'No repaired job is closed yet: nothing to learn from.'
              : `From ${learned.jobs} repaired ${learned.jobs === 1 ? 'job' : 'jobs'}. Nothing is kept until you keep it.`}
          </Text>
        )}
        <ColumnHeads
          maxW="740px"
          columns={COLUMNS}
          names={['Kind of part', 'Times as often', 'Seen, expected', 'A new one costs']}
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
            maxW="740px"
          >
            <Text as="span">{PART_KIND_WORDS[kind]}</Text>
            <FigureInput
              label={`${PART_KIND_WORDS[kind]}, times as often at fault`}
              value={records[kind]}
              usual="1"
              onChange={(text) => setRecords({ ...records, [kind]: text })}
            />
            <Text as="span" fontFamily="mono" color="quiet">
              {seenWords(learned?.records.find((r) => r.kind === kind))}
            </Text>
            <FigureInput
              label={`${PART_KIND_WORDS[kind]}, price of a new one`}
              value={prices[kind]}
              usual={String(PART_KIND_DEFINITIONS[kind].work.price)}
              onChange={(text) => setPrices({ ...prices, [kind]: text })}
            />
          </Grid>
        ))}
      </KeepForm>
    </>
  );
}

const seenWords = (r: KindRecord | undefined): string => (r ? `${r.seen}, ${r.expected.toFixed(1)}` : '');

function Single({
  label,
  usual,
  name,
  draft,
  onChange,
}: {
  label: string;
  usual: string;
  name: string;
  draft: Draft;
  onChange: (draft: Draft) => void;
}) {
  return (
    <Flex gap="2" align="baseline">
      {label}
      <FigureInput
        label={label}
        value={draft[name]}
        usual={usual}
        onChange={(text) => onChange({ ...draft, [name]: text })}
      />
    </Flex>
  );
}
