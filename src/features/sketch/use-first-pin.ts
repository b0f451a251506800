'use client';

import { useState } from 'react';
import type { Board, Part } from '@/core/board';
import { rotationByFirstPin, type BoardEdit } from '@/core/sketch';

/** Where pin 1 of a part is, said by a click: asked for, answered, and what is wrong with an answer. */
export interface FirstPinAsked {
  /** The part that is asked about. */
  readonly of?: Part;
  readonly problem?: string;
  readonly ask: () => void;
  /** Takes a click; one between two corners says nothing, and is asked for again. */
  readonly answer: (xMm: number, yMm: number) => void;
}

/** @param part the part that is picked; another one, or none, ends the question. */
export function useFirstPin(board: Board, part: Part | undefined, onEdit: (edit: BoardEdit) => void): FirstPinAsked {
  const [asked, setAsked] = useState<{ readonly ref: string; readonly problem?: string }>();
  const of = part && asked?.ref === part.ref ? part : undefined;
  return {
    of,
    problem: of && asked?.problem,
    ask: () => part && setAsked(of ? undefined : { ref: part.ref }),
    answer: (xMm, yMm) => {
      if (!of) return;
      const rotationDeg = rotationByFirstPin(board, of, { xMm, yMm });
      if (rotationDeg === undefined)
        return setAsked({
          ref: of.ref,
          problem: `Expected the corner of ${of.ref} that its mark is at; that is between two.`,
        });
      onEdit({ kind: 'place', ref: of.ref, xMm: of.xMm, yMm: of.yMm, rotationDeg });
      setAsked(undefined);
    },
  };
}
