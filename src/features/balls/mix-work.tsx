'use client';

import { useState } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { ALLOYS, SOLDERS, mixSolders, residueMeltingAt, solderByName } from '@/core/joints';
import { BigFigure, Headline, Named, ProblemNote, SelectBox, TextInput } from '@/ui';

const NAMES = SOLDERS.map(({ name }) => [name, name] as const);

interface Line {
  readonly alloy: string;
  readonly text: string;
}

const volumeOf = (text: string): number => Number(text.trim().replace(',', '.') || '0');

/** What comes of solders melted together, and whose residue melts too early. */
export function MixWork({ board }: { board: Board }) {
  const [lines, setLines] = useState<readonly Line[]>([
    { alloy: board.alloy, text: '1' },
    { alloy: 'Sn63Pb37', text: '0.5' },
    { alloy: 'Sn42Bi58', text: '0' },
  ]);
  const [seenText, setSeenText] = useState('');
  const wrong = lines.find((l) => !(volumeOf(l.text) >= 0 && volumeOf(l.text) < 10_000));
  const portions = lines.map((l) => ({ alloy: solderByName(l.alloy)!, volumeMm3: volumeOf(l.text) }));
  const any = !wrong && portions.some((p) => p.volumeMm3 > 0);
  const mixed = any ? mixSolders(portions) : undefined;
  const seenC = volumeOf(seenText);
  const residue = seenText.trim() && residueMeltingAt(seenC, ALLOYS[board.alloy].solidusC);
  const range =
    mixed &&
    (mixed.solidusC === mixed.liquidusC
      ? `${mixed.solidusC} °C`
      : `${Math.round(mixed.solidusC)}–${Math.round(mixed.liquidusC)} °C`);
  return (
    <>
      <Headline
        title={
          mixed ? (mixed.warnings.length > 0 ? 'Clean it away, do not mix' : `Melts at ${range}`) : 'How much of what'
        }
        aside={mixed?.isRange ? 'a range of what went in' : 'by mass, from volumes'}
      >
        {mixed?.warnings[0] ??
          (mixed?.isRange
            ? 'No diagram of two metals says where this mix melts: between the lowest and the highest of what went in.'
            : 'From the tin–lead diagram where only those two count.')}
      </Headline>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="7">
        <Box>
          {lines.map((line, i) => (
            <Flex key={i} gap="3" mb="2" align="flex-end">
              <Named name={i === 0 ? 'On the pads' : 'Added'}>
                <SelectBox
                  value={line.alloy}
                  options={NAMES}
                  onChange={(alloy) => setLines(lines.with(i, { ...line, alloy }))}
                />
              </Named>
              <Named name="mm³">
                <TextInput
                  w="6em"
                  inputMode="decimal"
                  aria-label={`Volume of ${line.alloy}, mm³`}
                  value={line.text}
                  onChange={(e) => setLines(lines.with(i, { ...line, text: e.target.value }))}
                />
              </Named>
            </Flex>
          ))}
          {wrong && <ProblemNote text={`Expected a volume in mm³, 0 or more; got "${wrong.text}".`} />}
          <Text fontSize="14px" color="quiet">
            A ball of 0.30 mm is 0.014 mm³; tinning a pad of 0.7 × 0.25 mm leaves about 0.01 mm³.
          </Text>
        </Box>
        {mixed && (
          <Box>
            <BigFigure name={`${mixed.massMg.toFixed(1)} mg`} value={range!} size="44px" />
            <Box mt="3">
              {Object.entries(mixed.weights)
                .sort(([, a], [, b]) => b - a)
                .map(([element, share]) => (
                  <Flex key={element} gap="3" py="0.5" align="center">
                    <Text w="2em" fontWeight="700">
                      {element}
                    </Text>
                    <Box bg="track" h="7px" flex="1">
                      <Box
                        bg={RISKY.has(element) ? 'rust' : 'tin'}
                        h="7px"
                        style={{ width: `${Math.max(1, 100 * share)}%` }}
                      />
                    </Box>
                    <Text fontFamily="mono" w="5em" textAlign="right">
                      {(100 * share).toFixed(1)} %
                    </Text>
                  </Flex>
                ))}
            </Box>
            {mixed.warnings.slice(1).map((w) => (
              <Text key={w} fontSize="14px" color="rust">
                {w}
              </Text>
            ))}
          </Box>
        )}
      </Grid>
      <Box as="section" aria-label="Somebody else’s residue" mt="6">
        <Text as="h2" fontWeight="700" mb="1">
          Somebody else’s residue
        </Text>
        <Flex gap="3" align="flex-end" wrap="wrap">
          <Named name="Seen molten at, °C">
            <TextInput w="8em" inputMode="decimal" value={seenText} onChange={(e) => setSeenText(e.target.value)} />
          </Named>
          <Text pb="1" fontSize="15px" color={residue ? 'rust' : 'quiet'}>
            {seenText.trim() === ''
              ? 'Solder that melts far too early is not the board’s own.'
              : Number.isFinite(seenC)
                ? residue || `As the board’s own ${board.alloy} does.`
                : `Expected a temperature; got "${seenText}".`}
          </Text>
        </Flex>
      </Box>
    </>
  );
}

/** What must not be left in a joint. */
const RISKY = new Set(['Bi', 'In']);
