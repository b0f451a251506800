import { Box, Flex, Text } from '@chakra-ui/react';
import { mendedLabels, type JobView } from '@/core/job';
import { formatChance } from '@/core/units';
import { SidebarPart } from '@/ui';

/** The gates of the job, each with what is missing, and what the proof says of the repair. */
export function GatesSidebar({ job }: { job: JobView }) {
  const { gates, rails } = job.proof;
  return (
    <>
      <SidebarPart title="Gates">
        {gates.map((g) => (
          <Box key={g.id} py="1.5" borderBottom="1px solid" borderColor="rule">
            <Flex justify="space-between" gap="3">
              <Text as="span" fontWeight="600" fontSize="14px">
                {g.label}
              </Text>
              <Text as="span" color={g.holds ? 'leaf' : 'amberText'} fontWeight="700">
                {g.holds ? 'holds' : 'not yet'}
              </Text>
            </Flex>
            {g.missing && (
              <Text fontSize="13px" color="quiet" lineClamp="2">
                {g.missing}
              </Text>
            )}
          </Box>
        ))}
      </SidebarPart>
      {rails.failures.map((f) => (
        <SidebarPart key={f.rail} title={`${f.rail}: smallest set of suspects`}>
          <Text fontFamily="mono" fontWeight="700" color="rust">
            {f.suspects.join('  ')}
          </Text>
          <Text fontSize="14px">Last good before it: {f.lastGood}.</Text>
        </SidebarPart>
      ))}
      {job.state.replaced.length > 0 && (
        <SidebarPart title="What was mended">
          <Text fontSize="14px">{mendedLabels(job.board, job.state.replaced).join(', ')}.</Text>
          <Text fontSize="14px">The readings put {formatChance(job.curedChance)} of the fault there.</Text>
        </SidebarPart>
      )}
    </>
  );
}
