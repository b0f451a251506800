'use client';

import type { ReactNode } from 'react';
import { Flex, Text, chakra } from '@chakra-ui/react';
import { CHECKSUMS } from '@/core/checksum';
import { REGION_MEANINGS, type Region } from '@/core/image';
import { PlainButton, SelectBox, TextInput } from '@/ui';
import type { DraftRegion, MapDraft } from './map-draft';

const ALGORITHMS = CHECKSUMS.map((c) => [c.name, c.name] as const);
const MEANINGS = REGION_MEANINGS.map((m) => [m, m] as const);

/** The regions as they are typed, one a line; what more belongs to a region depends on its meaning. */
export function MapTable({
  draft,
  onDraft,
  onGo,
}: {
  draft: MapDraft;
  onDraft: (draft: MapDraft) => void;
  onGo: (offset: number) => void;
}) {
  const change = (k: number, more: Partial<DraftRegion>): void =>
    onDraft({ ...draft, regions: draft.regions.map((r, i) => (i === k ? { ...r, ...more } : r)) });
  return (
    <chakra.table w="100%" mt="3" fontSize="14px" css={{ borderCollapse: 'collapse' }} aria-label="Regions">
      <chakra.thead>
        <chakra.tr color="quiet" fontSize="13px" textAlign="left">
          {['Region', 'Offset, hex', 'Length, hex', 'Meaning', 'More', ''].map((h) => (
            <chakra.th key={h} fontWeight="700" pb="1" borderBottom="1px solid" borderColor="rule">
              {h}
            </chakra.th>
          ))}
        </chakra.tr>
      </chakra.thead>
      <chakra.tbody>
        {draft.regions.map((r, k) => (
          <chakra.tr key={k} borderBottom="1px solid" borderColor="rule">
            <Cell>
              <TextInput
                aria-label={`Name of region ${k + 1}`}
                w="11em"
                value={r.name}
                onChange={(e) => change(k, { name: e.target.value })}
              />
            </Cell>
            <Cell>
              <Figure label={`Offset of ${r.name}`} value={r.offset} onChange={(offset) => change(k, { offset })} />
            </Cell>
            <Cell>
              <Figure label={`Length of ${r.name}`} value={r.length} onChange={(length) => change(k, { length })} />
            </Cell>
            <Cell>
              <SelectBox
                label={`Meaning of ${r.name}`}
                value={r.meaning}
                options={MEANINGS}
                onChange={(meaning) => change(k, { meaning: meaning as Region['meaning'] })}
              />
            </Cell>
            <Cell>
              <More region={r} draft={draft} onChange={(more) => change(k, more)} />
            </Cell>
            <Cell>
              <Flex gap="1" justify="end">
                <PlainButton
                  type="button"
                  px="2"
                  py="0"
                  aria-label={`Show ${r.name}`}
                  onClick={() => onGo(parseInt(r.offset, 16) || 0)}
                >
                  show
                </PlainButton>
                <PlainButton
                  type="button"
                  px="2"
                  py="0"
                  aria-label={`Remove ${r.name}`}
                  onClick={() => onDraft({ ...draft, regions: draft.regions.filter((_, i) => i !== k) })}
                >
                  out
                </PlainButton>
              </Flex>
            </Cell>
          </chakra.tr>
        ))}
      </chakra.tbody>
    </chakra.table>
  );
}

const Cell = ({ children }: { children: ReactNode }) => (
  <chakra.td py="0.5" pr="2">
    {children}
  </chakra.td>
);

const Figure = ({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) => (
  <TextInput aria-label={label} w="5.5em" fontFamily="mono" value={value} onChange={(e) => onChange(e.target.value)} />
);

function More({
  region: r,
  draft,
  onChange,
}: {
  region: DraftRegion;
  draft: MapDraft;
  onChange: (more: Partial<DraftRegion>) => void;
}) {
  if (r.meaning === 'checksum') {
    return (
      <Flex gap="1" align="baseline" wrap="wrap">
        <SelectBox
          label={`Algorithm of ${r.name}`}
          value={r.algorithm}
          options={ALGORITHMS}
          onChange={(algorithm) => onChange({ algorithm })}
        />
        <Text as="span" color="quiet">
          of
        </Text>
        <Figure
          label={`Start of the range of ${r.name}`}
          value={r.coversFrom}
          onChange={(coversFrom) => onChange({ coversFrom })}
        />
        <Text as="span" color="quiet">
          for
        </Text>
        <Figure
          label={`Length of the range of ${r.name}`}
          value={r.coversLength}
          onChange={(coversLength) => onChange({ coversLength })}
        />
        <SelectBox
          label={`Byte order of ${r.name}`}
          value={r.bigEndian ? 'high' : 'low'}
          options={[
            ['low', 'low first'],
            ['high', 'high first'],
          ]}
          onChange={(order) => onChange({ bigEndian: order === 'high' })}
        />
      </Flex>
    );
  }
  if (r.meaning === 'settings') {
    return (
      <Flex gap="1" align="baseline">
        <Text as="span" color="quiet">
          only for position
        </Text>
        <TextInput
          aria-label={`Position of ${r.name}`}
          w="4em"
          fontFamily="mono"
          placeholder="any"
          value={r.position}
          onChange={(e) => onChange({ position: e.target.value })}
        />
      </Flex>
    );
  }
  if (r.meaning !== 'code') return null;
  const others = draft.regions.filter(
    (o) => o !== r && o.meaning === 'code' && o.length === r.length && o.copyOf === '',
  );
  if (others.length === 0 && r.copyOf === '') return null;
  return (
    <SelectBox
      label={`What ${r.name} repeats`}
      value={r.copyOf}
      options={[['', 'by itself'], ...others.map((o) => [o.name, `repeats ${o.name}`] as const)]}
      onChange={(copyOf) => onChange({ copyOf })}
    />
  );
}
