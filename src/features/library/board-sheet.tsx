'use client';

import { useState, type ReactNode } from 'react';
import { Flex, Link, Text } from '@chakra-ui/react';
import { findPlace, padsOf, partByRef, type Board } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import { BoardDrawing, type BoardDrawingProps } from '@/drawings/board-drawing';
import { FigureLine, Headline, PageLink, SidebarPart } from '@/ui';
import { ReferencePart, type ReferenceImport } from './reference-part';

/** A board as a drawing; a click on a part says what it is and where its pins go. */
export function BoardSheet({ board, photos }: { board: Board; photos?: BoardDrawingProps['photos'] }) {
  const [picked, setPicked] = useState<string>();
  const part = picked ? partByRef(board, picked) : undefined;
  const place = picked ? findPlace(board, picked) : undefined;
  return (
    <Flex direction="column" h="100%" minH="560px">
      <Headline
        title={part ? `${part.ref}, ${part.what}` : `${board.device}, ${board.name}`}
        aside={`revision ${board.revision}`}
      >
        {part
          ? `${part.package}, ${padsOf(board, part).length} pads at ${part.xMm}, ${part.yMm} mm, ${part.side} side. ${[...new Set(Object.values(part.pins))].join(', ')}.`
          : `${board.parts.length} parts, ${board.rails.length} rails. Click a part to read its pins; wheel zooms, drag pans.`}
      </Headline>
      <Flex flex="1" gap="5" minH="0">
        <BoardDrawing
          board={board}
          marks={
            place && !part
              ? [{ ...place, state: 'asked' }]
              : board.points.map((p) => ({ name: p.id, xMm: p.xMm, yMm: p.yMm, side: p.side, state: 'plain' }))
          }
          photos={photos}
          lit={part ? [part.ref] : []}
          onPick={setPicked}
        />
      </Flex>
    </Flex>
  );
}

/** The files a board is given out as, in words. */
const GIVEN_OUT = [
  ['board.json', 'board file'],
  ['front.svg', 'front, SVG'],
  ['back.svg', 'back, SVG'],
  ['parts.csv', 'parts, CSV'],
  ['netlist.ipc', 'netlist'],
] as const;

export function BoardSidebar({
  board,
  references,
  imports,
  children,
}: {
  board: Board;
  references: readonly ReferenceReading[];
  imports: readonly ReferenceImport[];
  children: ReactNode;
}) {
  return (
    <>
      <SidebarPart title="Rails as they come up">
        {board.rails.map((r) => (
          <FigureLine
            key={r.id}
            name={r.id}
            value={r.expect.kind === 'bus' ? 'as the port' : `${r.expect.volts.toFixed(2)} V`}
          />
        ))}
      </SidebarPart>
      <ReferencePart board={board} references={references} imports={imports} />
      {children}
      <SidebarPart title="Change it">
        <Link asChild color="copperText" textDecoration="underline" fontSize="14px">
          <PageLink href={`/library/${board.id}/edit`}>Lay parts, name nets, add photographs</PageLink>
        </Link>
        <Link asChild color="copperText" textDecoration="underline" fontSize="14px" display="block" mt="1">
          <PageLink href={`/library/${board.id}/good`}>Walk over a good one, and keep what it reads</PageLink>
        </Link>
      </SidebarPart>
      <SidebarPart title="Give it out">
        <Flex gap="3" rowGap="1" wrap="wrap" fontSize="14px">
          <Link href={`/library/${board.id}/package`} color="copperText" textDecoration="underline" download>
            all of it, one package
          </Link>
          {GIVEN_OUT.map(([file, name]) => (
            <Link
              key={file}
              href={`/library/${board.id}/files/${file}`}
              color="copperText"
              textDecoration="underline"
              download
            >
              {name}
            </Link>
          ))}
        </Flex>
      </SidebarPart>
      <SidebarPart title="Functions">
        {board.functions.map((f) => (
          <Text key={f.id} fontSize="14px">
            {f.what}
          </Text>
        ))}
      </SidebarPart>
    </>
  );
}
