import { Box, Flex, Text } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { Headline, QrCode } from '@/ui';

interface JobLabelProps {
  readonly job: JobView;
  /** What the code opens. */
  readonly address: string;
}

/** The label for a job's bag: its number, whose device it is by the shop's own marks, and a code that opens the job. */
export function JobLabel({ job, address }: JobLabelProps) {
  const { board, state, number, training } = job;
  const { device } = state;
  return (
    <Box>
      <Box css={{ '@media print': { display: 'none' } }}>
        <Headline title={`Label for the bag of job ${number}`} aside="70 × 30 mm">
          Print the page and cut. The code opens {address}.
        </Headline>
      </Box>
      <Flex w="70mm" h="30mm" border="1px solid" borderColor="quiet" p="2mm" gap="3mm" overflow="hidden" align="center">
        <QrCode text={address} size={96} />
        <Box minW="0" lineHeight="1.2">
          <Text fontFamily="mono" fontWeight="700" fontSize="26px">
            {String(number).padStart(4, '0')}
          </Text>
          <Text fontSize="13px" truncate>
            {board.device}, {board.name}
          </Text>
          <Text fontFamily="mono" fontSize="13px" truncate>
            {[device?.ticket, device?.serial].filter(Boolean).join(' · ')}
          </Text>
          <Text fontSize="13px" truncate>
            {training ? 'training' : device?.owner ? `owner ${device.owner}` : ''}
            {state.story?.pack === 'swollen' && !state.packOut ? ' · swollen pack' : ''}
          </Text>
        </Box>
      </Flex>
    </Box>
  );
}
