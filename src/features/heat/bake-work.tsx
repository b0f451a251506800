'use client';

import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import { hoursWords, type BakeWay, type MoistureState } from '@/core/parts';
import { supplyId } from '@/core/stock';
import { Headline } from '@/ui';
import { useHeatDesk } from './desk';

/** A lot or a chip of the stock with its moisture clock. */
export interface Bakeable {
  readonly id: string;
  readonly what: string;
  readonly where: string;
  readonly moisture?: MoistureState & { readonly level: string; readonly bakeWays: readonly BakeWay[] };
}

/** What has to be dried before it meets hot air: first the chip that was chosen for this job, then the rest of the stock. */
export function BakeWork({ stock }: { stock: readonly Bakeable[] }) {
  const { job } = useHeatDesk();
  const { route } = job.state;
  const offer = route && supplyId(route.supply);
  const chosen = stock.find((s) => s.id === offer);
  const others = stock.filter((s) => s !== chosen && s.moisture?.bake);
  return (
    <>
      <Headline title={titleOf(offer, chosen)} aside={chosen?.where}>
        Water in a plastic package turns to steam at soldering heat and cracks it. Tables for bodies up to 1.4 mm; the
        maker’s label comes first.
      </Headline>
      {chosen?.moisture?.bake && <Ways item={chosen} />}
      <Text fontWeight="700" mt="5" mb="1">
        {others.length > 0 ? 'Also due before use' : 'Nothing else in the stock waits for a bake'}
      </Text>
      {others.map((item) => (
        <Ways key={item.id} item={item} />
      ))}
    </>
  );
}

function titleOf(offer: string | undefined, chosen: Bakeable | undefined): string {
  if (!offer) return 'No chip is chosen yet: Decide says which';
  if (!chosen) return `${offer} is not in the stock: its label says whether it is baked`;
  if (!chosen.moisture) return `${chosen.id}: moisture level not known, bake as its label says`;
  if (!chosen.moisture.bake) return `${chosen.id} goes as it is`;
  const [way] = chosen.moisture.bakeWays;
  return way ? `Bake ${chosen.id} ${hoursWords(way.hours)} at ${way.tempC} °C` : `Bake ${chosen.id} as its label says`;
}

function Ways({ item: { id, what, where, moisture } }: { item: Bakeable }) {
  return (
    <Flex as="section" aria-label={id} gap="4" py="2" borderBottom="1px solid" borderColor="rule" align="baseline">
      <Box w="170px" flexShrink="0">
        <Text fontFamily="mono" fontWeight="700">
          {id}
        </Text>
        <Text fontSize="13px" color="quiet">
          {what}, {where}
        </Text>
      </Box>
      <Text fontSize="14px" w="110px" flexShrink="0">
        level {moisture!.level},{' '}
        {moisture!.unknown ? 'history not known' : `open for ${hoursWords(moisture!.exposedH)}`}
      </Text>
      <Box fontSize="14px">
        {moisture!.bakeWays.length === 0 && <Text>Thicker than the table: as its label says.</Text>}
        {moisture!.bakeWays.map(({ tempC, hours, needs }) => (
          <Grid key={tempC} templateColumns="4.5em 5em 1fr" gap="2" mb="0.5">
            <Text as="span" fontFamily="mono" fontWeight="700">
              {tempC} °C
            </Text>
            <Text as="span">{hoursWords(hours)}</Text>
            <Text as="span" color="quiet">
              {needs}
            </Text>
          </Grid>
        ))}
      </Box>
    </Flex>
  );
}
