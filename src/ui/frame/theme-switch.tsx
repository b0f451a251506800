'use client';

import { useTheme } from 'next-themes';
import { chakra } from '@chakra-ui/react';

/** Paper for the bench, dim for work at the microscope. Both names are shown so that nothing has to be guessed. */
export function ThemeSwitch() {
  const { resolvedTheme, setTheme } = useTheme();
  return (
    <chakra.button
      type="button"
      color="quiet"
      cursor="pointer"
      suppressHydrationWarning
      onClick={() => setTheme(resolvedTheme === 'dark' ? 'light' : 'dark')}
    >
      paper / dim
    </chakra.button>
  );
}
