'use client';

import { Link, Text } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { unplacedParts } from '@/core/heat';
import { PageLink } from '@/ui';

const MOST_NAMED = 8;

/** On a sketch: what a plan knows nothing of, because nobody has said where it lies. */
export function UnplacedNote({ board, partRef }: { board: Board; partRef: string }) {
  const unplaced = unplacedParts(board);
  if (unplaced.length === 0) return null;
  const others = unplaced.filter((ref) => ref !== partRef);
  const named = others.slice(0, MOST_NAMED).join(', ');
  const more = others.length > MOST_NAMED ? ` and ${others.length - MOST_NAMED} more` : '';
  return (
    <Text role="note" fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3" mb="3">
      {unplaced.includes(partRef) &&
        `Nobody has said where ${partRef} lies: this plan is for where such a part mostly sits. `}
      {others.length > 0 && `Not in this plan, for want of a place: ${named}${more}. `}
      <Link asChild color="copperText" textDecoration="underline">
        <PageLink href={`/library/${board.id}/edit`}>Lay them on the board</PageLink>
      </Link>
    </Text>
  );
}
