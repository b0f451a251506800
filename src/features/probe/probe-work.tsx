'use client';

import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import { originName, type JobView, type ReadingView } from '@/core/job';
import { formatInHundred, formatMinutes } from '@/core/units';
import { BoardDrawing, type BoardDrawingProps } from '@/drawings/board-drawing';
import type { BoardMark } from '@/drawings/board-marks';
import { Headline, Key, PageLink, ViewLinks, useEntryOffer } from '@/ui';
import { CompareHeadline, CompareList, comparedMarks } from './compare';
import { PROBE_VIEWS, type ProbeView } from './view';

const ACCESS_WORDS = { closed: 'device closed', open: 'housing open', out: 'board out' } as const;

export interface ProbeWorkProps {
  readonly job: JobView;
  readonly testIndex: number;
  readonly view: ProbeView;
  /** Straightened photographs of the board, by side. */
  readonly photos?: BoardDrawingProps['photos'];
}

/** The next measurement, the board with what matters now, and the readings taken; or the job against good boards. */
export function ProbeWork({ job, testIndex, view, photos }: ProbeWorkProps) {
  const { offerText } = useEntryOffer();
  const test = job.tests[testIndex] ?? job.tests[0];
  const comparing = view === 'compare';
  return (
    <>
      {comparing ? <CompareHeadline job={job} /> : <TestHeadline job={job} test={test} chosen={testIndex > 0} />}
      <ViewLinks label="Views of the board" current={view} views={PROBE_VIEWS} />
      {comparing ? <CompareList compared={job.compared} /> : <BestTests tests={job.tests} chosen={test} />}
      <BoardDrawing
        board={job.board}
        photos={photos}
        marks={comparing ? comparedMarks(job) : marksOf(job, test)}
        lit={job.suspects.filter((s) => s.p >= 0.15).map((s) => s.ref)}
        net={comparing ? undefined : test?.place?.net}
        onPick={(name) => offerText(`${name.toLowerCase()} `)}
      />
      <ReadingStrip readings={job.readings} onPick={(r) => offerText(`fix ${r.stem}`)} />
    </>
  );
}

/** The next step: a test, or work where no test is worth its minutes any more. */
function TestHeadline({
  job,
  test,
  chosen,
}: {
  job: JobView;
  test: JobView['tests'][number] | undefined;
  chosen: boolean;
}) {
  const { workNow, stop } = job;
  if (stop !== undefined && !chosen)
    return (
      <Headline title={stop} aside={test ? 'or measure on' : 'stop'}>
        Record what was found: hours already spent do not count.
        {test && ` Still to be had: ${test.title}.`}
      </Headline>
    );
  if (workNow && !chosen && !test?.again) {
    return (
      <Headline title={`${workNow.repair.label}: cures ${formatInHundred(workNow.repair.cureChance)}`} aside="work now">
        No test saves more than it costs any more. Press <Key>4</Key> to decide, or measure on:{' '}
        {test ? test.title : 'nothing is left to measure'}.
      </Headline>
    );
  }
  if (!test)
    return (
      <Headline title="Nothing more to learn by measuring" aside="decide, or look at the rails">
        No test on this board would change the odds by more than a few hundredths of a bit. Press <Key>4</Key> to
        decide.
      </Headline>
    );
  return (
    <Headline
      title={test.again ? `Take again before anything is replaced: ${test.title}` : test.title}
      aside={`${formatMinutes(test.minutes)}, ${test.shield ? `shield ${test.shield} off` : ACCESS_WORDS[test.access]}`}
    >
      {test.shield &&
        `Take the shield off first, glasses on when you cut it, and enter “shield ${test.shield.toLowerCase()} off”. `}
      {test.outlook.join(' ')}
      {test.caution && (
        <Text as="span" display="block" color="amberText" fontWeight="600" mt="1">
          {test.caution}
        </Text>
      )}
    </Headline>
  );
}

const MOST_SHOWN = 3;

/** The three best tests with what they cost and tell; a click asks another one. */
function BestTests({ tests, chosen }: { tests: JobView['tests']; chosen: JobView['tests'][number] | undefined }) {
  if (tests.length < 2) return null;
  return (
    <Grid
      templateColumns={{ base: 'minmax(0, 1fr)', md: 'repeat(3, minmax(0, 1fr))' }}
      gap={{ base: '2', md: '4' }}
      mb="2.5"
      fontSize="14px"
      role="list"
      aria-label="The best tests"
    >
      {tests.slice(0, MOST_SHOWN).map((t, i) => (
        <Box key={t.id} role="listitem" borderTop="1px solid" borderColor="rule" pt="1">
          <Link asChild color={t === chosen ? 'copperText' : 'ink'} fontWeight={t === chosen ? '700' : '400'}>
            <PageLink href={`?test=${i}`} scroll={false} replace aria-current={t === chosen ? 'true' : undefined}>
              {t.title}
            </PageLink>
          </Link>
          <Text color="quiet" fontFamily="mono" fontSize="13px">
            {formatMinutes(t.minutes)}, {t.bits.toFixed(2)} bit
            {t.expectedMinutes !== undefined && (
              <>
                {', '}
                <Text as="span" whiteSpace="nowrap">
                  job in {formatMinutes(t.expectedMinutes)}
                </Text>
              </>
            )}
          </Text>
        </Box>
      ))}
    </Grid>
  );
}

function marksOf(job: JobView, test: JobView['tests'][number] | undefined): BoardMark[] {
  const taken = job.readings.flatMap((r): BoardMark[] =>
    r.place && r.current ? [{ ...r.place, state: r.meaning.state }] : [],
  );
  const byName = new Map(taken.map((m) => [m.name, m]));
  if (test?.place) byName.set(test.place.name, { ...test.place, state: 'asked' });
  return [...byName.values()];
}

const COLOUR = { good: 'ink', bad: 'rust', plain: 'ink' } as const;

/** The readings, newest first; a click loads one into the entry line as a correction. */
export function ReadingStrip({
  readings,
  onPick,
}: {
  readings: readonly ReadingView[];
  onPick: (r: ReadingView) => void;
}) {
  if (readings.length === 0)
    return (
      <Text color="quiet" pt="3">
        No readings yet. Type one below, or press Enter to take the suggestion.
      </Text>
    );
  return (
    <Flex mt="3" pb="2.5" overflowX="auto" flexShrink="0" role="list" aria-label="Readings, newest first" tabIndex={0}>
      {[...readings].reverse().map((r) => (
        <Box
          key={r.seq}
          role="listitem"
          px="3.5"
          _first={{ pl: '0' }}
          borderRight="1px solid"
          borderColor="rule"
          flexShrink="0"
          maxW="220px"
          opacity={r.current ? 1 : 0.75}
        >
          <Box
            as="button"
            display="block"
            textAlign="left"
            cursor="pointer"
            title="Correct this reading"
            onClick={() => onPick(r)}
          >
            <Text fontSize="13px" color="quiet" lineHeight="1.3">
              {r.name}
              {!r.current && ' · before the work'}
              {r.origin && r.origin.kind !== 'typed' && ` · ${originName(r.origin)}`}
            </Text>
            <Text fontFamily="mono" fontWeight="700" fontSize="16px" lineHeight="1.3" color={COLOUR[r.meaning.state]}>
              {r.value}
            </Text>
            <Text fontSize="13px" color={r.meaning.state === 'bad' ? 'rust' : 'quiet'} lineHeight="1.25" lineClamp="1">
              {r.meaning.message}
            </Text>
          </Box>
        </Box>
      ))}
    </Flex>
  );
}
