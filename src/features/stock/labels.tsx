import { Box, Flex, Text } from '@chakra-ui/react';
import { Headline, QrCode } from '@/ui';
import type { Shelf } from './queries';
import type { Tray } from './view';

/** Labels for every loose chip and its tray, to be printed and cut; the code is what a scanner types into the entry line. */
export function Labels({ trays }: { trays: Shelf['trays'] }) {
  return (
    <Box>
      <Box css={{ '@media print': { display: 'none' } }}>
        <Headline title="Labels for loose chips" aside="50 × 20 mm">
          Print the page and cut; the code holds the chip’s name, as the entry line takes it.
        </Headline>
      </Box>
      <Flex wrap="wrap" gap="3mm">
        {trays.flatMap((tray) => tray.chips.map((chip) => <Label key={chip.id} tray={tray} chip={chip} />))}
      </Flex>
    </Box>
  );
}

function Label({ tray, chip }: { tray: Tray; chip: Tray['chips'][number] }) {
  return (
    <Flex
      w="50mm"
      h="20mm"
      border="1px solid"
      borderColor="quiet"
      p="1.5mm"
      gap="2mm"
      overflow="hidden"
      breakInside="avoid"
    >
      <QrCode text={chip.id.toLowerCase()} />
      <Box minW="0" lineHeight="1.15">
        <Text fontFamily="mono" fontWeight="700" fontSize="17px">
          {chip.id}
        </Text>
        <Text fontFamily="mono" fontSize="13px" truncate>
          {chip.typeId}
        </Text>
        <Text fontSize="13px" truncate>
          {tray.kind === 'patient' ? '▲ ' : ''}
          {tray.title}
        </Text>
      </Box>
    </Flex>
  );
}
