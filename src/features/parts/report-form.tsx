'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { SOURCES, SOURCE_WORDS, type PartType, type ReportSource } from '@/core/parts';
import { isoDayIn } from '@/core/units';
import { PlainButton, ProblemNote, SelectBox, TextInput, usePlace } from '@/ui';
import { keepReport } from './actions';
import type { Parts } from './queries';

const OUTCOMES = [
  ['yes', 'worked'],
  ['no', 'did not work'],
] as const;
const TRIED = [
  ['', 'not tried'],
  ['true', 'worked'],
  ['false', 'failed'],
] as const;
const placeId = (p: Parts['places'][number]): string => `${p.boardId} ${p.ref}`;

/** Takes down what somebody saw when this type went onto a place. */
export function ReportForm({ type, places }: { type: PartType; places: Parts['places'] }) {
  const [place, setPlace] = useState(places[0]);
  const [source, setSource] = useState<ReportSource>('own');
  const [worked, setWorked] = useState(true);
  const [tried, setTried] = useState<Readonly<Record<string, boolean>>>({});
  const [note, setNote] = useState('');
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const { place: at } = usePlace();
  if (!place) return null;
  const keep = (): void =>
    start(async () => {
      const date = isoDayIn(at, new Date().toISOString());
      const report = {
        typeId: type.id,
        boardId: place.boardId,
        ref: place.ref,
        date,
        source,
        worked,
        functions: tried,
        note,
      };
      const got = await keepReport(report, crypto.randomUUID());
      setAnswer(got);
      if (got.saved) {
        setTried({});
        setNote('');
      }
    });
  return (
    <Box mt="3" pt="2" borderTop="1px solid" borderColor="rule">
      <Text fontWeight="700">What was seen</Text>
      <Flex gap="2" wrap="wrap" mt="1">
        <SelectBox
          label="Place"
          value={placeId(place)}
          options={places.map((p) => [placeId(p), `${p.ref} of ${p.board}`])}
          onChange={(id) => {
            setPlace(places.find((p) => placeId(p) === id)!);
            setTried({});
          }}
        />
        <SelectBox
          label="Source"
          value={source}
          options={SOURCES.map((s) => [s, SOURCE_WORDS[s]])}
          onChange={(s) => setSource(s as ReportSource)}
        />
        <SelectBox
          label="Outcome"
          value={worked ? 'yes' : 'no'}
          options={OUTCOMES}
          onChange={(w) => setWorked(w === 'yes')}
        />
      </Flex>
      {place.functions.map((f) => (
        <chakra.label key={f.id} display="flex" justifyContent="space-between" gap="2" mt="1">
          {f.what}
          <SelectBox
            value={f.id in tried ? String(tried[f.id]) : ''}
            options={TRIED}
            onChange={(value) => setTried(withTried(tried, f.id, value))}
          />
        </chakra.label>
      ))}
      <TextInput
        mt="1"
        w="100%"
        placeholder="note"
        aria-label="Note"
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
      <Flex mt="2" gap="3" align="baseline">
        <PlainButton type="button" disabled={busy} onClick={keep}>
          Keep the report
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

function withTried(
  tried: Readonly<Record<string, boolean>>,
  id: string,
  value: string,
): Readonly<Record<string, boolean>> {
  const others = Object.fromEntries(Object.entries(tried).filter(([name]) => name !== id));
  return value === '' ? others : { ...others, [id]: value === 'true' };
}
