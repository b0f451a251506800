'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { SOURCES, SOURCE_WEIGHT, SOURCE_WORDS, type ReportSource } from '@/core/parts';
import type { SourcingPractice } from '@/core/sourcing';
import { parseFigure } from '@/core/units';
import { Named, PlainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { keepEvidenceSettings } from './actions';

/** How much a report counts by where it comes from, and whether donors that nobody has seen work may be planned with. */
export function EvidenceForm({ practice }: { practice: SourcingPractice }) {
  const [weights, setWeights] = useState<Readonly<Record<ReportSource, string>>>({
    own: String(practice.weights.own ?? SOURCE_WEIGHT.own),
    mate: String(practice.weights.mate ?? SOURCE_WEIGHT.mate),
    hearsay: String(practice.weights.hearsay ?? SOURCE_WEIGHT.hearsay),
  });
  const [unproven, setUnproven] = useState(practice.unprovenDonors ? 'yes' : 'no');
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const keep = (): void =>
    start(async () => {
      const figures = SOURCES.map((s) => [s, figureOf(weights[s])] as const);
      setAnswer(
        await keepEvidenceSettings({ weights: Object.fromEntries(figures), unprovenDonors: unproven === 'yes' }),
      );
    });
  return (
    <Box mt="6">
      <Text as="h2" fontSize="18px" fontWeight="700">
        What a report counts
      </Text>
      <Flex gap="4" wrap="wrap" align="flex-end" mt="2">
        {SOURCES.map((s) => (
          <Named key={s} name={SOURCE_WORDS[s]}>
            <TextInput
              w="5em"
              fontFamily="mono"
              inputMode="decimal"
              value={weights[s]}
              onChange={(e) => setWeights({ ...weights, [s]: e.target.value })}
            />
          </Named>
        ))}
        <Named name="Donors nobody has seen work">
          <SelectBox
            value={unproven}
            options={[
              ['no', 'are proven first'],
              ['yes', 'may be planned with'],
            ]}
            onChange={setUnproven}
          />
        </Named>
        <PlainButton type="button" disabled={busy} onClick={keep}>
          Keep what reports count
        </PlainButton>
        {answer?.saved && (
          <Text role="status" color="leaf">
            {answer.message}
          </Text>
        )}
      </Flex>
      {answer && !answer.saved && <ProblemNote text={answer.message} />}
    </Box>
  );
}

/** A figure, or the text itself: the server says what was expected. */
function figureOf(text: string): number | string {
  const figure = parseFigure(text);
  return figure.ok ? figure.value : text;
}
