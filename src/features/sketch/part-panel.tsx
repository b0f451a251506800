'use client';

import { Flex, Text } from '@chakra-ui/react';
import { PART_KINDS, PART_KIND_WORDS, groundNet, type Board, type Part } from '@/core/board';
import { LAND_PATTERNS, type BoardEdit } from '@/core/sketch';
import { formatOhm } from '@/core/units';
import { Named, PlainButton, SelectBox, SidebarPart } from '@/ui';

const KINDS = PART_KINDS.map((kind) => [kind, PART_KIND_WORDS[kind]] as const);
const ASSUMED = {
  place: 'its place',
  package: 'its package',
  pins: 'which pin is on which net',
  value: 'its value',
} as const;

export interface PartPanelProps {
  readonly board: Board;
  readonly part: Part;
  readonly onEdit: (edit: BoardEdit) => void;
  /** Asks where its first pin is. */
  readonly onFirstPin: () => void;
  readonly onDone: () => void;
}

/** One part: what it is, in what package, on which nets, and what of it is only assumed. */
export function PartPanel({ board, part, onEdit, onFirstPin, onDone }: PartPanelProps) {
  const patterns = [...new Set([part.package, ...LAND_PATTERNS.map((p) => p.name)])].map(
    (name) => [name, name] as const,
  );
  const ground = groundNet(board);
  const nets = [...new Set(Object.values(part.pins))].filter((n) => n !== ground);
  const turn = (by: number): void =>
    onEdit({ kind: 'place', ref: part.ref, xMm: part.xMm, yMm: part.yMm, rotationDeg: part.rotationDeg + by });
  const other = part.side === 'front' ? 'back' : 'front';
  return (
    <SidebarPart title={`${part.ref}, ${part.what}`}>
      {part.assumed && part.assumed.length > 0 && (
        <Text fontSize="14px" color="amberText" mb="2">
          Assumed: {part.assumed.map((a) => ASSUMED[a]).join(', ')}.
        </Text>
      )}
      <Flex direction="column" gap="2" mb="2">
        <Named name="What it is">
          <SelectBox
            value={part.kind}
            options={KINDS}
            onChange={(kind) => onEdit({ kind: 'what', ref: part.ref, part: kind as Part['kind'] })}
          />
        </Named>
        <Named name="Package">
          <SelectBox
            value={part.package}
            options={patterns}
            onChange={(pattern) => onEdit({ kind: 'package', ref: part.ref, pattern })}
          />
        </Named>
      </Flex>
      <Text fontSize="14px" fontFamily="mono" overflowWrap="anywhere">
        {nets
          .slice(0, MOST_NETS)
          .map((net) => netWords(part, net))
          .join(', ')}
        {nets.length > MOST_NETS && ` and ${nets.length - MOST_NETS} more`}
      </Text>
      <Flex gap="2" mt="2.5" wrap="wrap">
        <PlainButton type="button" onClick={() => turn(90)}>
          Turn
        </PlainButton>
        {!part.assumed?.includes('place') && (
          <PlainButton type="button" onClick={onFirstPin}>
            Pin 1 …
          </PlainButton>
        )}
        <PlainButton
          type="button"
          onClick={() => onEdit({ kind: 'place', ref: part.ref, xMm: part.xMm, yMm: part.yMm, side: other })}
        >
          To the {other}
        </PlainButton>
        <PlainButton
          type="button"
          onClick={() => {
            onEdit({ kind: 'remove', ref: part.ref });
            onDone();
          }}
        >
          Not there
        </PlainButton>
        <PlainButton type="button" onClick={onDone}>
          Done
        </PlainButton>
      </Flex>
    </SidebarPart>
  );
}

const MOST_NETS = 14;

/** A net, with the load that the part puts on it and how well that is known. */
function netWords({ loadsOhm, loadsWithin }: Part, net: string): string {
  const ohm = loadsOhm[net];
  if (ohm === undefined) return net;
  const within = loadsWithin?.[net] ?? 1;
  return within > 1.3 ? `${net} ${formatOhm(ohm / within)}–${formatOhm(ohm * within)}` : `${net} ${formatOhm(ohm)}`;
}
