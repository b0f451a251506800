'use client';

import { chakra } from '@chakra-ui/react';

/** The one action of a place: copper ground. */
export const MainButton = chakra('button', {
  base: {
    bg: 'copperText',
    color: 'ground',
    fontWeight: '700',
    px: '4',
    py: '1.5',
    borderRadius: '2px',
    cursor: 'pointer',
    whiteSpace: 'nowrap',
    _disabled: { opacity: 0.55, cursor: 'not-allowed' },
  },
});

/** Any other action: a thin rule round it. */
export const PlainButton = chakra('button', {
  base: {
    bg: 'transparent',
    color: 'ink',
    border: '1px solid',
    borderColor: 'quiet',
    px: '3',
    py: '1',
    borderRadius: '2px',
    cursor: 'pointer',
    whiteSpace: 'nowrap',
    _hover: { borderColor: 'ink' },
    _disabled: { opacity: 0.55, cursor: 'not-allowed' },
  },
});
