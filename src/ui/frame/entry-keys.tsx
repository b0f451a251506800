import type { ReactNode } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { Key } from '../parts/key';
import { GuideLink } from './guide-link';
import type { EntryCommand } from './use-command-keys';

/** A line that can be typed, and what it means. */
export interface EntryForm {
  readonly example: string;
  readonly help: string;
}

/** Letters are typed with Shift. */
export const keyName = ({ key }: Pick<EntryCommand, 'key'>): string => (/^[A-Z]$/.test(key) ? `⇧${key}` : key);

/** A key and what it does; pressed by a pointer too where it does something. */
export function KeyHint({ name, onClick, children }: { name: string; onClick?: () => void; children: ReactNode }) {
  if (!onClick) {
    return (
      <span>
        <Key>{name}</Key> {children}
      </span>
    );
  }
  return (
    <chakra.button type="button" onClick={onClick} cursor="pointer" color="quiet">
      <Key>{name}</Key> {children}
    </chakra.button>
  );
}

/** What a command asks for: one key each. */
export function ChoiceList({ title, choices }: { title: string; choices: NonNullable<EntryCommand['choices']> }) {
  return (
    <Box
      role="region"
      aria-label={title}
      position="absolute"
      bottom="100%"
      left="0"
      bg="ground"
      border="1.5px solid"
      borderColor="ink"
      borderLeft="none"
      px="4.5"
      py="3"
      fontSize="16px"
    >
      <Text fontWeight="700" mb="1.5">
        {title}
      </Text>
      {choices.map(({ key, label, run }) => (
        <chakra.button key={key} type="button" display="flex" gap="3" py="1" cursor="pointer" onClick={run}>
          <Key>{key}</Key>
          <span>{label}</span>
        </chakra.button>
      ))}
    </Box>
  );
}

/** Every key that works here, and every line that can be typed. */
export function KeyList({ commands, forms }: { commands: readonly EntryCommand[]; forms: readonly EntryForm[] }) {
  const fixed = [
    ['Enter', 'keep the line; empty: take the suggestion'],
    ['F9', 'the foot pedal: as Enter'],
    ['Tab', 'complete the word'],
    ['↑ ↓', 'recall what was typed'],
    ['Esc', 'clear the line'],
    ['/', 'find a job'],
  ];
  return (
    <Box
      role="region"
      aria-label="Keys"
      position="absolute"
      bottom="100%"
      right="0"
      bg="ground"
      border="1.5px solid"
      borderColor="ink"
      borderRight="none"
      px="5"
      py="4"
      fontSize="14px"
      maxH="calc(100vh - 110px)"
      maxW="min(1040px, 100vw)"
      overflowY="auto"
    >
      <Flex gap="10" align="flex-start">
        {forms.length > 0 && <FormList forms={forms} />}
        <Box flexShrink="0">
          <Text fontWeight="700" mb="2">
            Keys, while the line is empty
          </Text>
          {[...commands.map((c) => [keyName(c), c.label]), ...fixed].map(([key, label]) => (
            <Flex key={key} gap="3" py="0.5" align="baseline">
              <Box w="4em" textAlign="right">
                <Key>{key}</Key>
              </Box>
              <Text as="span">{label}</Text>
            </Flex>
          ))}
          <GuideLink />
        </Box>
      </Flex>
    </Box>
  );
}

/** Every form of the line, from the grammar itself. */
const FormList = ({ forms }: { forms: readonly EntryForm[] }) => (
  <Box minW="0">
    <Text fontWeight="700" mb="2">
      What can be typed
    </Text>
    {forms.map(({ example, help }) => (
      <Flex key={example} gap="3" py="0.5" align="baseline">
        <Text as="span" fontFamily="mono" fontSize="13px" minW="17.5em" flexShrink="0">
          {example}
        </Text>
        <Text as="span" color="quiet" lineHeight="1.25">
          {help}
        </Text>
      </Flex>
    ))}
  </Box>
);
