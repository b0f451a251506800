import { demoBoard } from '../../demo/files';
import { parseBoard, type Board } from '../../src/core/board';
import { problemText } from '../../src/core/result';

/** What is kept of a board: its parts, and of some parts only some pins and loads. */
interface Cut {
  readonly id: string;
  readonly parts: readonly string[];
  readonly railIds: readonly string[];
  readonly controllerRails: readonly string[];
  /** Nets of the port that are kept; every other contact is left out. */
  readonly portNets: readonly string[];
}

/** A board cut down to a few parts, spread out so that no solder bridges; what no longer holds is left out. */
function cutDown(board: Board, { id, parts: refs, railIds, controllerRails, portNets }: Cut): Board {
  const kept = new Set(refs);
  const keptRails = new Set(railIds);
  const rails = board.rails.filter((r) => keptRails.has(r.id));
  const loads = new Set(rails.map((r) => r.net));
  const parts = board.parts
    .filter((p) => kept.has(p.ref))
    .map((p) => ({
      ...p,
      xMm: SPREAD * p.xMm,
      yMm: SPREAD * p.yMm,
      loadsOhm: Object.fromEntries(Object.entries(p.loadsOhm).filter(([net]) => loads.has(net))),
      pins:
        p.ref === board.ports[0].id
          ? Object.fromEntries(Object.entries(p.pins).filter(([, net]) => portNets.includes(net)))
          : p.pins,
    }));
  const nets = new Set([...parts.flatMap((p) => Object.values(p.pins)), ...loads]);
  const parsed = parseBoard({
    ...board,
    id,
    name: id,
    parts,
    rails,
    outlineMm: board.outlineMm.map(([x, y]) => [SPREAD * x, SPREAD * y]),
    slots: [],
    functions: [
      {
        id: 'level',
        what: 'its level at the port',
        parts: [board.ports[0].controller],
        rails: [rails[rails.length - 1].id],
        minutes: 2,
      },
    ],
    screws: [],
    ports: board.ports.map((port) => ({
      ...port,
      controllerRails,
      sides: port.sides.map((side) => ({ ...side, path: side.path.filter((ref) => kept.has(ref)) })),
    })),
    nets: Object.fromEntries(Object.entries(board.nets).filter(([net]) => nets.has(net))),
    points: board.points
      .filter((p) => nets.has(p.net))
      .map((p) => ({ ...p, xMm: SPREAD * p.xMm, yMm: SPREAD * p.yMm })),
  });
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}

const SPREAD = 3;
const BUS = ['GND', 'VBUS', 'CC1', 'CC2'];

/** Boards small enough to search every order of tests and repairs: the port's corner of a demo board, cut in three ways. */
export function smallBoards(): Board[] {
  const whole = demoBoard('heronlog-4-c');
  return [
    cutDown(whole, {
      id: 'controller-and-flash',
      parts: ['J1', 'U4', 'U9', 'F1', 'C14'],
      railIds: ['VBUS', 'VBUS_F', 'AON33'],
      controllerRails: ['AON33'],
      portNets: ['GND', 'VBUS', 'CC1'],
    }),
    cutDown(whole, {
      id: 'fuse-and-switch',
      parts: ['J1', 'U4', 'U9', 'F1', 'Q1', 'C2', 'C4'],
      railIds: ['VBUS', 'VBUS_F', 'VIN'],
      controllerRails: ['VBUS_F'],
      portNets: ['GND', 'VBUS'],
    }),
    cutDown(whole, {
      id: 'arrays-at-the-port',
      parts: ['J1', 'U4', 'U9', 'D1', 'D2', 'C18'],
      railIds: ['VBUS'],
      controllerRails: ['VBUS'],
      portNets: BUS,
    }),
  ];
}

/** A board of a hundred parts: the larger demo board without so many of its capacitors, the last ones first. */
export function hundredParts(): Board {
  const whole = demoBoard('marshdesk-2-b');
  const spare = whole.parts.filter((p) => p.kind === 'capacitor').slice(-(whole.parts.length - 100));
  return { ...whole, id: 'hundred-parts', parts: whole.parts.filter((p) => !spare.includes(p)) };
}
