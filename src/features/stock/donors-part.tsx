import { Box, Flex, Text } from '@chakra-ui/react';
import { Headline } from '@/ui';
import type { Shelf } from './queries';
import type { DonorRow } from './view';

/** Donor boards: what was seen to work on them before opening, and what they still carry. */
export function DonorsPart({ shelf: { donors } }: { shelf: Shelf }) {
  const whole = donors.filter((d) => !d.opened);
  const unproven = whole.filter((d) => !d.proven.some((p) => p.worked));
  return (
    <>
      <Headline title={`${whole.length} donors whole, ${donors.length - whole.length} opened`} aside="donors">
        {unproven.length > 0
          ? `Prove before opening: ${unproven.map((d) => d.id).join(', ')}. “${unproven[0].id.toLowerCase()} works charge” keeps what was seen.`
          : 'Every whole donor has been seen to work.'}
      </Headline>
      {donors.map((donor) => (
        <DonorLine key={donor.id} donor={donor} />
      ))}
      {donors.length === 0 && <Text color="quiet">No donors yet. “donor marshdesk-2-b at 48” takes one in.</Text>}
    </>
  );
}

function DonorLine({ donor: { id, board, price, note, opened, parts, proven } }: { donor: DonorRow }) {
  return (
    <Box as="section" aria-label={`Donor ${id}`} py="3" borderBottom="1px solid" borderColor="rule">
      <Flex gap="4" align="baseline" wrap="wrap">
        <Text as="h2" fontFamily="mono" fontWeight="700" fontSize="20px">
          {id}
        </Text>
        <span>{board}</span>
        {note && (
          <Text as="span" color="quiet">
            {note}
          </Text>
        )}
        <Text as="span" ml="auto" fontFamily="mono" fontWeight="700" fontSize="17px">
          {opened ? 'opened' : price.toFixed(0)}
        </Text>
      </Flex>
      <Flex gap="2" mt="1.5" wrap="wrap">
        {parts.map((p) => (
          <Box key={p.ref} border="1px solid" borderColor={p.sound ? 'quiet' : 'rust'} px="2" py="0.5" fontSize="14px">
            <Text as="span" fontFamily="mono" fontWeight="700">
              {p.ref}
            </Text>{' '}
            <Text as="span" color={p.sound ? 'ink' : 'rust'}>
              {p.typeId}
              {p.sound ? '' : ', suspect'}
            </Text>
          </Box>
        ))}
        {parts.length === 0 && <Text color="quiet">Nothing left on it.</Text>}
      </Flex>
      <Text fontSize="14px" mt="1.5">
        {proven.length === 0 ? (
          <Text as="span" color="amberText">
            △ Nothing seen to work on it yet.
          </Text>
        ) : (
          proven.map((p, i) => (
            <Text as="span" key={p.fn} color={p.worked ? 'leaf' : 'rust'}>
              {i > 0 && ' · '}
              {p.what}: {p.worked ? 'works' : 'fails'}
            </Text>
          ))
        )}
      </Text>
    </Box>
  );
}
