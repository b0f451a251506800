'use client';

import { Box, Grid, Text } from '@chakra-ui/react';
import { applyCompletion } from '@/core/command-line';
import { completeDrillLine, DRILL_FORMS, readDrillLine } from '@/core/drill';
import { problemText } from '@/core/result';
import { formatMinutes } from '@/core/units';
import { BoardDrawing } from '@/drawings/board-drawing';
import {
  BigFigure,
  ColumnHeads,
  EntryBar,
  FigureLine,
  Headline,
  Key,
  SidebarPart,
  useEntryOffer,
  type Echo,
  type EntryCommand,
} from '@/ui';
import { settleDrillLine, takeDrillLine } from './actions';
import type { DrillView } from './queries';

/** A drill that goes on: the owner's words, the board, and what was taken so far. */
export function DrillWork({ drill }: { drill: DrillView }) {
  const { offerText } = useEntryOffer();
  if (drill.review) return <Review drill={drill} review={drill.review} />;
  const last = drill.steps.at(-1);
  return (
    <>
      <Headline title={`“${drill.story}”`} aside={`${drill.name}, grade ${drill.grade}`}>
        {last ? (
          <>
            {last.words}: <strong>{last.answer}</strong>
          </>
        ) : (
          <>
            Type what you would measure, without its value: <Key>look j1</Key> or <Key>usb a</Key>. A work such as{' '}
            <Key>replace u4</Key> is proven at once.
          </>
        )}
      </Headline>
      <BoardDrawing
        board={drill.board}
        marks={drill.places.map((place) => ({ ...place, state: 'plain' }))}
        onPick={(name) => offerText(`${name.toLowerCase()} `)}
      />
      <Box mt="3" maxH="210px" overflowY="auto" tabIndex={0} role="list" aria-label="What was done, newest first">
        {drill.steps.toReversed().map((s, i) => (
          <Grid
            key={drill.steps.length - i}
            role="listitem"
            templateColumns="minmax(0, 1fr) minmax(0, 1fr) 70px"
            columnGap="4"
            py="1"
            borderBottom="1px solid"
            borderColor="rule"
          >
            <Text>{s.words}</Text>
            <Text fontFamily="mono" fontWeight="700">
              {s.answer}
            </Text>
            <Text fontFamily="mono" color="quiet" textAlign="right">
              {formatMinutes(s.minutes)}
            </Text>
          </Grid>
        ))}
      </Box>
    </>
  );
}

const REVIEW_COLUMNS = '34px minmax(0, 1.1fr) minmax(0, 1fr) minmax(0, 1.3fr) 80px';

const END_WORDS: Readonly<Record<string, string>> = {
  cured: 'Cured',
  sentOn: 'Rightly sent on',
  wronglySentOn: 'Sent on, though it could have been cured',
  gaveUp: 'Given up',
};

/** Afterwards: what was hidden, what it cost against the program's own way, and the one step that cost most. */
function Review({
  drill,
  review: { truth, score, steps },
}: {
  drill: DrillView;
  review: NonNullable<DrillView['review']>;
}) {
  return (
    <>
      <Headline
        title={`${END_WORDS[drill.end!]} in ${formatMinutes(score.minutes)}: ${Math.round(100 * score.score)} of 100`}
        aside={`${drill.name}, grade ${drill.grade}`}
      >
        It was {truth}. The program took {formatMinutes(score.parMinutes)}.
        {score.lesson && (
          <Text as="span" display="block" color="amberText" fontWeight="600" mt="1">
            {score.lesson}
          </Text>
        )}
      </Headline>
      <ColumnHeads columns={REVIEW_COLUMNS} names={['', 'Done', 'Gave', 'Best at that moment', 'Cost']} lastRight />
      {steps.map((s, i) => (
        <Grid
          key={i}
          templateColumns={REVIEW_COLUMNS}
          columnGap="4"
          py="1"
          borderBottom="1px solid"
          borderColor="rule"
          alignItems="baseline"
        >
          <Text fontFamily="mono" color="quiet">
            {i + 1}
          </Text>
          <Text>
            {s.words}
            {s.mistake && (
              <Text as="span" display="block" fontSize="13px" color="rust" fontWeight="600">
                {score.mistakes.find((m) => m.step === i + 1)?.words}
              </Text>
            )}
          </Text>
          <Text fontFamily="mono" fontSize="14px">
            {s.answer}
          </Text>
          <Text fontSize="14px" color={s.regretMinutes > 0 ? 'ink' : 'quiet'}>
            {s.regretMinutes > 0 ? s.best : 'as done, or as good'}
          </Text>
          <Text fontFamily="mono" textAlign="right" color={s.regretMinutes >= 1 ? 'rust' : 'quiet'}>
            {s.regretMinutes >= 0.05 ? `+${s.regretMinutes.toFixed(1)}` : '0'}
          </Text>
        </Grid>
      ))}
    </>
  );
}

/** Minutes so far, and what may be asked for. */
export function DrillSide({ drill }: { drill: DrillView }) {
  const { offerText } = useEntryOffer();
  if (drill.review) {
    const { score } = drill.review;
    return (
      <SidebarPart title="What it came to">
        <FigureLine name="Minutes" value={score.minutes.toFixed(0)} />
        <FigureLine name="The program’s own" value={score.parMinutes.toFixed(0)} />
        <FigureLine name="Minutes lost in expectation" value={score.regretMinutes.toFixed(1)} />
        <FigureLine
          name="Mistakes of the trade"
          value={score.mistakes.length}
          colour={score.mistakes.length > 0 ? 'rust' : 'leaf'}
        />
      </SidebarPart>
    );
  }
  return (
    <>
      <SidebarPart title="At the bench">
        <BigFigure name="spent" value={formatMinutes(drill.minutes)} />
      </SidebarPart>
      <SidebarPart title="Stuck?">
        {[
          ['hint', 'What would the program do? Six minutes'],
          ['send on', 'Nothing listed explains it: send it on'],
          ['give up', 'Show me what it was'],
        ].map(([line, words]) => (
          <Text
            key={line}
            as="button"
            display="block"
            textAlign="left"
            color="copperText"
            textDecoration="underline"
            py="1"
            minH="28px"
            onClick={() => offerText(line, { take: true })}
          >
            {words}
          </Text>
        ))}
      </SidebarPart>
    </>
  );
}

/** The entry line of a drill: what is measured or worked on; the value comes from the bench. */
export function DrillEntry({ drill }: { drill: DrillView }) {
  const { offerText } = useEntryOffer();
  const { board, id, steps, hinted } = drill;
  function echo(text: string): Echo {
    const read = readDrillLine(board, text);
    if (!read.ok && text.trim().toLowerCase() !== hinted)
      return { message: problemText(read.problems), state: 'problem' };
    return { message: read.ok && read.value.do === 'work' ? 'works on it, and proves' : 'takes it', state: 'plain' };
  }
  const commands: EntryCommand[] = [
    { key: 'H', label: 'hint', run: () => offerText('hint', { take: true }) },
    { key: 'X', label: 'give up', quiet: true, run: () => offerText('give up', { take: true }) },
  ];
  return (
    <EntryBar
      name={`drill ${id}`}
      placeholder="usb a"
      echo={echo}
      complete={(text) => completeDrillLine(board, text)}
      applyCompletion={(text, completion) => (text.includes(' ') ? completion : applyCompletion(text, completion))}
      submit={(text, key) => takeDrillLine(id, text, key)}
      settle={settleDrillLine}
      version={steps.length}
      suggestion={hinted}
      forms={DRILL_FORMS}
      commands={commands}
    />
  );
}
