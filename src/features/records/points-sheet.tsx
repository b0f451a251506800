'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { Flex, Text } from '@chakra-ui/react';
import { measurementOfReference, valueLabel } from '@/core/diagnose';
import { formatAmp } from '@/core/units';
import { PointStrips } from '@/drawings/point-strips';
import { Headline, Named, PlainButton, SelectBox, TextInput } from '@/ui';
import type { PointRecords } from './queries';

const addressOf = (boardId: string | undefined, point?: string, near?: string): string =>
  `/records?view=points&board=${encodeURIComponent(boardId ?? '')}${point === undefined ? '' : `&point=${encodeURIComponent(point)}`}${near ? `&near=${encodeURIComponent(near)}` : ''}`;

/** Every reading ever taken at a point, by what the job turned out to be. */
export function PointsSheet({ records }: { records: PointRecords }) {
  const router = useRouter();
  const { boards, boardId, points, point, name, groups, near } = records;
  const [typed, setTyped] = useState(near ? String(near.value) : '');
  const format = formatOf(point);
  const select = (
    <Flex
      as="form"
      gap="4"
      align="flex-end"
      mb="3"
      wrap="wrap"
      onSubmit={(event) => {
        event.preventDefault();
        router.push(addressOf(boardId, point, typed.trim()));
      }}
    >
      <Named name="Board">
        <SelectBox
          value={boardId ?? ''}
          options={boards.map((b) => [b.id, b.name] as const)}
          onChange={(next) => router.push(addressOf(next))}
        />
      </Named>
      {points.length > 0 && (
        <Named name="Point">
          <SelectBox
            value={point ?? ''}
            options={points.map((p) => [p.point, `${p.name}, ${p.readings}×`] as const)}
            onChange={(next) => router.push(addressOf(boardId, next))}
          />
        </Named>
      )}
      <Named name="It reads here">
        <TextInput
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          w="7em"
          fontFamily="mono"
          inputMode="decimal"
        />
      </Named>
      <PlainButton type="submit">What was it?</PlainButton>
    </Flex>
  );
  if (point === undefined)
    return (
      <>
        <Headline title="Nothing was read on this board in a closed job" aside="0 readings" />
        {select}
      </>
    );
  const [most] = near?.causes ?? [];
  return (
    <>
      <Headline
        title={
          near
            ? most
              ? `${format(near.value)} at ${name}: ${most[1]} of ${near.jobs} were ${most[0]}`
              : `No closed job read ${format(near.value)} at ${name}`
            : `${name}: ${groups.reduce((n, g) => n + g.count, 0)} readings`
        }
        aside={near && near.jobs > 0 && near.jobs < 8 ? 'few jobs: a hint, no rule' : undefined}
      >
        {near && near.causes.length > 1
          ? `The others: ${near.causes
              .slice(1)
              .map(([cause, n]) => `${cause} ${n}×`)
              .join(', ')}.`
          : 'Each mark is one reading; what the job turned out to be stands at the left.'}
      </Headline>
      {select}
      <PointStrips groups={groups} format={format} near={near?.value} />
      <Text mt="3" fontSize="14px" color="quiet">
        Readings on boards that were proven good stand first. What was read between two works is of neither.
      </Text>
    </>
  );
}

/** How the figures of a point are written: as the entry line writes them where its kind compares from board to board; a USB meter's by its current. */
function formatOf(point: string | undefined): (value: number) => string {
  const measurement = point === undefined ? undefined : measurementOfReference(point);
  const figure = (value: number): string => {
    if (point?.startsWith('usb:')) return formatAmp(value);
    return measurement ? valueLabel(measurement, { kind: 'figure', value }) : String(Number(value.toPrecision(3)));
  };
  return (value) => (Number.isFinite(value) ? figure(value) : 'open');
}
