import type { ReactNode } from 'react';
import { Kbd } from '@chakra-ui/react';

/** A key as it is printed on the keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <Kbd
      variant="outline"
      fontFamily="mono"
      fontSize="13px"
      fontWeight="500"
      bg="transparent"
      color="ink"
      border="1px solid"
      borderColor="quiet"
      borderRadius="2px"
      boxShadow="none"
      px="1.5"
      minH="auto"
      lineHeight="1.35"
    >
      {children}
    </Kbd>
  );
}
