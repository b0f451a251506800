'use client';

import type { ReactNode } from 'react';
import { Box, Flex, Heading, Text, chakra } from '@chakra-ui/react';
import type { Check } from '@/core/netlist';

const FIELD = { bg: 'ground', border: '1px solid', borderColor: 'rule', px: '2', py: '0.5', minW: '0' } as const;

/** A titled section of the sheet, with what is missing in it. */
export function Section({ title, checks, children }: { title: string; checks: readonly Check[]; children: ReactNode }) {
  return (
    <Box as="section" borderTop="1px solid" borderColor="rule" pt="2.5" pb="4">
      <Flex align="baseline" gap="4" mb="2">
        <Heading as="h2" fontSize="17px" fontWeight="700" flexShrink="0">
          {title}
        </Heading>
        <Text as="span" fontSize="14px" color={checks.length === 0 ? 'leaf' : 'amberText'}>
          {checks.length === 0
            ? 'complete'
            : `${checks[0].message}${checks.length > 1 ? ` And ${checks.length - 1} more.` : ''}`}
        </Text>
      </Flex>
      {children}
    </Box>
  );
}

/** One named text field. */
export function Field({
  label,
  value,
  width = '9em',
  hidden = false,
  list,
  onChange,
}: {
  label: string;
  value: string;
  width?: string;
  /** In a table the column has the name already. */
  hidden?: boolean;
  /** Id of a list of suggestions. */
  list?: string;
  onChange: (text: string) => void;
}) {
  const input = (
    <chakra.input
      {...FIELD}
      w={width}
      fontFamily="mono"
      aria-label={hidden ? label : undefined}
      value={value}
      list={list}
      onChange={(e) => onChange(e.target.value)}
    />
  );
  if (hidden) return input;
  return (
    <chakra.label display="block">
      <Text as="span" display="block" fontSize="13px" fontWeight="700" color="quiet">
        {label}
      </Text>
      {input}
    </chakra.label>
  );
}

/** A choice among names. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  return (
    <chakra.select {...FIELD} aria-label={label} value={value} onChange={(e) => onChange(e.target.value as T)}>
      {options.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </chakra.select>
  );
}
