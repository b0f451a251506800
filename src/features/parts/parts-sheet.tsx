import type { ReactNode } from 'react';
import { Box, Grid, Link, Text } from '@chakra-ui/react';
import { PART_KIND_WORDS } from '@/core/board';
import { SOURCE_WORDS, type PartType } from '@/core/parts';
import { ColumnHeads, Headline, Money, LIST_WIDTH, PageLink } from '@/ui';
import { EvidenceForm } from './evidence-form';
import { FamilyForm } from './family-form';
import { PartUpload } from './part-upload';
import type { Parts } from './queries';
import { ReportForm } from './report-form';

const COLUMNS = 'minmax(0, 1.3fr) minmax(0, 1.4fr) 70px 80px 80px 80px 70px';

/** The part types this bench knows, by family; one is open with its profile, its family's rules, and what was reported of it. */
export function PartsSheet({ parts, asked }: { parts: Parts; asked: string | undefined }) {
  const { types, families } = parts;
  const open = types.find((t) => t.id === asked);
  const sorted = [...types].sort((a, b) => a.family.localeCompare(b.family) || a.order - b.order);
  return (
    <>
      <Headline
        title={`${types.length} part types in ${new Set(types.map((t) => t.family)).size} families`}
        aside="part types"
      >
        What is not known of a type is left out of its profile, and counts as not known: it is never taken for alike.
      </Headline>
      <ColumnHeads
        columns={COLUMNS}
        names={['Type', 'What', 'Revision', 'Position', 'Partner', 'Moisture', 'Reports']}
        mt="3"
      />
      {sorted.map((type) => (
        <Box key={type.id} borderBottom="1px solid" borderColor="rule">
          <TypeLine type={type} parts={parts} open={type === open} />
          {type === open && (
            <TypeDetail
              type={type}
              parts={parts}
              family={
                families.find((f) => f.id === type.family) ?? {
                  format: 'unisolda-part-family/1',
                  id: type.family,
                  name: type.family,
                  rules: {},
                }
              }
            />
          )}
        </Box>
      ))}
      <PartUpload />
      <EvidenceForm practice={parts.practice} />
    </>
  );
}

function TypeLine({ type, parts, open }: { type: PartType; parts: Parts; open: boolean }) {
  const reports = parts.reports.filter((r) => r.typeId === type.id);
  return (
    <Link asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
      <PageLink href={open ? '/library/parts' : `/library/parts?type=${type.id}`} scroll={false} aria-expanded={open}>
        <Grid templateColumns={COLUMNS} minW={LIST_WIDTH} columnGap="4" alignItems="baseline" py="2">
          <Text as="span" fontFamily="mono" fontWeight="700">
            {type.id}
          </Text>
          <span>{type.what}</span>
          <span>{type.revision}</span>
          <span>{type.position ?? 'unknown'}</span>
          <span>{type.partner === undefined ? 'unknown' : (type.partner ?? 'free')}</span>
          <span>{type.moisture ? `level ${type.moisture}` : 'unknown'}</span>
          <Text as="span" fontFamily="mono">
            {reports.length === 0 ? 'none' : `${reports.filter((r) => r.worked).length} of ${reports.length}`}
          </Text>
        </Grid>
      </PageLink>
    </Link>
  );
}

function TypeDetail({ type, parts, family }: { type: PartType; parts: Parts; family: Parts['families'][number] }) {
  const reports = parts.reports.filter((r) => r.typeId === type.id).reverse();
  return (
    <Grid
      templateColumns={{ base: '1fr', lg: '1fr 1fr 1fr' }}
      gap="6"
      pb="5"
      pt="2"
      pl="3"
      borderLeft="3px solid"
      borderColor="copper"
      fontSize="14px"
    >
      <Box>
        <Title>Profile</Title>
        <Fact name="Kind" value={PART_KIND_WORDS[type.kind]} />
        <Fact name="Package" value={type.package} />
        <Fact name="Thickness" value={type.thicknessMm === undefined ? undefined : `${type.thicknessMm} mm`} />
        <Fact name="Pins known" value={type.pins && String(Object.keys(type.pins).length)} />
        <Fact name="Supply" value={type.supplyV?.map((v) => `${v} V`).join(' to ')} />
        <Fact name="Image" value={type.imageFamily === null ? 'none' : type.imageFamily} />
        {type.strapCode && (
          <Fact
            name={`Straps, ${type.strapCode.bins} bins`}
            value={Object.entries(type.strapCode.positions)
              .map(([position, bin]) => `${position}: ${bin}`)
              .join(', ')}
          />
        )}
        <Fact name="Body bears" value={type.bodyLimitC === undefined ? undefined : `${type.bodyLimitC} °C`} />
        <Fact name="New" value={type.price === undefined ? 'cannot be bought' : <Money amount={type.price} />} />
      </Box>
      <Box>
        <Title>Reports</Title>
        {reports.map((r, i) => (
          <Text key={i} mb="0.5">
            {r.date}, {r.ref} of {r.boardId}, {SOURCE_WORDS[r.source]}:{' '}
            <Text as="span" color={r.worked ? 'leaf' : 'rust'} fontWeight="700">
              {r.worked ? 'worked' : 'did not work'}
            </Text>
            {r.note && `, ${r.note}`}
          </Text>
        ))}
        {reports.length === 0 && <Text color="quiet">None yet.</Text>}
        <ReportForm type={type} places={placesFor(type, parts)} />
      </Box>
      <Box>
        <Title>{family.name}</Title>
        <FamilyForm family={family} />
      </Box>
    </Grid>
  );
}

/** Places for this kind of part, those of its own family first. */
function placesFor(type: PartType, { places, types }: Parts): Parts['places'] {
  const byId = new Map(types.map((t) => [t.id, t]));
  const alike = places.filter((p) => byId.get(p.type)?.kind === type.kind);
  const isOwn = (p: Parts['places'][number]): boolean => byId.get(p.type)?.family === type.family;
  return [...alike.filter(isOwn), ...alike.filter((p) => !isOwn(p))];
}

const Title = ({ children }: { children: React.ReactNode }) => (
  <Text fontSize="13px" fontWeight="700" color="quiet" mb="1">
    {children}
  </Text>
);

const Fact = ({ name, value }: { name: string; value: ReactNode }) => (
  <Text>
    {name}:{' '}
    <Text as="span" fontFamily="mono" color={value === undefined ? 'amberText' : 'ink'}>
      {value ?? 'not known'}
    </Text>
  </Text>
);
