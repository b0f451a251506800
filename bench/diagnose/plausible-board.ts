import { parseBoard, type Board } from '../../src/core/board';
import { seededRandom, type Random } from '../../src/core/math';
import { problemText } from '../../src/core/result';
import { demoBoard } from '../../demo/files';

/**
 * Plausible boards of any size, whole blocks of them, for timings. Assumptions, all of them engineering estimates after boards of portable
 * devices: a demo board stands in one corner as it is, with its port, controller and rails; round it stand blocks of a
 * chip with a converter rail of its own (one in four of them), four to eight signals, ten capacitors (eight on the rail,
 * two on what feeds it), five resistors (pull-ups to the rail, series resistors in signals), a coil and a filter here and
 * there. A third of the blocks hang on the system rail directly. No block is joined to another but over rails and two bus
 * signals.
 */
export function plausibleBoard(parts: number, seed = 1): Board {
  const base = demoBoard('heronlog-4-c');
  const random = seededRandom(seed);
  const columns = Math.ceil(Math.sqrt(Math.max(0, parts - base.parts.length) / PARTS_IN_BLOCK));
  const [originX] = [Math.max(...base.outlineMm.map(([x]) => x))];
  const grown = {
    parts: [...base.parts] as unknown[],
    nets: { ...base.nets } as Record<string, unknown>,
    rails: [...base.rails] as unknown[],
    points: [...base.points] as unknown[],
  };
  for (let block = 0; grown.parts.length < parts; block++) {
    const [column, row] = [block % Math.max(1, columns), Math.floor(block / Math.max(1, columns))];
    addBlock(grown, block, originX + 4 + column * BLOCK_MM, 4 + row * BLOCK_MM, random);
  }
  const size = originX + 8 + Math.max(1, columns) * BLOCK_MM;
  const high = Math.max(...base.outlineMm.map(([, y]) => y), 8 + (columns + 3) * BLOCK_MM);
  const parsed = parseBoard({
    ...base,
    id: `plausible-${parts}`,
    name: `Plausible board of ${parts} parts`,
    outlineMm: [
      [0, 0],
      [size, 0],
      [size, high],
      [0, high],
    ],
    ...grown,
  });
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}

const PARTS_IN_BLOCK = 20;
const BLOCK_MM = 14;

interface Grown {
  readonly parts: unknown[];
  readonly nets: Record<string, unknown>;
  readonly rails: unknown[];
  readonly points: unknown[];
}

function addBlock({ parts, nets, rails, points }: Grown, block: number, x: number, y: number, random: Random): void {
  const name = (prefix: string, n: number): string => `${prefix}${1000 + 100 * block + n}`;
  const own = random() < 0.25;
  const rail = own ? `VB${block}` : random() < 0.5 ? 'V33' : 'VSYS';
  if (own) {
    nets[rail] = { role: 'power', diodeV: 0.35 + 0.2 * random() };
    rails.push({
      id: rail,
      net: rail,
      expect: { kind: 'fixed', volts: 1.8 },
      tolerance: 0.05,
      feeds: [{ from: 'VSYS', via: [], by: name('U', 2), needs: [] }],
    });
    points.push({ id: `TB${block}`, net: rail, xMm: x, yMm: y, side: 'front' });
  }
  const signals = Array.from({ length: 4 + Math.floor(5 * random()) }, (_, k) => `S${block}_${k}`);
  for (const net of signals) nets[net] = { role: 'signal', diodeV: 0.4 + 0.25 * random() };
  const add = (part: object, dx: number, dy: number): void => {
    parts.push({ xMm: x + dx, yMm: y + dy, rotationDeg: 0, side: 'front', ...part });
  };
  const pins: Record<string, string> = { '1': rail, '2': 'GND', '3': 'SCL', '4': 'SDA' };
  signals.forEach((net, k) => (pins[String(5 + k)] = net));
  add(
    {
      ref: name('U', 1),
      kind: 'sensorHub',
      what: 'chip of a block',
      package: 'QFN16',
      pins,
      loadsOhm: { [rail]: 5000 + 40000 * random() },
    },
    5,
    5,
  );
  if (own)
    add(
      {
        ref: name('U', 2),
        kind: 'converter',
        what: 'rail of a block',
        package: 'QFN16',
        pins: { '1': 'VSYS', '2': 'GND', '3': rail },
        loadsOhm: { VSYS: 40000, [rail]: 60000 },
      },
      10,
      5,
    );
  for (let k = 0; k < 10; k++)
    add(
      {
        ref: name('C', k),
        kind: 'capacitor',
        what: '100 nF bypass',
        package: 'C0402',
        pins: { '1': k < 8 ? rail : 'VSYS', '2': 'GND' },
      },
      (k % 5) * 2,
      k < 5 ? 0 : 10,
    );
  for (let k = 0; k < 5; k++) {
    const net = signals[k % signals.length];
    add(
      {
        ref: name('R', k),
        kind: 'resistor',
        what: 'pull-up',
        package: 'R0402',
        pins: { '1': net, '2': rail },
        ohm: 10_000,
      },
      k * 2,
      12,
    );
  }
  if (random() < 0.5)
    add(
      { ref: name('L', 1), kind: 'coil', what: 'bead', package: 'R0402', pins: { '1': signals[0], '2': signals[1] } },
      0,
      6,
    );
}
