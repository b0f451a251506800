import type { ReactNode } from 'react';
import { Box, Grid } from '@chakra-ui/react';

export interface FrameProps {
  readonly strip: ReactNode;
  readonly path: ReactNode;
  readonly work: ReactNode;
  readonly sidebar: ReactNode;
  readonly entry?: ReactNode;
}

/** The frame of a job: strip above, path left, work in the middle, sidebar right, entry line below. */
export function Frame({ strip, path, work, sidebar, entry }: FrameProps) {
  return (
    <Grid
      h={{ lg: '100dvh' }}
      minH="100dvh"
      templateColumns={{ base: '1fr', lg: '196px minmax(0, 1fr) 308px' }}
      templateRows={{ base: 'auto', lg: '44px minmax(0, 1fr) auto' }}
    >
      <Box gridColumn="1 / -1">{strip}</Box>
      <Box
        as="nav"
        aria-label="The path"
        borderRight={{ lg: '1px solid' }}
        borderColor={{ lg: 'rule' }}
        overflowY="auto"
        pt="3"
      >
        {path}
      </Box>
      <Box as="main" px="5" pt="4" pb="3" overflowY="auto" tabIndex={-1} display="flex" flexDirection="column" minH="0">
        {work}
      </Box>
      <Box
        as="aside"
        tabIndex={0}
        aria-label="What it means"
        bg="ground"
        borderLeft={{ lg: '1px solid' }}
        borderColor={{ lg: 'rule' }}
        px="4.5"
        py="4"
        overflowY="auto"
        display="flex"
        flexDirection="column"
        gap="5"
      >
        {sidebar}
      </Box>
      {entry && <EntryPlace>{entry}</EntryPlace>}
    </Grid>
  );
}

export interface SheetProps {
  readonly strip: ReactNode;
  readonly children: ReactNode;
  readonly sidebar?: ReactNode;
  readonly entry?: ReactNode;
}

/** The frame of a page outside jobs: strip above, one column of work, an optional sidebar and entry line. */
export function Sheet({ strip, children, sidebar, entry }: SheetProps) {
  return (
    <Grid
      h={{ lg: '100dvh' }}
      minH="100dvh"
      templateColumns={{ base: '1fr', lg: sidebar ? 'minmax(0, 1fr) 308px' : '1fr' }}
      templateRows="44px minmax(0, 1fr) auto"
    >
      <Box gridColumn="1 / -1">{strip}</Box>
      <Box as="main" px="5" pt="4" pb="6" overflowY="auto" tabIndex={-1}>
        {children}
      </Box>
      {sidebar && (
        <Box
          as="aside"
          tabIndex={0}
          aria-label="What it means"
          bg="ground"
          borderLeft="1px solid"
          borderColor="rule"
          px="4.5"
          py="4"
          overflowY="auto"
          display="flex"
          flexDirection="column"
          gap="5"
        >
          {sidebar}
        </Box>
      )}
      {entry && <EntryPlace>{entry}</EntryPlace>}
    </Grid>
  );
}

/** The entry line's place: across the foot of the page, always in sight. */
const EntryPlace = ({ children }: { children: ReactNode }) => (
  <Box
    gridColumn="1 / -1"
    borderTop="1.5px solid"
    borderColor="ink"
    bg="ground"
    position="sticky"
    bottom="0"
    zIndex="2"
  >
    {children}
  </Box>
);
