'use client';

import { useState } from 'react';
import { Text, chakra } from '@chakra-ui/react';
import { formatOffset } from '@/core/units';
import { TextInput } from '@/ui';

/** An offset typed: hexadecimal, as it stands beside the bytes. */
export function GoTo({ sizeBytes, onGo }: { sizeBytes: number; onGo: (offset: number) => void }) {
  const [text, setText] = useState('');
  const offset = /^(0x)?[0-9a-f]+$/i.test(text.trim()) ? parseInt(text.trim().replace(/^0x/i, ''), 16) : undefined;
  const isBad = text.trim() !== '' && (offset === undefined || offset >= sizeBytes);
  return (
    <chakra.form
      display="flex"
      gap="2"
      alignItems="baseline"
      onSubmit={(e) => {
        e.preventDefault();
        if (offset !== undefined && !isBad) onGo(offset);
      }}
    >
      <TextInput
        aria-label="Go to an offset"
        placeholder="go to 0x…"
        w="8em"
        fontFamily="mono"
        value={text}
        onChange={(e) => setText(e.target.value)}
        aria-invalid={isBad}
      />
      {isBad && (
        <Text as="span" color="rust">
          expected an offset below {formatOffset(sizeBytes)}
        </Text>
      )}
    </chakra.form>
  );
}
