import type { ReactNode } from 'react';
import { Kbd } from '@chakra-ui/react';

/** A key as it is printed on the keyboard. @param onCopper on the ground of a main button. */
export function Key({ onCopper = false, children }: { onCopper?: boolean; children: ReactNode }) {
  return (
    <Kbd
      variant="outline"
      fontFamily="mono"
      fontSize="13px"
      fontWeight="500"
      bg="transparent"
      color={onCopper ? 'ground' : 'ink'}
      border="1px solid"
      borderColor={onCopper ? 'ground' : 'quiet'}
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
