'use client';

import { useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { MainButton, PlainButton } from '../parts/button';
import { Key } from '../parts/key';
import { useFilePresets, type Preset } from './file-presets';
import type { ReadQuestion } from './file-reader';
import type { FileReading } from './use-file-reading';

/** What a file leaves open, one question after the other, above the first rows as they were understood. */
export function ReadingAsk<T>({ reading, title }: { readonly reading: FileReading<T>; readonly title: string }) {
  const { open, notes, preset } = reading;
  if (!open)
    return (
      <>
        {notes.length > 0 && <ReadingNotes notes={notes} />}
        {preset && <PresetLine key={preset.signature} preset={preset} />}
      </>
    );
  const [question] = open.outcome.questions;
  const left = open.outcome.questions.length - 1;
  return (
    <Box
      as="section"
      aria-label="What the file leaves open"
      borderLeft="3px solid"
      borderColor="amber"
      pl="3"
      py="1"
      my="2"
    >
      <Text>
        <strong>{open.file.name}</strong> was taken for {title}. Nothing of it is kept yet.
      </Text>
      <QuestionLine key={question.id} question={question} onAnswer={(value) => reading.answer(question.id, value)} />
      <Text fontSize="14px" color="quiet">
        {left > 0 && `${left} more to answer. `}
        {open.outcome.notes.join(' ')}
      </Text>
      {open.outcome.rows && <FirstRows rows={open.outcome.rows} />}
      <PlainButton type="button" onClick={reading.drop}>
        Leave the file
      </PlainButton>
    </Box>
  );
}

interface QuestionLineProps {
  readonly question: ReadQuestion;
  readonly onAnswer: (value: string) => void;
}

/** Digits answer: the first nine choices have a key each. */
function QuestionLine({ question, onAnswer }: QuestionLineProps) {
  const [typed, setTyped] = useState('');
  if (question.choices.length === 0)
    return (
      <chakra.form
        display="flex"
        gap="3"
        alignItems="baseline"
        my="1"
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim() !== '') onAnswer(typed.trim());
        }}
      >
        <chakra.label display="flex" gap="3" alignItems="baseline">
          {question.why}
          <chakra.input
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            w="7em"
            bg="transparent"
            borderBottom="1px solid"
            borderColor="quiet"
            fontFamily="mono"
          />
        </chakra.label>
        <MainButton type="submit">So it is</MainButton>
      </chakra.form>
    );
  return (
    <Flex
      gap="3"
      wrap="wrap"
      align="baseline"
      my="1"
      onKeyDown={(e) => {
        const choice = question.choices[Number(e.key) - 1];
        if (choice === undefined || e.ctrlKey || e.metaKey || e.altKey) return;
        e.preventDefault();
        e.stopPropagation();
        onAnswer(choice);
      }}
    >
      <Text>{question.why}</Text>
      {question.choices.map((choice, i) => (
        <PlainButton key={choice} type="button" autoFocus={i === 0} onClick={() => onAnswer(choice)}>
          {i < 9 && <Key>{i + 1}</Key>} {choice}
        </PlainButton>
      ))}
    </Flex>
  );
}

function FirstRows({ rows }: { readonly rows: readonly (readonly string[])[] }) {
  return (
    <Box overflowX="auto" my="1">
      <chakra.table fontFamily="mono" fontSize="13px" aria-label="First rows as they were understood">
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <chakra.td
                  key={k}
                  pr="4"
                  textAlign="right"
                  fontWeight={i === 0 ? '700' : undefined}
                  whiteSpace="nowrap"
                >
                  {cell}
                </chakra.td>
              ))}
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

/** Offers to keep the answers for the files of the same instrument. */
function PresetLine({ preset }: { readonly preset: Omit<Preset, 'name'> }) {
  const { onKeep } = useFilePresets();
  const [name, setName] = useState('');
  const [answer, setAnswer] = useState<string>();
  if (answer !== undefined)
    return (
      <Text fontSize="14px" role="status">
        {answer}
      </Text>
    );
  return (
    <chakra.form
      display="flex"
      gap="3"
      alignItems="baseline"
      fontSize="14px"
      onSubmit={(e) => {
        e.preventDefault();
        void onKeep({ ...preset, name }).then(({ message }) => setAnswer(message));
      }}
    >
      <chakra.label display="flex" gap="2" alignItems="baseline">
        Read files like it the same way, as those of
        <chakra.input
          value={name}
          required
          maxLength={60}
          placeholder="this meter"
          onChange={(e) => setName(e.target.value)}
          w="10em"
          bg="transparent"
          borderBottom="1px solid"
          borderColor="quiet"
        />
      </chakra.label>
      <PlainButton type="submit">Keep</PlainButton>
    </chakra.form>
  );
}

const ReadingNotes = ({ notes }: { readonly notes: readonly string[] }) => (
  <Text fontSize="14px" color="quiet" aria-live="polite">
    {notes.join(' ')}
  </Text>
);
