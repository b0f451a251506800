'use client';

import { Flex, Text } from '@chakra-ui/react';
import { useEntryOffer } from '@/ui';

export function SectionTitle({ children }: { children: string }) {
  return (
    <Text as="h2" fontSize="13px" fontWeight="700" color="quiet" mb="1">
      {children}
    </Text>
  );
}

export interface ProofLineProps {
  readonly name: string;
  readonly figure: string;
  /** Undefined while it is open. */
  readonly state: boolean | undefined;
  /** What the entry line begins with when the line is chosen. */
  readonly stem: string;
}

/** One thing that is proven: its name, its figure, and a word for its state. A click begins its entry. */
export function ProofLine({ name, figure, state, stem }: ProofLineProps) {
  const { offerText } = useEntryOffer();
  const words = state === undefined ? 'not yet' : state ? 'good' : 'fails';
  return (
    <Flex
      as="button"
      w="100%"
      textAlign="left"
      justify="space-between"
      gap="3"
      py="1"
      borderTop="1px solid"
      borderColor="rule"
      cursor="pointer"
      onClick={() => offerText(stem)}
    >
      <Text as="span" fontSize="14px">
        {name}
      </Text>
      <Text as="span" whiteSpace="nowrap">
        <Text as="span" fontFamily="mono" fontWeight="700" mr="2">
          {figure}
        </Text>
        <Text
          as="span"
          color={state === undefined ? 'quiet' : state ? 'leaf' : 'rust'}
          fontWeight={state === false ? '700' : '400'}
        >
          {words}
        </Text>
      </Text>
    </Flex>
  );
}
