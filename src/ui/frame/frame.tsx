import type { ReactNode } from 'react';
import { Box, Flex, Grid } from '@chakra-ui/react';

/** The height of the window, whatever the scale of what is drawn in it. */
const WINDOW = 'calc(100dvh / var(--scale, 1))';
/** As wide as there is room: what is wider scrolls in it and does not push the page. */
const ONE_COLUMN = 'minmax(0, 1fr)';
/** At an arm's length: the work, and what it means. */
const FAR_COLUMNS = 'minmax(0, 1fr) 230px';

export interface FrameProps {
  readonly strip: ReactNode;
  readonly path: ReactNode;
  readonly work: ReactNode;
  readonly sidebar: ReactNode;
  /** The one caution of this step, below the sidebar and always in sight. */
  readonly caution?: ReactNode;
  readonly entry?: ReactNode;
}

/** The frame of a job: strip above, path left, work in the middle, sidebar right, entry line below. */
export function Frame({ strip, path, work, sidebar, caution, entry }: FrameProps) {
  return (
    <Grid
      h={{ lg: WINDOW }}
      minH={WINDOW}
      templateColumns={{ base: ONE_COLUMN, lg: `196px ${ONE_COLUMN} 308px` }}
      templateRows={{ base: 'auto', lg: '44px minmax(0, 1fr) auto' }}
      css={{ 'html[data-far] &': { gridTemplateColumns: FAR_COLUMNS, '& > nav': { display: 'none' } } }}
    >
      <Box gridColumn="1 / -1">{strip}</Box>
      <Box
        as="nav"
        aria-label="The path"
        borderRight={{ lg: '1px solid' }}
        borderColor={{ lg: 'rule' }}
        overflowY="auto"
        pt={{ base: '1.5', lg: '3' }}
        display={{ base: 'flex', lg: 'block' }}
        flexWrap="wrap"
        borderBottom={{ base: '1px solid', lg: 'none' }}
        borderBottomColor="rule"
      >
        {path}
      </Box>
      <Box as="main" px="5" pt="4" pb="3" overflowY="auto" tabIndex={-1} display="flex" flexDirection="column" minH="0">
        {work}
      </Box>
      <Sidebar caution={caution}>{sidebar}</Sidebar>
      {entry && <EntryPlace>{entry}</EntryPlace>}
    </Grid>
  );
}

/** What it means: scrolls by itself; the caution has a row of its own below, so that it never covers anything. */
const Sidebar = ({ caution, children }: { caution: ReactNode; children: ReactNode }) => (
  <Flex
    as="aside"
    aria-label="What it means"
    direction="column"
    minH="0"
    bg="ground"
    borderLeft={{ lg: '1px solid' }}
    borderColor={{ lg: 'rule' }}
  >
    <Flex
      tabIndex={0}
      role="region"
      aria-label="What it means, in full"
      direction="column"
      gap="5"
      flex="1"
      minH="0"
      px="4.5"
      py="4"
      overflowY="auto"
    >
      {children}
    </Flex>
    {caution && (
      <Box px="4.5" py="3" borderTop="1px solid" borderColor="rule">
        {caution}
      </Box>
    )}
  </Flex>
);

export interface SheetProps {
  readonly strip: ReactNode;
  readonly children: ReactNode;
  readonly sidebar?: ReactNode;
  readonly caution?: ReactNode;
  readonly entry?: ReactNode;
}

/** The frame of a page outside jobs: strip above, one column of work, an optional sidebar and entry line. */
export function Sheet({ strip, children, sidebar, caution, entry }: SheetProps) {
  return (
    <Grid
      h={{ lg: WINDOW }}
      minH={WINDOW}
      templateColumns={{ base: ONE_COLUMN, lg: sidebar ? `${ONE_COLUMN} 308px` : ONE_COLUMN }}
      templateRows={{ base: 'auto minmax(0, 1fr) auto', lg: '44px minmax(0, 1fr) auto' }}
      css={sidebar ? { 'html[data-far] &': { gridTemplateColumns: FAR_COLUMNS } } : undefined}
    >
      <Box gridColumn="1 / -1">{strip}</Box>
      <Box as="main" px="5" pt="4" pb="6" overflowY="auto" tabIndex={-1}>
        {children}
      </Box>
      {sidebar && <Sidebar caution={caution}>{sidebar}</Sidebar>}
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
