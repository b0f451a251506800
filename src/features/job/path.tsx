import NextLink from 'next/link';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import { STAGES, type Findings, type StageId } from '@/core/job';

/** The nine stages, and under each what was found there. */
export function Path({
  number,
  stage,
  findings,
  next,
}: {
  number: number;
  stage: StageId;
  findings: Findings;
  next: StageId;
}) {
  return (
    <>
      {STAGES.map(({ id, name }, i) => {
        const here = id === stage;
        return (
          <Link key={id} asChild display="block" _hover={{ textDecoration: 'none', bg: 'ground' }} color="ink">
            <NextLink href={`/jobs/${number}/${id}`} aria-current={here ? 'step' : undefined}>
              <Flex
                gap="3"
                pl="3"
                pr="3"
                py={{ base: '1.5', lg: findings[id] ? '2' : '1.5' }}
                bg={here ? 'ground' : undefined}
                borderLeft="3px solid"
                borderColor={here ? 'copper' : 'transparent'}
              >
                <Text as="span" color="quiet" fontSize="14px" w="16px" flexShrink="0" lineHeight="1.5">
                  {i + 1}
                </Text>
                <Box minW="0">
                  <Text
                    as="span"
                    fontWeight="600"
                    fontSize="16px"
                    lineHeight="1.3"
                    color={here ? 'copperText' : findings[id] || id === next ? 'ink' : 'quiet'}
                  >
                    {name}
                  </Text>
                  {findings[id] ? (
                    <Text fontSize="13px" lineHeight="1.35" color="quiet" overflowWrap="anywhere">
                      {findings[id]}
                    </Text>
                  ) : (
                    id === next &&
                    !here && (
                      <Text fontSize="13px" lineHeight="1.35" color="copperText">
                        next
                      </Text>
                    )
                  )}
                </Box>
              </Flex>
            </NextLink>
          </Link>
        );
      })}
    </>
  );
}
