import { all, numberOf, one, textOf, turned, type List, type Place, type Point } from './kicad-expression';

const pointOf = (list: List | undefined): Point => [numberOf(list?.[1]), numberOf(list?.[2])];
/** Ends of lines of the edge that lie this near to each other are one, mm. Engineering estimate: layout programs round to a nanometre. */
const SAME_MM = 0.02;
const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < SAME_MM;
const ARC_STEPS = 12;
const CIRCLE_STEPS = 48;

const CURVE_STEPS = 16;

const ON_BOARD: Place = { x: 0, y: 0, turn: 0 };

/**
 * The edge of the board as one closed outline: the longest of those that its lines, arcs and curves make, those that a
 * footprint brings along among them.
 */
export function outlineOf(root: List, footprints: readonly List[]): Point[] | undefined {
  const drawn = [edgesOf(root, 'gr', ON_BOARD), ...footprints.map((f) => edgesOf(f, 'fp', placeOf(f)))];
  const runs = drawn.flatMap((d) => d.runs);
  const closed = drawn.flatMap((d) => d.closed);
  for (let rest = runs.filter((run) => run.every(isPlace)); rest.length > 0;) {
    let chain = rest[0];
    rest = rest.slice(1);
    for (;;) {
      const end = chain[chain.length - 1];
      const next = rest.findIndex((run) => near(run[0], end) || near(run[run.length - 1], end));
      if (next < 0) break;
      const run = near(rest[next][0], end) ? rest[next] : [...rest[next]].reverse();
      chain = [...chain, ...run.slice(1)];
      rest = rest.filter((_, i) => i !== next);
    }
    if (chain.length > 3 && near(chain[0], chain[chain.length - 1])) closed.push(chain.slice(0, -1));
  }
  const box = (points: readonly Point[]): number => {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    return (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys));
  };
  return closed.filter((c) => c.length >= 3 && c.every(isPlace)).sort((a, b) => box(b) - box(a))[0];
}

const isPlace = ([x, y]: Point): boolean => Number.isFinite(x + y);

function placeOf(footprint: List): Place {
  const at = one(footprint, 'at');
  const [x, y] = pointOf(at);
  return { x, y, turn: at?.[3] === undefined ? 0 : numberOf(at[3]) };
}

/** What one drawing has on the layer of the edge: runs that have to be joined, and shapes that are closed. */
function edgesOf(list: List, prefix: 'gr' | 'fp', place: Place): { runs: Point[][]; closed: Point[][] } {
  const shapes = (kind: string, points: (shape: List) => Point[]): Point[][] =>
    all(list, `${prefix}_${kind}`)
      .filter((shape) => textOf(one(shape, 'layer')?.[1]) === 'Edge.Cuts')
      .map((shape) => points(shape).map((p) => turned(p, place)));
  return {
    runs: [
      ...shapes('line', (l) => [pointOf(one(l, 'start')), pointOf(one(l, 'end'))]),
      ...shapes('arc', arcOf),
      ...shapes('curve', curveOf),
    ],
    closed: [...shapes('rect', rectOf), ...shapes('circle', circleOf), ...shapes('poly', cornersOf)],
  };
}

const cornersOf = (shape: List): Point[] => all(one(shape, 'pts') ?? [], 'xy').map(pointOf);

function rectOf(rect: List): Point[] {
  const [a, b] = [pointOf(one(rect, 'start')), pointOf(one(rect, 'end'))];
  return [a, [b[0], a[1]], b, [a[0], b[1]]];
}

function circleOf(circle: List): Point[] {
  const [centre, end] = [pointOf(one(circle, 'center')), pointOf(one(circle, 'end'))];
  const radius = Math.hypot(end[0] - centre[0], end[1] - centre[1]);
  return Array.from({ length: CIRCLE_STEPS }, (_, i) => {
    const angle = (2 * Math.PI * i) / CIRCLE_STEPS;
    return [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
  });
}

/** A cubic curve by its two ends and two handles; one of another number of points is none. */
function curveOf(curve: List): Point[] {
  const points = cornersOf(curve);
  if (points.length !== 4) return [[NaN, NaN]];
  const [a, b, c, d] = points;
  return Array.from({ length: CURVE_STEPS + 1 }, (_, i): Point => {
    const t = i / CURVE_STEPS;
    const [w0, w1, w2, w3] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t ** 2 * (1 - t), t ** 3];
    return [0, 1].map((k) => w0 * a[k] + w1 * b[k] + w2 * c[k] + w3 * d[k]) as unknown as Point;
  });
}

/** An arc by start, middle and end; in older files by centre, start and angle. */
function arcOf(arc: List): Point[] {
  const [start, mid, end] = ['start', 'mid', 'end'].map((w) => pointOf(one(arc, w)));
  if (!Number.isNaN(mid[0])) return throughThree(start, mid, end);
  // The older form: "start" is the centre, "end" the first point, and the angle runs clockwise.
  const sweep = (numberOf(one(arc, 'angle')?.[1]) * Math.PI) / 180;
  const radius = Math.hypot(end[0] - start[0], end[1] - start[1]);
  const from = Math.atan2(end[1] - start[1], end[0] - start[0]);
  return Array.from({ length: ARC_STEPS + 1 }, (_, i) => {
    const angle = from + (sweep * i) / ARC_STEPS;
    return [start[0] + radius * Math.cos(angle), start[1] + radius * Math.sin(angle)];
  });
}

function throughThree(a: Point, b: Point, c: Point): Point[] {
  const d = 2 * (a[0] * (b[1] - c[1]) + b[0] * (c[1] - a[1]) + c[0] * (a[1] - b[1]));
  if (Math.abs(d) < 1e-9) return [a, c];
  const square = (p: Point): number => p[0] ** 2 + p[1] ** 2;
  const x = (square(a) * (b[1] - c[1]) + square(b) * (c[1] - a[1]) + square(c) * (a[1] - b[1])) / d;
  const y = (square(a) * (c[0] - b[0]) + square(b) * (a[0] - c[0]) + square(c) * (b[0] - a[0])) / d;
  const angleOf = (p: Point): number => Math.atan2(p[1] - y, p[0] - x);
  const from = angleOf(a);
  const turn = (p: Point): number => (angleOf(p) - from + 4 * Math.PI) % (2 * Math.PI);
  const sweep = turn(b) < turn(c) ? turn(c) : turn(c) - 2 * Math.PI;
  const radius = Math.hypot(a[0] - x, a[1] - y);
  return Array.from({ length: ARC_STEPS + 1 }, (_, i) => {
    const angle = from + (sweep * i) / ARC_STEPS;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });
}
