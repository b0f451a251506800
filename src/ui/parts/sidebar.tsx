import type { ReactNode } from 'react';
import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import type { ColourName } from '../theme/palette';

/** A titled piece of the sidebar. */
export function SidebarPart({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="section">
      <Heading as="h2" fontSize="13px" lineHeight="1.4" fontWeight="700" color="quiet" mb="2">
        {title}
      </Heading>
      {children}
    </Box>
  );
}

/** The one caution of this step, in the row below the sidebar. */
export function CautionNote({ title, text }: { title: string; text: string }) {
  return (
    <Box as="section" aria-label="Caution">
      <Text fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3">
        <Box as="strong" color="amberText">
          {title}
        </Box>{' '}
        {text}
      </Text>
    </Box>
  );
}

/** A figure with its name: the name left, the figure right, in the mono face. */
export function FigureLine({
  name,
  value,
  colour = 'ink',
}: {
  name: ReactNode;
  value: ReactNode;
  colour?: ColourName;
}) {
  return (
    <Flex justify="space-between" align="baseline" gap="3" py="0.5">
      <Text as="span" fontSize="14px">
        {name}
      </Text>
      <Text as="span" fontFamily="mono" fontWeight="700" fontSize="16px" color={colour} whiteSpace="nowrap">
        {value}
      </Text>
    </Flex>
  );
}

/** A share as a length, with its name and its figure. */
export function OddsBar({
  name,
  share,
  figure,
  colour,
}: {
  name: ReactNode;
  share: number;
  figure: string;
  colour: ColourName;
}) {
  return (
    <Box py="1.5">
      <Flex justify="space-between" align="baseline" gap="3">
        <Text as="span" fontWeight="600" fontSize="14px" lineHeight="1.3">
          {name}
        </Text>
        <Text as="span" fontFamily="mono" fontSize="16px" whiteSpace="nowrap">
          {figure}
        </Text>
      </Flex>
      <Box bg="track" h="7px" mt="1" role="presentation">
        <Box bg={colour} h="7px" style={{ width: `${Math.max(1, Math.round(share * 100))}%` }} />
      </Box>
    </Box>
  );
}
