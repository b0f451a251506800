'use client';

import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import { ATTRIBUTES, ATTRIBUTE_WORDS, RULES, VERDICT_WORDS, type Cell, type Outcome, type Verdict } from '@/core/parts';
import { formatChance, formatMinutes } from '@/core/units';
import { MainButton, PlainButton, type ColourName, LIST_WIDTH } from '@/ui';
import type { RouteView } from '@/core/choice';
import { SuccessPart } from './success-part';

/** As wide as the longest word of each need. */
const COLUMNS = 'minmax(136px, 1fr) 54px 46px 50px 56px 60px 56px 56px 52px 54px 56px';

const OUTCOME_COLOUR: Readonly<Record<Outcome, ColourName>> = {
  same: 'quiet',
  fits: 'leaf',
  fixable: 'amberText',
  proven: 'leaf',
  untried: 'amberText',
  unknown: 'amberText',
  blocks: 'rust',
};
const VERDICT_COLOUR: Readonly<Record<Verdict, ColourName>> = {
  fits: 'leaf',
  fitsAfter: 'amberText',
  notTried: 'amberText',
  doesNotFit: 'rust',
};
/** A mark beside the word, so that the state is not told by colour alone. */
const MARK: Readonly<Record<Outcome, string>> = {
  same: '',
  fits: '',
  fixable: '△ ',
  proven: '',
  untried: '? ',
  unknown: '? ',
  blocks: '× ',
};

/** What the place needs, over the rows. */
export const RowHeads = () => (
  <Grid
    templateColumns={COLUMNS}
    minW={LIST_WIDTH}
    columnGap="1.5"
    fontSize="13px"
    fontWeight="700"
    color="quiet"
    borderBottom="1px solid"
    borderColor="rule"
    pb="1"
  >
    <span>Chip</span>
    {ATTRIBUTES.map((a) => (
      <span key={a}>{ATTRIBUTE_WORDS[a]}</span>
    ))}
  </Grid>
);

export interface RouteRowProps {
  readonly route: RouteView;
  readonly open: boolean;
  readonly first: boolean;
  readonly chosen: boolean;
  readonly busy: boolean;
  readonly onTake: () => void;
}

/** One candidate: a word for each need; it opens into what it takes, why, and how sure that is. */
export function RouteRow({ route, open, first, chosen, busy, onTake }: RouteRowProps) {
  const Button = first ? MainButton : PlainButton;
  return (
    <Box borderBottom="1px solid" borderColor="rule">
      <details open={open}>
        <chakra.summary cursor="pointer" listStyle="none" py="2" _hover={{ bg: 'ground' }}>
          <Grid templateColumns={COLUMNS} minW={LIST_WIDTH} columnGap="1.5" alignItems="baseline">
            <Box minW="0">
              <Text as="span" fontFamily="mono" fontWeight="700" fontSize="15px">
                {route.typeId}
              </Text>
              <Text fontSize="13px" color="quiet" lineHeight="1.25">
                {route.summary}
              </Text>
            </Box>
            {route.cells.map((cell) => (
              <Text
                key={cell.attribute}
                as="span"
                fontSize="13px"
                lineHeight="1.2"
                color={OUTCOME_COLOUR[cell.outcome]}
                title={cell.reason}
              >
                {MARK[cell.outcome]}
                {cell.word}
              </Text>
            ))}
          </Grid>
          <Flex gap="5" mt="1" align="baseline" fontSize="14px" wrap="wrap">
            <Text as="span" fontWeight="700" color={VERDICT_COLOUR[route.verdict]}>
              {VERDICT_WORDS[route.verdict]}
            </Text>
            {route.held && (
              <Text as="span" color="rust">
                {route.held}
              </Text>
            )}
            {route.verdict !== 'doesNotFit' && <RouteFigures route={route} />}
            {chosen && (
              <Text as="span" color="copperText" fontWeight="700">
                chosen
              </Text>
            )}
          </Flex>
        </chakra.summary>
        <Grid
          templateColumns="minmax(0, 1fr) 250px"
          columnGap="6"
          pb="3"
          pt="1"
          pl="3"
          borderLeft="2px solid"
          borderColor="rule"
        >
          <Box>
            <WhatItTakes route={route} />
            <Reasons cells={route.cells} />
            {route.flags.map((flag) => (
              <Text key={flag} fontSize="14px" color="amberText" mt="1">
                {flag}
              </Text>
            ))}
            {!chosen && !route.held && route.verdict !== 'doesNotFit' && (
              <Button type="button" mt="3" disabled={busy} onClick={onTake}>
                {route.goes ? 'Take this chip' : 'Try this chip all the same'}
              </Button>
            )}
          </Box>
          <SuccessPart route={route} />
        </Grid>
      </details>
    </Box>
  );
}

function RouteFigures({ route }: { route: RouteView }) {
  const minutes = route.actions.reduce((sum, a) => sum + a.minutes, 0);
  return (
    <>
      <span>
        chance <Figure>{formatChance(route.chance)}</Figure>
      </span>
      <span>
        costs <Figure>{route.cost.toFixed(0)}</Figure>
      </span>
      <span>
        adds <Figure>{formatMinutes(minutes)}</Figure>
      </span>
      <Text as="span" color="quiet">
        pays above {route.breakEven.toFixed(0)}
      </Text>
    </>
  );
}

const Figure = ({ children }: { children: string }) => (
  <Text as="span" fontFamily="mono" fontWeight="700" fontSize="16px">
    {children}
  </Text>
);

/** What has to be done, in order, and what to take care of. */
function WhatItTakes({ route }: { route: RouteView }) {
  return (
    <>
      <chakra.ol listStyleType="decimal" pl="5" fontSize="15px">
        {route.actions.map((a) => (
          <li key={a.words}>
            {a.words}{' '}
            <Text as="span" color="quiet" fontSize="14px">
              {formatMinutes(a.minutes)}
            </Text>
          </li>
        ))}
      </chakra.ol>
      {route.cautions.map((caution) => (
        <Text key={caution} fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="2" mt="1.5">
          {caution}
        </Text>
      ))}
    </>
  );
}

/** Why each need is met or not; what is simply the same needs no sentence. */
function Reasons({ cells }: { cells: readonly Cell[] }) {
  return (
    <Box mt="2" fontSize="14px">
      {cells
        .filter((c) => c.outcome !== 'same')
        .map((c) => (
          <Text key={c.attribute} title={`${c.rule}: ${RULES[c.rule].source}`}>
            <strong>{ATTRIBUTE_WORDS[c.attribute]}</strong>{' '}
            <Text as="span" color={OUTCOME_COLOUR[c.outcome]}>
              {c.reason}
            </Text>
          </Text>
        ))}
    </Box>
  );
}
