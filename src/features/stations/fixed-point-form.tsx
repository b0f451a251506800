'use client';

import { useState, type FormEvent } from 'react';
import { Flex } from '@chakra-ui/react';
import type { Trial } from '@/core/calibration';
import { Named, PlainButton, TextInput } from '@/ui';

interface FixedPointFormProps {
  readonly ambientC: number;
  readonly onTrial: (trial: Trial) => void;
  readonly onProblem: (words: string) => void;
}

/** What the logs' probe shows at a temperature that is known: it pins the share by which a probe reads low. */
export function FixedPointForm({ ambientC, onTrial, onProblem }: FixedPointFormProps) {
  const [known, setKnown] = useState('100');
  const [read, setRead] = useState('');

  function keep(): void {
    const [trueC, readC] = [known, read].map((text) => (text.trim() === '' ? NaN : Number(text.replace(',', '.'))));
    if (!(trueC >= -40 && trueC <= 500))
      return onProblem(`Expected a known temperature from −40 to 500 °C; got "${known}".`);
    if (!(readC >= -60 && readC <= 600)) return onProblem(`Expected what the probe shows, in °C; got "${read}".`);
    onTrial({ kind: 'fixedPoint', trueC, readC, ambientC });
    setRead('');
  }

  return (
    <Flex
      as="form"
      gap="3"
      wrap="wrap"
      align="flex-end"
      mt="2"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        keep();
      }}
    >
      <Named name="Known, °C">
        <TextInput w="6em" inputMode="decimal" value={known} onChange={(e) => setKnown(e.target.value)} />
      </Named>
      <Named name="Probe shows, °C">
        <TextInput w="7em" inputMode="decimal" value={read} onChange={(e) => setRead(e.target.value)} />
      </Named>
      <PlainButton type="submit">Pin the probe</PlainButton>
    </Flex>
  );
}
