import { Box } from '@chakra-ui/react';

/** What was expected and what was got, where it went wrong. */
export function ProblemNote({ text }: { text: string }) {
  return (
    <Box role="alert" borderLeft="3px solid" borderColor="rust" pl="3" py="1" my="2" color="rust">
      {text}
    </Box>
  );
}
