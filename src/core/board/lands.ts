import type { Board, Part, PartPackage } from './schema';

/** One pad in board coordinates (front view), mm. */
export interface Pad {
  readonly pin: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly wMm: number;
  readonly hMm: number;
  readonly round: boolean;
}

/** Row letters of ball arrays leave out those that read like figures (JEDEC outline practice, from memory). */
const ROW_LETTERS = 'ABCDEFGHJKLMNPRTUVWY';

const pad = (pin: string, xMm: number, yMm: number, wMm: number, hMm: number, round = false): Pad => ({
  pin,
  xMm,
  yMm,
  wMm,
  hMm,
  round,
});

function sideOffsets(count: number, pitchMm: number): number[] {
  return Array.from({ length: count }, (_, i) => (i - (count - 1) / 2) * pitchMm);
}

/** The pads of a package in its own frame, centre at the origin, pin 1 at the top left. */
export function landsOf(pkg: PartPackage): Pad[] {
  const lands = pkg.lands;
  switch (lands.kind) {
    case 'two':
      return [-0.5, 0.5].map((s, i) => pad(String(i + 1), s * lands.pitchMm, 0, lands.padMm[0], lands.padMm[1]));
    case 'list':
      return lands.pads.map((p) => pad(p.pin, p.xMm, p.yMm, p.wMm, p.hMm));
    case 'array': {
      const empty = new Set(lands.without);
      return sideOffsets(lands.rows, lands.pitchMm)
        .flatMap((y, r) =>
          sideOffsets(lands.columns, lands.pitchMm).map((x, c) =>
            pad(`${ROW_LETTERS[r]}${c + 1}`, x, y, lands.padMm, lands.padMm, true),
          ),
        )
        .filter((p) => !empty.has(p.pin));
    }
    case 'dual': {
      const offsets = sideOffsets(lands.pins / 2, lands.pitchMm);
      const [length, width] = lands.padMm;
      const left = offsets.map((y) => ({ x: -lands.spanMm / 2, y }));
      const right = [...offsets].reverse().map((y) => ({ x: lands.spanMm / 2, y }));
      return numbered(
        [...left, ...right].map((p) => ({ ...p, w: length, h: width })),
        lands.centreMm,
      );
    }
    case 'quad': {
      const offsets = sideOffsets(lands.pins / 4, lands.pitchMm);
      const reversed = [...offsets].reverse();
      const [length, width] = lands.padMm;
      const [spanX, spanY] = lands.spanMm;
      return numbered(
        [
          ...offsets.map((y) => ({ x: -spanX / 2, y, w: length, h: width })),
          ...offsets.map((x) => ({ x, y: spanY / 2, w: width, h: length })),
          ...reversed.map((y) => ({ x: spanX / 2, y, w: length, h: width })),
          ...reversed.map((x) => ({ x, y: -spanY / 2, w: width, h: length })),
        ],
        lands.centreMm,
      );
    }
  }
}

function numbered(
  places: { x: number; y: number; w: number; h: number }[],
  centreMm?: readonly [number, number],
): Pad[] {
  const pads = places.map((p, i) => pad(String(i + 1), p.x, p.y, p.w, p.h));
  return centreMm ? [...pads, pad('EP', 0, 0, centreMm[0], centreMm[1])] : pads;
}

/** Turns and moves a point of the package frame into board coordinates; back-side parts are mirrored in x. */
export function toBoard(part: Part, xMm: number, yMm: number): { xMm: number; yMm: number } {
  const x = part.side === 'back' ? -xMm : xMm;
  const angle = (part.rotationDeg * Math.PI) / 180;
  return {
    xMm: part.xMm + x * Math.cos(angle) - yMm * Math.sin(angle),
    yMm: part.yMm + x * Math.sin(angle) + yMm * Math.cos(angle),
  };
}

/** The pads of a part where they lie on the board. Width and height are swapped for quarter turns. */
export function padsOf(board: Board, part: Part): Pad[] {
  const quarter = Math.abs(Math.round(part.rotationDeg / 90)) % 2 === 1;
  return landsOf(board.packages[part.package]).map((p) => ({
    ...p,
    ...toBoard(part, p.xMm, p.yMm),
    wMm: quarter ? p.hMm : p.wMm,
    hMm: quarter ? p.wMm : p.hMm,
  }));
}

/** The body of a part as an axis-parallel box, mm; exact for quarter turns, the enclosing box otherwise. */
export function bodyBox(board: Board, part: Part): { x0: number; y0: number; x1: number; y1: number } {
  const [w, h] = board.packages[part.package].bodyMm;
  const angle = (part.rotationDeg * Math.PI) / 180;
  const halfX = (Math.abs(w * Math.cos(angle)) + Math.abs(h * Math.sin(angle))) / 2;
  const halfY = (Math.abs(w * Math.sin(angle)) + Math.abs(h * Math.cos(angle))) / 2;
  return { x0: part.xMm - halfX, y0: part.yMm - halfY, x1: part.xMm + halfX, y1: part.yMm + halfY };
}

/** The body of a part as it is turned on the board: its four corners, mm. */
export function bodyOutline(board: Board, part: Part): [xMm: number, yMm: number][] {
  const [w, h] = board.packages[part.package].bodyMm;
  const corners = [
    [-w, -h],
    [w, -h],
    [w, h],
    [-w, h],
  ];
  return corners.map(([x, y]) => {
    const { xMm, yMm } = toBoard(part, x / 2, y / 2);
    return [xMm, yMm];
  });
}
