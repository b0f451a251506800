'use client';

import { useState } from 'react';
import { Flex, Text, chakra } from '@chakra-ui/react';
import type { ColumnChoice, MeterImport } from '@/core/trace';
import { MainButton, PlainButton } from '@/ui';

interface ColumnAskProps {
  readonly name: string;
  readonly imported: MeterImport;
  readonly onChoose: (choice: ColumnChoice) => void;
  readonly onDrop: () => void;
}

/** The scale was guessed from the columns as they were: another choice of columns starts from plain units. */
const PLAIN = { voltScale: 1, ampScale: 1 };

const SCALES = [
  ['1', 'V, A'],
  ['0.001', 'mV, mA'],
] as const;

/** Asks which column is what, where a meter's file leaves it in doubt: the guess stands until it is changed. */
export function ColumnAsk({ name, imported, onChoose, onDrop }: ColumnAskProps) {
  const [choice, setChoice] = useState(imported.choice);
  const columns = imported.columns.map((column, i) => [String(i), column] as const);
  const pick = (
    label: string,
    value: string,
    options: readonly (readonly [string, string])[],
    take: (v: string) => void,
  ) => (
    <chakra.label fontSize="14px" display="flex" gap="2" alignItems="baseline">
      {label}
      <chakra.select
        value={value}
        onChange={(e) => take(e.target.value)}
        bg="transparent"
        borderBottom="1px solid"
        borderColor="quiet"
      >
        {options.map(([v, words]) => (
          <option key={v} value={v}>
            {words}
          </option>
        ))}
      </chakra.select>
    </chakra.label>
  );
  return (
    <Flex
      as="section"
      aria-label="Which column is what"
      gap="4"
      wrap="wrap"
      align="baseline"
      borderLeft="3px solid"
      borderColor="amber"
      pl="3"
      py="1"
      my="2"
    >
      <Text w="100%">
        <strong>{name}</strong> leaves something open. {imported.doubts.join(' ')}
      </Text>
      {pick('volts', String(choice.volts), columns, (v) => setChoice({ ...choice, ...PLAIN, volts: Number(v) }))}
      {pick('amps', String(choice.amps), columns, (v) => setChoice({ ...choice, ...PLAIN, amps: Number(v) }))}
      {pick('in', String(choice.ampScale), SCALES, (v) =>
        setChoice({ ...choice, ampScale: Number(v), voltScale: Number(v) }),
      )}
      {pick(
        'time',
        choice.time === null ? 'none' : String(choice.time),
        [['none', 'no column'], ...columns] as const,
        (v) => setChoice({ ...choice, time: v === 'none' ? null : Number(v) }),
      )}
      {choice.time === null && (
        <chakra.label fontSize="14px" display="flex" gap="2" alignItems="baseline">
          seconds a sample
          <chakra.input
            type="number"
            min="0.001"
            step="any"
            value={choice.stepS ?? 0.1}
            onChange={(e) => setChoice({ ...choice, stepS: Number(e.target.value) || 0.1 })}
            w="5em"
            bg="transparent"
            borderBottom="1px solid"
            borderColor="quiet"
            fontFamily="mono"
          />
        </chakra.label>
      )}
      <MainButton type="button" onClick={() => onChoose(choice)}>
        Keep it so
      </MainButton>
      <PlainButton type="button" onClick={onDrop}>
        Leave it
      </PlainButton>
    </Flex>
  );
}
