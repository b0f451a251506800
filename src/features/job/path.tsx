import { Box, Flex, Link, Text } from '@chakra-ui/react';
import { STAGES, type Findings, type StageId } from '@/core/job';
import { PageLink } from '@/ui';

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
            <PageLink href={`/jobs/${number}/${id}`} aria-current={here ? 'step' : undefined}>
              <Flex
                gap={{ base: '1.5', lg: '3' }}
                px="3"
                py={{ base: '1.5', lg: findings[id] ? '2' : '1.5' }}
                bg={here ? 'ground' : undefined}
                borderLeft={{ lg: '3px solid' }}
                borderBottom={{ base: '3px solid', lg: 'none' }}
                borderColor={here ? 'copper' : 'transparent'}
              >
                <Text as="span" color="quiet" fontSize="14px" w={{ lg: '16px' }} flexShrink="0" lineHeight="1.5">
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
                  {/* In a row there is no room for what was found: the page of the stage says it. */}
                  {findings[id] ? (
                    <Text
                      display={{ base: 'none', lg: 'block' }}
                      fontSize="13px"
                      lineHeight="1.35"
                      color="quiet"
                      overflowWrap="anywhere"
                    >
                      {findings[id]}
                    </Text>
                  ) : (
                    id === next &&
                    !here && (
                      <Text
                        display={{ base: 'none', lg: 'block' }}
                        fontSize="13px"
                        lineHeight="1.35"
                        color="copperText"
                      >
                        next
                      </Text>
                    )
                  )}
                </Box>
              </Flex>
            </PageLink>
          </Link>
        );
      })}
    </>
  );
}
