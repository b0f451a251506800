import { groundNet, type Board, type Part, type PartKind, type PlugSide } from '../board';

/** What a fault does to the board. A double fault is the union of two lists. */
export type Effect =
  | { readonly kind: 'shunt'; readonly net: string; readonly ohm: number }
  | { readonly kind: 'bridge'; readonly netA: string; readonly netB: string; readonly ohm: number }
  | { readonly kind: 'open'; readonly element: string; readonly ref: string }
  | { readonly kind: 'dead'; readonly ref: string }
  /** A controller that no longer runs, though its own always-on regulator still does. */
  | { readonly kind: 'coreDead'; readonly ref: string }
  | { readonly kind: 'ccDead'; readonly ref: string; readonly side: PlugSide }
  | { readonly kind: 'imageBad'; readonly ref: string }
  /** One contact of a connector, or all contacts of its net where no pin is named. */
  | { readonly kind: 'pinOpen'; readonly ref: string; readonly net: string; readonly pin?: string }
  /** The input structures of a chip are gone: its signal pins no longer read a normal drop. */
  | { readonly kind: 'inputs'; readonly ref: string }
  /** The processor's side takes current before anything boots. */
  | { readonly kind: 'load'; readonly ref: string }
  /** A contact that touches badly: it comes and goes. */
  | { readonly kind: 'dirty'; readonly ref: string; readonly net: string }
  /** A diode path to ground beside the normal one: diode mode reads low. */
  | { readonly kind: 'leak'; readonly net: string }
  /** A rail that is cut off from what feeds it. */
  | { readonly kind: 'cut'; readonly rail: string }
  | { readonly kind: 'outside'; readonly what: OutsideThing }
  | { readonly kind: 'stuckOn'; readonly ref: string };

export interface Fault {
  /** Stable name, for example `U4/short/AON33`. */
  readonly id: string;
  readonly ref: string;
  /** In words, for the suspects' list: `U4 port controller, shorted to ground at AON33`. */
  readonly words: string;
  readonly effects: readonly Effect[];
  /** Relative prior weight, before the owner's story is counted. */
  readonly weight: number;
  /** Of a part that was newly fitted: it counts only from then on. */
  readonly fresh?: boolean;
  /** The story that makes this fault much likelier. */
  readonly story?: HistoryFlag;
}

/** The fault id for "nothing wrong here at all", and what suspects outside the board are listed under. */
export const OUTSIDE = 'outside';

/** What can be swapped for a known-good one without touching the board. */
export const OUTSIDE_THINGS = ['charger', 'cable', 'pack'] as const;
export type OutsideThing = (typeof OUTSIDE_THINGS)[number];

/** The fault id of something outside the board. */
export const outsideFaultId = (what: OutsideThing): string => `${OUTSIDE}/${what}`;

/** A typical short, ohm: the middle of the 0.5–5 Ω that shorted parts read (common practice, no source). */
export const SHORT_OHM = 1.6;

/**
 * Relative odds of fault modes, per part. Engineering estimates after the order in which such boards fail in practice;
 * they are shown to the user and shifted by the job's history.
 */
export const WEIGHT = {
  portControllerShort: 2.5,
  portControllerDead: 3,
  portControllerCore: 3,
  portControllerBlown: 3,
  portControllerSide: 2,
  imageBad: 4,
  flashDead: 1,
  chargerShort: 2,
  chargerDead: 4,
  fuseOpen: 4,
  esdShort: 2,
  clampShort: 1.5,
  pinOpen: 2,
  filterOpen: 0.6,
  filterBridge: 0.3,
  coilOpen: 0.8,
  capacitorShort: 0.6,
  resistorOpen: 0.15,
  mosfetOpen: 1.2,
  mosfetShort: 0.6,
  converterShort: 0.8,
  converterDead: 1,
  muxShort: 1,
  muxDead: 2,
  muxBlown: 1,
  processorShort: 1.5,
  processorDead: 1.5,
  processorLoad: 0.8,
  smallDead: 0.5,
  packPinOpen: 0.7,
  pinBridge: 0.4,
  pinDirty: 0.8,
  esdLeak: 1,
  filterShort: 0.15,
  padLifted: 0.1,
  solderBridge: 0.03,
  traceCrack: 0.1,
  screwThrough: 0.1,
  outsideThing: 1.5,
  outside: 3,
} as const;

const partWords = (part: Part): string => `${part.ref} ${part.what}`;

function fault(part: Part, mode: string, words: string, weight: number, effects: Effect[]): Fault {
  return { id: `${part.ref}/${mode}`, ref: part.ref, words: `${partWords(part)}, ${words}`, weight, effects };
}

/** Shorts inside a chip: at one of its supplies, or at several. Several shorted capacitors round one chip mean that chip. */
function shortsOfLoads(part: Part, weight: number): Fault[] {
  const nets = Object.keys(part.loadsOhm);
  const pairs = part.kind === 'portController' ? nets.flatMap((a, i) => nets.slice(i + 1).map((b) => [a, b])) : [];
  const several = nets.length > 1 ? [nets, ...pairs.filter((pair) => pair.length < nets.length)] : [];
  const short = (list: readonly string[], share: number): Fault =>
    fault(part, `short/${list.join('+')}`, `${list.join(' and ')} shorted inside`, share * weight, [
      ...list.map((net): Effect => ({ kind: 'shunt', net, ohm: SHORT_OHM })),
      { kind: 'dead', ref: part.ref },
    ]);
  return [...nets.map((net) => short([net], 1)), ...several.map((list) => short(list, SEVERAL_SHARE))];
}

/** Several supplies shorted at once against one of them alone. Engineering estimate. */
const SEVERAL_SHARE = 0.4;

const dead = (part: Part, weight: number): Fault =>
  fault(part, 'dead', 'dead inside', weight, [{ kind: 'dead', ref: part.ref }]);

/** Dead with its inputs gone: unlike a chip that died inside, diode mode shows it. */
const blown = (part: Part, weight: number): Fault =>
  fault(part, 'blown', 'dead, its inputs gone', weight, [
    { kind: 'dead', ref: part.ref },
    { kind: 'inputs', ref: part.ref },
  ]);

/** Every single fault of one part. */
export function faultsOfPart(board: Board, part: Part): Fault[] {
  const ground = groundNet(board);
  const nets = [...new Set(Object.values(part.pins))].filter((n) => n !== ground);
  const toGround = (weight: number): Fault[] =>
    nets.map((net) =>
      fault(part, `short/${net}`, `${net} shorted to ground`, weight, [{ kind: 'shunt', net, ohm: SHORT_OHM }]),
    );
  const open = (element: string, mode: string, words: string, weight: number): Fault =>
    fault(part, mode, words, weight, [{ kind: 'open', element, ref: part.ref }]);
  switch (part.kind) {
    case 'portController':
      return [
        ...shortsOfLoads(part, WEIGHT.portControllerShort),
        ...liftedPads(part),
        dead(part, WEIGHT.portControllerDead),
        fault(part, 'core', 'dead inside, its regulator alive', WEIGHT.portControllerCore, [
          { kind: 'coreDead', ref: part.ref },
        ]),
        blown(part, WEIGHT.portControllerBlown),
        ...(['A', 'B'] as const).map((side) =>
          fault(part, `side-${side}`, `its CC side ${side} dead`, WEIGHT.portControllerSide, [
            { kind: 'ccDead', ref: part.ref, side },
          ]),
        ),
      ];
    case 'flash':
      return [
        fault(part, 'image', 'its image corrupted or blank', WEIGHT.imageBad, [{ kind: 'imageBad', ref: part.ref }]),
        fault(part, 'dead', 'dead inside', WEIGHT.flashDead, [
          { kind: 'imageBad', ref: part.ref },
          { kind: 'dead', ref: part.ref },
        ]),
        ...shortsOfLoads(part, WEIGHT.flashDead / 2),
      ];
    case 'chargeController':
      return [...shortsOfLoads(part, WEIGHT.chargerShort), ...liftedPads(part), dead(part, WEIGHT.chargerDead)];
    case 'converter':
      return [...shortsOfLoads(part, WEIGHT.converterShort), dead(part, WEIGHT.converterDead)];
    case 'mux':
      return [
        ...shortsOfLoads(part, WEIGHT.muxShort),
        ...liftedPads(part),
        dead(part, WEIGHT.muxDead),
        blown(part, WEIGHT.muxBlown),
      ];
    case 'processor':
      return [
        ...shortsOfLoads(part, WEIGHT.processorShort),
        dead(part, WEIGHT.processorDead),
        fault(part, 'load', 'takes current at once', WEIGHT.processorLoad, [{ kind: 'load', ref: part.ref }]),
      ];
    case 'sensorHub':
      return [...shortsOfLoads(part, WEIGHT.smallDead), dead(part, WEIGHT.smallDead)];
    case 'crystal':
      return [dead(part, WEIGHT.smallDead)];
    case 'fuse':
      return [open(part.ref, 'open', 'open', WEIGHT.fuseOpen)];
    case 'coil':
      return [open(part.ref, 'open', 'joint cracked open', WEIGHT.coilOpen)];
    case 'resistor':
      return [open(part.ref, 'open', 'open', WEIGHT.resistorOpen)];
    case 'lineFilter':
      return [
        open(`${part.ref}:a`, 'open-a', 'line a open', WEIGHT.filterOpen),
        open(`${part.ref}:b`, 'open-b', 'line b open', WEIGHT.filterOpen),
        fault(part, 'bridge', 'its lines bridged', WEIGHT.filterBridge, [
          { kind: 'bridge', netA: part.pins['1'], netB: part.pins['3'], ohm: SHORT_OHM },
        ]),
        ...['1', '3'].map((pin) =>
          fault(part, `short/${part.pins[pin]}`, `${part.pins[pin]} shorted to ground`, WEIGHT.filterShort, [
            { kind: 'shunt', net: part.pins[pin], ohm: SHORT_OHM },
          ]),
        ),
      ];
    case 'capacitor': {
      const [a, b] = [part.pins['1'], part.pins['2']];
      if (a === ground || b === ground) return toGround(WEIGHT.capacitorShort);
      return [
        fault(part, 'short', `shorted between ${a} and ${b}`, WEIGHT.capacitorShort, [
          { kind: 'bridge', netA: a, netB: b, ohm: SHORT_OHM },
        ]),
      ];
    }
    case 'esdArray':
      return [...toGround(WEIGHT.esdShort), ...leaks(board, part, nets)];
    case 'clampDiode':
      return toGround(WEIGHT.clampShort);
    case 'mosfet':
      return [
        fault(part, 'open', 'does not switch on', WEIGHT.mosfetOpen, [{ kind: 'dead', ref: part.ref }]),
        fault(part, 'short', 'shorted through', WEIGHT.mosfetShort, [
          { kind: 'bridge', netA: part.pins['2'], netB: part.pins['3'], ohm: SHORT_OHM },
          { kind: 'stuckOn', ref: part.ref },
        ]),
      ];
    case 'connector':
      return connectorFaults(board, part, nets);
    case 'batteryConnector':
      return [dead(part, WEIGHT.packPinOpen)];
  }
}

/** Pins that matter for power and talk can open; other connectors fail as a whole. */
function connectorFaults(board: Board, part: Part, nets: string[]): Fault[] {
  const port = board.ports.find((p) => p.id === part.ref);
  if (!port) return [dead(part, WEIGHT.packPinOpen)];
  const bus = board.rails.find((r) => r.id === port.vbusRail)!.net;
  const atCc = port.sides.flatMap(({ side, ccNet }) => [
    fault(part, `dirty/${ccNet}`, `contact ${ccNet} dirty`, WEIGHT.pinDirty, [
      { kind: 'dirty', ref: part.ref, net: ccNet },
    ]),
    fault(part, `bridge/${ccNet}`, `${ccNet} bridged to ${bus} beside it`, WEIGHT.pinBridge, [
      { kind: 'bridge', netA: bus, netB: ccNet, ohm: SHORT_OHM },
      { kind: 'ccDead', ref: port.controller, side },
    ]),
  ]);
  const vital = nets.filter((net) => board.nets[net].diodeV !== undefined);
  const open = vital.flatMap((net) => {
    const pins = Object.keys(part.pins).filter((pin) => part.pins[pin] === net);
    // One contact of several that carry power is not missed; of two that carry data, the plug uses one at a time.
    const whole = pins.length === 1 || board.nets[net].role === 'power';
    return whole
      ? [
          fault(part, `pin/${net}`, `pin ${net} open or bent`, WEIGHT.pinOpen, [
            { kind: 'pinOpen', ref: part.ref, net },
          ]),
        ]
      : pins.map((pin) =>
          fault(part, `pin/${net}/${pin}`, `pin ${pin} ${net} open or bent`, WEIGHT.pinOpen / pins.length, [
            { kind: 'pinOpen', ref: part.ref, net, pin },
          ]),
        );
  });
  return [...open, ...atCc];
}

/** What a leaking array puts on its line, ohm. Common practice: kilohms, far from a short and far from open. */
const LEAK_PATH_OHM = 1500;

/** A leaking array: the line reads low, and a CC line with it no longer carries a conversation. */
function leaks(board: Board, part: Part, nets: readonly string[]): Fault[] {
  return nets.map((net) => {
    const talk = board.ports.flatMap((port) =>
      port.sides
        .filter((s) => s.ccNet === net)
        .map((s): Effect => ({ kind: 'ccDead', ref: port.controller, side: s.side })),
    );
    return fault(part, `leak/${net}`, `${net} leaking to ground`, WEIGHT.esdLeak / nets.length, [
      { kind: 'shunt', net, ohm: LEAK_PATH_OHM },
      { kind: 'leak', net },
      ...talk,
    ]);
  });
}

/** A pad that came off with the part: its load is missing, and the part does not work. */
const liftedPads = (part: Part): Fault[] =>
  Object.keys(part.loadsOhm).map((net) => ({
    ...fault(part, `pad/${net}`, `its ${net} pad lifted`, WEIGHT.padLifted, [
      { kind: 'open', element: `${part.ref}~${net}`, ref: part.ref },
      { kind: 'dead', ref: part.ref },
    ]),
    story: 'earlierRepair',
  }));

export const HISTORY_FLAGS = ['unknownCharger', 'liquid', 'fall', 'bend', 'earlierRepair'] as const;
export type HistoryFlag = (typeof HISTORY_FLAGS)[number];
/** Factors by flag and kind of part. */
export type HistoryFactors = Readonly<Partial<Record<HistoryFlag, Readonly<Partial<Record<PartKind, number>>>>>>;

/**
 * How the owner's story shifts the odds. Directions are common practice; the sizes are engineering estimates.
 */
export const HISTORY_FACTORS: Readonly<Record<HistoryFlag, Partial<Record<PartKind, number>>>> = {
  unknownCharger: { portController: 3, fuse: 2, esdArray: 3, clampDiode: 3 },
  liquid: { connector: 4, capacitor: 2, esdArray: 2, batteryConnector: 3 },
  fall: { connector: 2, coil: 4, crystal: 4, processor: 1.5 },
  bend: { processor: 4, coil: 2, crystal: 2 },
  earlierRepair: { connector: 2, lineFilter: 3, resistor: 2, fuse: 1.5 },
};

/** The same for what is not on the board. */
const OUTSIDE_FACTORS: Partial<Record<HistoryFlag, Partial<Record<OutsideThing, number>>>> = {
  unknownCharger: { charger: 4, cable: 4 },
  fall: { cable: 1.5 },
};

/** The factors of the story on one kind of part: those that the bench has set for itself, else the defaults. */
export function historyFactor(
  kind: PartKind,
  history: readonly HistoryFlag[],
  factors: HistoryFactors = HISTORY_FACTORS,
): number {
  return history.reduce((factor, flag) => factor * (factors[flag]?.[kind] ?? HISTORY_FACTORS[flag][kind] ?? 1), 1);
}

/** How much likelier a fault is that the story speaks of directly. Engineering estimate. */
const STORY_FACTOR = 8;

/**
 * How much likelier a fault is at what was replaced or mended in a job that came back: its joints, a weak new part, and
 * what killed the first one are still about. Engineering estimate.
 */
const AGAIN_FACTOR = 5;

/** How much likelier the story and the bench's own records make a fault. */
export function historyFactorOf(
  fault: Fault,
  kind: PartKind | undefined,
  history: readonly HistoryFlag[],
  practice: {
    readonly factors?: HistoryFactors;
    readonly records?: Readonly<Partial<Record<PartKind, number>>>;
    /** Parts, and single faults by their id, that were worked on before the job came back. */
    readonly again?: readonly string[];
  },
): number {
  const isAgain = practice.again?.some((name) => name === fault.ref || name === fault.id) ?? false;
  const told = (isAgain ? AGAIN_FACTOR : 1) * (fault.story && history.includes(fault.story) ? STORY_FACTOR : 1);
  if (kind) return told * historyFactor(kind, history, practice.factors) * (practice.records?.[kind] ?? 1);
  if (told > 1) return told;
  const thing = fault.effects.find((e) => e.kind === 'outside');
  return thing ? history.reduce((factor, flag) => factor * (OUTSIDE_FACTORS[flag]?.[thing.what] ?? 1), 1) : 1;
}

/** A fault no longer counts once its part is off, replaced, or the fault itself is mended; a new part's own faults begin then. */
export function isGone(fault: Fault, absent: ReadonlySet<string>, mended: ReadonlySet<string>): boolean {
  if (fault.ref !== '' && absent.has(fault.ref)) return true;
  if (fault.fresh) return !mended.has(fault.ref);
  return mended.has(fault.ref) || mended.has(fault.id);
}
