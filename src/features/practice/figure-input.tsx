'use client';

import { chakra } from '@chakra-ui/react';

/** One figure; the default stands in it as long as nothing is typed. */
export function FigureInput({
  label,
  value,
  usual,
  width = '5em',
  onChange,
}: {
  label: string;
  value: string | undefined;
  usual: string;
  width?: string;
  onChange: (text: string) => void;
}) {
  return (
    <chakra.input
      aria-label={label}
      inputMode="decimal"
      value={value ?? ''}
      placeholder={usual}
      onChange={(e) => onChange(e.target.value)}
      w={width}
      bg="ground"
      border="1px solid"
      borderColor="rule"
      px="2"
      fontFamily="mono"
      fontWeight="700"
      _placeholder={{ color: 'quiet', fontWeight: '400', opacity: 1 }}
    />
  );
}
