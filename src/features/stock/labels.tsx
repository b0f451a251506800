import { create } from 'qrcode';
import { Box, Flex, Text } from '@chakra-ui/react';
import { Headline } from '@/ui';
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
      <Code text={chip.id.toLowerCase()} />
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

/** A QR code as one path; error correction M keeps it readable on a scratched bag. Source: ISO/IEC 18004, by the library. */
function Code({ text }: { text: string }) {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  const { size, data } = modules;
  const path = Array.from(data, (on, i) => (on ? `M${i % size} ${Math.floor(i / size)}h1v1h-1z` : '')).join('');
  return (
    <svg
      viewBox={`-1 -1 ${size + 2} ${size + 2}`}
      width="64"
      height="64"
      role="img"
      aria-label={`Code of ${text}`}
      shapeRendering="crispEdges"
    >
      <path d={path} fill="currentColor" />
    </svg>
  );
}
