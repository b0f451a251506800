'use client';

import type { ReactNode } from 'react';
import { chakra } from '@chakra-ui/react';

const BOX = {
  bg: 'ground',
  color: 'ink',
  border: '1px solid',
  borderColor: 'rule',
  px: '2',
  py: '0.5',
  fontSize: '14px',
};

/** A line to type into. */
export const TextInput = chakra('input', { base: { ...BOX, _placeholder: { color: 'quiet', opacity: 1 } } });

const Select = chakra('select', { base: { ...BOX, maxW: '100%' } });

export interface SelectBoxProps {
  /** Where no label stands beside it. */
  readonly label?: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, name: string])[];
  readonly disabled?: boolean;
  readonly onChange: (value: string) => void;
}

/** One of a list. */
export function SelectBox({ label, value, options, disabled, onChange }: SelectBoxProps) {
  return (
    <Select aria-label={label} value={value} disabled={disabled} onChange={(e) => onChange(e.target.value)}>
      {options.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Select>
  );
}

/** A field with its name above it. */
export const Named = ({ name, children }: { name: string; children: ReactNode }) => (
  <chakra.label display="flex" flexDirection="column" color="quiet" fontSize="13px">
    {name}
    {children}
  </chakra.label>
);
