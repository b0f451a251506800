import { Box, Text } from '@chakra-ui/react';

/** A figure that matters, large, with its name under it. */
export const BigFigure = ({ name, value, size = '30px' }: { name: string; value: string; size?: string }) => (
  <Box>
    <Text fontFamily="mono" fontWeight="700" fontSize={size} lineHeight="1.1">
      {value}
    </Text>
    <Text fontSize="13px" color="quiet">
      {name}
    </Text>
  </Box>
);
