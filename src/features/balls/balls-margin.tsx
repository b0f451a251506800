'use client';

import { Text } from '@chakra-ui/react';
import { partByRef } from '@/core/board';
import type { JobView } from '@/core/job';
import { ALLOYS } from '@/core/joints';
import { FigureLine, MarginPart } from '@/ui';
import { siteRef } from './balls-work';

/** What the arithmetic rests on. */
export function BallsMargin({ job }: { job: JobView }) {
  const part = partByRef(job.board, siteRef(job) ?? '');
  if (!part) return null;
  const { alloy } = job.board;
  const pkg = job.board.packages[part.package];
  return (
    <>
      <MarginPart title={`${part.ref} ${part.what}`}>
        <FigureLine name="Package" value={part.package} />
        <FigureLine name="Body" value={`${pkg.bodyMm[0]} × ${pkg.bodyMm[1]} mm`} />
        <FigureLine name="Alloy as built" value={alloy} />
        <FigureLine name="Liquidus" value={`${ALLOYS[alloy].liquidusC} °C`} />
      </MarginPart>
      <MarginPart title="Rests on">
        <Text fontSize="14px">
          Deposit from aperture, stencil and transfer; area ratio at least 0.66 (IPC-7525). Collapse as a sphere between
          two pads. Half of the centre pad in paste is common practice: more floats the part, less starves it.
        </Text>
      </MarginPart>
      <MarginPart title="Braid">
        <Text fontSize="14px">
          Below 0.5 mm pitch level with the iron: braid pulls pads when it sticks or cools. Above it braid is allowed,
          with flux and heat.
        </Text>
      </MarginPart>
    </>
  );
}
