'use client';

import { chakra } from '@chakra-ui/react';
import { nextScale, useScale } from './arms-length';

/** How large everything is drawn: F8 goes on to the next scale, for a screen that is read from an arm's length. */
export function ScaleSwitch() {
  const scale = useScale();
  return (
    <chakra.button type="button" color="quiet" cursor="pointer" data-stays title="Larger, F8" onClick={nextScale}>
      {Math.round(100 * scale)} %
    </chakra.button>
  );
}
