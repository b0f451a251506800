import type { Board, Part, Side } from '@/core/board';
import type { SeenBody } from '@/core/photo';
import { applyBoardEdit, type BoardEdit } from '@/core/sketch';

/** A body as it was seen, in the board's own coordinates. */
export interface BodyOnBoard extends SeenBody {
  readonly side: Side;
}

/** A straightened photograph of one side, and how sure its places are. */
export interface EditorPhoto {
  readonly side: Side;
  readonly sha256: string;
  readonly doubtMm: number;
}

/** A board that is worked on: what it was before each edit, so that every step can be taken back and made again. */
export interface Editing {
  readonly board: Board;
  readonly past: readonly Board[];
  readonly future: readonly Board[];
  /** Counts every change, forwards or back. */
  readonly version: number;
  /** The board as it was last kept. */
  readonly kept: Board;
  /** The revision of the file that the work began with. */
  readonly revision: number;
  /** Parts that were left where they are for now. */
  readonly skipped: readonly string[];
  readonly problem?: string;
}

export type EditingAction =
  | { readonly kind: 'edit'; readonly edit: BoardEdit }
  | { readonly kind: 'undo' }
  | { readonly kind: 'redo' }
  | { readonly kind: 'skip'; readonly ref: string }
  | { readonly kind: 'kept'; readonly board: Board; readonly revision: number };

export const startEditing = (board: Board, revision: number): Editing => ({
  ...{ board, revision, kept: board },
  ...{ past: [], future: [], skipped: [], version: 0 },
});

const MOST_STEPS = 200;

/** What a step makes of the work; an edit that is refused changes nothing and says why. */
export function editingAfter(state: Editing, action: EditingAction): Editing {
  const { board, past, future, version } = state;
  switch (action.kind) {
    case 'edit': {
      const made = applyBoardEdit(board, action.edit);
      if (!made.ok) return { ...state, problem: made.problems[0].message };
      return {
        ...state,
        board: made.value,
        past: [...past.slice(-MOST_STEPS), board],
        future: [],
        version: version + 1,
        problem: undefined,
      };
    }
    case 'undo': {
      const before = past.at(-1);
      if (!before) return { ...state, problem: 'Nothing is left to be taken back.' };
      return {
        ...state,
        board: before,
        past: past.slice(0, -1),
        future: [board, ...future],
        version: version + 1,
        problem: undefined,
      };
    }
    case 'redo': {
      const [next, ...rest] = future;
      if (!next) return { ...state, problem: 'Nothing was taken back.' };
      return { ...state, board: next, past: [...past, board], future: rest, version: version + 1, problem: undefined };
    }
    case 'skip':
      return { ...state, skipped: [...state.skipped, action.ref] };
    case 'kept':
      return { ...state, kept: action.board, revision: action.revision };
  }
}

/** Kinds in the order in which they are found round a port: what leads to the next goes first. Handbook order, common practice. */
const FOUND_FIRST: readonly Part['kind'][] = [
  'connector',
  'portController',
  'flash',
  'fuse',
  'mosfet',
  'coil',
  'chargeController',
  'batteryConnector',
  'esdArray',
  'clampDiode',
  'mux',
  'converter',
  'processor',
  'lineFilter',
  'capacitor',
  'resistor',
];

/** Parts whose place nobody has said, in the order in which they are found; those that were skipped come last. */
export function partsToPlace(board: Board, skipped: readonly string[]): Part[] {
  const rank = (part: Part): number => {
    const at = FOUND_FIRST.indexOf(part.kind);
    return (at < 0 ? FOUND_FIRST.length : at) + (skipped.includes(part.ref) ? FOUND_FIRST.length + 1 : 0);
  };
  return board.parts.filter((p) => p.assumed?.includes('place')).sort((a, b) => rank(a) - rank(b));
}

/** A click this near to a body means it, mm. */
const SNAP_MM = 0.4;

/** Where a click on a side puts a part: onto the body that was seen there, else where it was clicked. */
export function placed(
  ref: string,
  click: { readonly xMm: number; readonly yMm: number; readonly side: Side },
  bodies: readonly BodyOnBoard[] = [],
): BoardEdit {
  const reach = (size: number): number => size / 2 + SNAP_MM;
  const body = bodies.find(
    (b) =>
      b.side === click.side &&
      Math.abs(b.xMm - click.xMm) <= reach(b.sizeMm[0]) &&
      Math.abs(b.yMm - click.yMm) <= reach(b.sizeMm[1]),
  );
  if (!body) return { kind: 'place', ref, ...click };
  const { xMm, yMm, rotationDeg, pattern, side } = body;
  return { kind: 'seen', ref, xMm, yMm, rotationDeg, side, pattern };
}
