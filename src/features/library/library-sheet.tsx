import { Grid, Link, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { boardMeasurements, singleFaults } from '@/core/diagnose';
import { ColumnHeads, Headline, LIST_WIDTH, PageLink } from '@/ui';
import { BoardUpload } from './board-upload';
import { PackageUpload } from './package-upload';

const COLUMNS = 'minmax(0, 1.4fr) 90px 90px 90px 110px 110px';

/** The boards this bench knows, and what each makes computable. */
export function LibrarySheet({ boards }: { boards: readonly Board[] }) {
  return (
    <>
      <Headline title={`${boards.length} boards`} aside="library">
        A board file carries geometry, nets, rails and functions; every prediction comes from it.
      </Headline>
      <ColumnHeads
        columns={COLUMNS}
        names={['Board', 'Parts', 'Nets', 'Rails', 'Faults known', 'Tests offered']}
        mt="4"
      />
      {boards.map((b) => (
        <Link key={b.id} asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
          <PageLink href={`/library/${b.id}`}>
            <Grid
              templateColumns={COLUMNS}
              minW={LIST_WIDTH}
              columnGap="4"
              alignItems="baseline"
              py="2.5"
              borderBottom="1px solid"
              borderColor="rule"
              fontFamily="mono"
            >
              <Text as="span" fontFamily="body">
                <strong>{b.device}</strong>, {b.name}, revision {b.revision}
              </Text>
              <span>{b.parts.length}</span>
              <span>{Object.keys(b.nets).length}</span>
              <span>{b.rails.length}</span>
              <span>{singleFaults(b).length}</span>
              <span>{boardMeasurements(b).length}</span>
            </Grid>
          </PageLink>
        </Link>
      ))}
      <BoardUpload />
      <PackageUpload />
      <Text mt="3">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/draft">Make a board from a netlist</PageLink>
        </Link>
        <Text as="span" color="quiet" fontSize="14px" ml="3">
          IPC-D-356 and a placement list
        </Text>
      </Text>
      <Text mt="3">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/sketch">Begin a board that nobody has a file of</PageLink>
        </Link>
        <Text as="span" color="quiet" fontSize="14px" ml="3">
          eight questions, two photographs, and what you read
        </Text>
      </Text>
      <Text mt="6">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/parts">
            Part types, what was reported of them, and the rules of their families
          </PageLink>
        </Link>
      </Text>
      <Text mt="3">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/images">Images: compared side by side, and the maps of their families</PageLink>
        </Link>
      </Text>
      <Text mt="3">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/stations">Hot-air stations and their calibration</PageLink>
        </Link>
      </Text>
      <Text mt="3">
        <Link asChild color="copperText" textDecoration="underline">
          <PageLink href="/library/practice">What this bench has settled: errors, story, parts and money</PageLink>
        </Link>
      </Text>
    </>
  );
}
