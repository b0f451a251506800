import type { ReactNode } from 'react';
import { Box, Flex, Heading, Text } from '@chakra-ui/react';

/** The answer or the instruction, with what qualifies it at the right and one sentence of why below. */
export function Headline({ title, aside, children }: { title: ReactNode; aside?: ReactNode; children?: ReactNode }) {
  return (
    <Box mb="3">
      <Flex align="baseline" justify="space-between" gap="4">
        <Heading as="h1" fontSize="2.07em" lineHeight="1.15" fontWeight="700" letterSpacing="-0.01em">
          {title}
        </Heading>
        {aside && (
          <Text color="quiet" flexShrink="0">
            {aside}
          </Text>
        )}
      </Flex>
      {children && <Text mt="1.5">{children}</Text>}
    </Box>
  );
}
