import { Box, Text, chakra } from '@chakra-ui/react';
import { firstFew, type BoardDraft } from '@/core/netlist';

/** What names, pin counts and topology say of the board, each with its reason: it stands in the form below, to be confirmed or changed. */
export function InferredPart({ draft }: { readonly draft: BoardDraft }) {
  const lines = linesOf(draft);
  return (
    <Box as="section" aria-label="What was inferred" borderLeft="3px solid" borderColor="copper" pl="3" my="3">
      <Text fontWeight="700">Inferred from names, pin counts and wiring. Confirm it below.</Text>
      <chakra.dl display="grid" gridTemplateColumns="8em 1fr" columnGap="4" fontSize="15px">
        {lines.map(({ what, found, why }) => (
          <Box key={what} display="contents">
            <chakra.dt color="quiet">{what}</chakra.dt>
            <chakra.dd>
              <strong>{found}</strong> <chakra.span color="quiet">{why}</chakra.span>
            </chakra.dd>
          </Box>
        ))}
      </chakra.dl>
    </Box>
  );
}

interface Line {
  readonly what: string;
  readonly found: string;
  readonly why: string;
}

function linesOf({ inference: { ground, groundDoubt, ports, rails: all }, near, assumed }: BoardDraft): Line[] {
  const rails = near?.rails ?? all;
  const sourceless = rails.filter((r) => r.from === undefined && r.volts !== 'bus').length;
  return [
    {
      what: 'Ground',
      found: ground ?? 'not told',
      why: groundDoubt ?? (ground ? 'by its name' : 'no net is named or wired so'),
    },
    ...ports.map((p, i) => ({
      what: ports.length > 1 ? `Port ${i + 1}` : 'Port',
      found: `${p.connector}, bus ${p.bus}, CC ${p.cc1} and ${p.cc2}`,
      why: p.why,
    })),
    ...ports.map((p, i) => ({
      what: ports.length > 1 ? `Chips of port ${i + 1}` : 'Its chips',
      found: `${p.controller ?? 'no controller told'}${p.flash === undefined ? '' : `, image in ${p.flash}`}`,
      why: p.controller === undefined ? '' : 'on both CC lines',
    })),
    {
      what: 'Rails',
      found:
        rails.map((r) => `${r.net}${typeof r.volts === 'number' ? ` ${r.volts} V` : ''}`).join(', ') || 'none told',
      why: sourceless === 0 ? '' : `${sourceless} without a source`,
    },
    ...beyondLines(near, assumed),
  ];
}

/** What nobody is asked of a large board. */
function beyondLines(near: BoardDraft['near'], assumed: BoardDraft['assumed']): Line[] {
  if (!near) return [];
  const { railsBeyond } = near;
  return [
    {
      what: 'Near the port',
      found: `${near.parts.size} parts`,
      why: 'only these are asked about; the rest counts as bodies under hot air and as what pulls at its nets',
    },
    ...(railsBeyond.length === 0
      ? []
      : [
          {
            what: 'Further off',
            found: `${railsBeyond.length} supplies`,
            why: `of no known volts, they count as loads: ${firstFew(railsBeyond.map((r) => r.net))}; add one below where it matters`,
          },
        ]),
    ...(assumed.length === 0
      ? []
      : [
          {
            what: '',
            found: `${assumed.length} resistors`,
            why: 'have no value in the file and are assumed to have 10 kΩ; a bill of material gives theirs',
          },
        ]),
  ];
}
