import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { LotArrivals } from '@/core/stock';
import { formatChance } from '@/core/units';
import { ColumnHeads, Headline, Money, LIST_WIDTH, PageLink } from '@/ui';
import { MoistureLine } from './moisture-line';
import type { Shelf } from './queries';
import type { Tray } from './view';

const LOT_COLUMNS = '70px minmax(0, 1.2fr) 60px 70px minmax(0, 1.4fr)';
const CHIP_COLUMNS = '76px minmax(0, 1.3fr) minmax(0, 1.1fr) minmax(0, 1.3fr)';

/** Lots with their clocks, and every loose chip in the tray where it belongs. */
export function ShelfPart({ shelf: { lots, arrivals, trays, reorders } }: { shelf: Shelf }) {
  const loose = trays.reduce((sum, t) => sum + t.chips.length, 0);
  const bakes = lots.filter((l) => l.left > 0 && l.moisture?.bake);
  const orders = reorders.filter((r) => r.order);
  return (
    <>
      <Headline title={shelfTitle(orders, bakes, loose)} aside={`${lots.filter((l) => l.left > 0).length} lots`}>
        {`${loose} loose ${loose === 1 ? 'chip' : 'chips'} in ${trays.length} ${trays.length === 1 ? 'tray' : 'trays'}.`}
        {bakes.length > 0 && orders.length > 0 && ` Bake before use: ${names(bakes)}.`}
      </Headline>
      <ColumnHeads columns={LOT_COLUMNS} names={['Lot', 'Part type', 'Left', 'Each', 'Moisture']} mt="3" />
      {lots.map((lot) => (
        <Grid
          key={lot.id}
          templateColumns={LOT_COLUMNS}
          minW={LIST_WIDTH}
          columnGap="4"
          alignItems="baseline"
          py="1.5"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text as="span" fontFamily="mono" fontWeight="700">
            {lot.id}
          </Text>
          <span>
            <Text as="span" fontFamily="mono">
              {lot.typeId}
            </Text>{' '}
            <Text as="span" color="quiet" fontSize="14px">
              {lot.what}
            </Text>
            <ArrivalLine arrivals={arrivals.get(lot.id)} />
          </span>
          <Text as="span" fontFamily="mono" fontWeight="700" fontSize="17px">
            {lot.left}
          </Text>
          <Text as="span" fontFamily="mono">
            <Money amount={lot.unitPrice} />
          </Text>
          <Text as="span" fontSize="14px">
            <MoistureLine moisture={lot.moisture} />
          </Text>
        </Grid>
      ))}
      <Flex gap="3" align="baseline" mt="6" mb="1">
        <Text as="h2" fontSize="18px" fontWeight="700">
          Trays
        </Text>
        <Link asChild color="copperText" textDecoration="underline" fontSize="14px">
          <PageLink href="/stock/labels">Print labels</PageLink>
        </Link>
      </Flex>
      {trays.map((tray) => (
        <TrayPart key={tray.id} tray={tray} />
      ))}
      {trays.length === 0 && <Text color="quiet">No loose chips. “take l-12 for 31” takes one out of a lot.</Text>}
    </>
  );
}

/** How many chips of a lot that were fitted turned out dead, and what that says of the rest. */
function ArrivalLine({ arrivals }: { arrivals?: LotArrivals }) {
  if (!arrivals || arrivals.tried === 0) return null;
  const { tried, dead, low, high } = arrivals;
  return (
    <Text as="span" display="block" fontSize="13px" color={dead > 0 ? 'amberText' : 'quiet'}>
      {dead} of {tried} fitted and proven dead on arrival: {formatChance(low)} to {formatChance(high)} of the rest
    </Text>
  );
}

const names = (rows: readonly { readonly id?: string; readonly typeId: string }[]): string =>
  rows.map((r) => [r.id, r.typeId].filter(Boolean).join(' ')).join(', ');

/** What to do about the shelf, the most pressing first. */
function shelfTitle(orders: Shelf['reorders'], bakes: Shelf['lots'], loose: number): string {
  if (orders.length > 0) return `Order ${orders.map((o) => o.typeId).join(', ')}`;
  if (bakes.length > 0) return `Bake before use: ${names(bakes)}`;
  return loose > 0 ? 'Everything on the shelf is ready' : 'Nothing lies loose';
}

const TRAY_COLOUR = { drawer: 'tin', donor: 'tin', patient: 'copper', bag: 'leaf' } as const;
const TRAY_WORDS = { drawer: 'new', donor: 'donor chips', patient: 'patient’s own chips', bag: 'set aside' } as const;

function TrayPart({ tray }: { tray: Tray }) {
  return (
    <Box as="section" aria-label={tray.title} borderLeft="4px solid" borderColor={TRAY_COLOUR[tray.kind]} pl="3" mb="4">
      <Text fontWeight="700">
        {tray.title}{' '}
        <Text as="span" color="quiet" fontSize="14px" fontWeight="400">
          {TRAY_WORDS[tray.kind]}
        </Text>
      </Text>
      {tray.chips.map((c) => (
        <Grid
          key={c.id}
          templateColumns={CHIP_COLUMNS}
          minW={LIST_WIDTH}
          columnGap="4"
          alignItems="baseline"
          py="1"
          fontSize="15px"
        >
          <Text as="span" fontFamily="mono" fontWeight="700">
            {c.id}
          </Text>
          <span>
            <Text as="span" fontFamily="mono">
              {c.typeId}
            </Text>
            {c.condition !== 'sound' && (
              <Text as="span" color={c.condition === 'dead' ? 'rust' : 'amberText'} fontWeight="700">
                {' '}
                {c.condition}
              </Text>
            )}
            {c.reballed && (
              <Text as="span" color="quiet" fontSize="14px">
                {' '}
                reballed
              </Text>
            )}
          </span>
          <Text as="span" color="quiet" fontSize="14px">
            {c.origin}
            {c.partners.length > 0 && `, pair with ${c.partners.join(', ')}`}
            {c.parted && `, parted: ${c.parted}`}
          </Text>
          <Text as="span" fontSize="14px">
            {c.condition === 'dead' ? '' : <MoistureLine moisture={c.moisture} />}
          </Text>
        </Grid>
      ))}
    </Box>
  );
}
