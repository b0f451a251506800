'use client';

import { Flex, Link, Text } from '@chakra-ui/react';
import { curvesCsv, planLink } from '@/core/heat';
import { SidebarPart } from '@/ui';
import { useHeatDesk } from './desk';

/** What leaves the screen: a card for the wall, all curves, the plan, and an address that opens it again. */
export function ExportPart() {
  const { job, plan, station, last, kept } = useHeatDesk();
  if (!last) return null;
  const file = (type: string, text: string): string => `data:${type};charset=utf-8,${encodeURIComponent(text)}`;
  const name = `job-${job.number}-${plan.partRef.toLowerCase()}`;
  return (
    <SidebarPart title="To the bench">
      <Flex direction="column" gap="1" fontSize="14px" color="copperText" textDecoration="underline">
        {kept ? (
          <Link href={`/jobs/${job.number}/heat/card.pdf`} target="_blank" color="copperText">
            Card for the wall, PDF
          </Link>
        ) : (
          <Text color="quiet" textDecoration="none">
            Keep the plan for its card.
          </Text>
        )}
        <Link href={file('text/csv', curvesCsv(last.run))} download={`${name}.csv`} color="copperText">
          All curves, CSV
        </Link>
        <Link
          href={file('application/json', JSON.stringify(plan, null, 2))}
          download={`${name}.json`}
          color="copperText"
        >
          Plan file, JSON
        </Link>
        <Link href={planLink(plan, station.id)} color="copperText">
          Address of this plan
        </Link>
      </Flex>
    </SidebarPart>
  );
}
