import type { NetName, PartRef } from '../identities';
import { CHIP_KINDS, named, parseBoard, type Board, type PartKind } from '../board';
import { valueOf } from './value';
import { ALLOYS } from '../joints';
import { fail, type Result } from '../result';
import { parseFigure } from '../units';
import { firstFew, type BoardDraft } from './draft';
import type { PortGuess } from './infer';

/** What a person says of a draft, as typed: names, figures and lists of designators. */
export interface Completion {
  readonly id: string;
  readonly device: string;
  readonly name: string;
  readonly revision: string;
  readonly thicknessMm: string;
  readonly copperLayers: string;
  readonly groundNet: string;
  readonly kinds: Readonly<Record<string, PartKind>>;
  /** Values of resistors, as typed: `10k`. */
  readonly ohms: Readonly<Record<string, string>>;
  readonly ports: readonly PortCompletion[];
  readonly rails: readonly RailCompletion[];
  readonly functions: readonly FunctionCompletion[];
  /** Plastic bodies, and parts with underfill of their own, as lists of designators. */
  readonly plastic: string;
  readonly underfilled: string;
}

export interface PortCompletion {
  readonly connector: string;
  readonly controller: string;
  /** Empty where the controller keeps its image itself. */
  readonly imagePart: string;
  readonly designV: string;
  readonly healthyA: string;
  readonly busNet: string;
  readonly cc1Net: string;
  readonly cc2Net: string;
  /** Rails that the controller needs before it can talk. */
  readonly controllerRails: string;
}

/** One rail, in the order in which they come up. */
export interface RailCompletion {
  readonly net: NetName;
  /** A voltage, or `bus` where it follows the port. */
  readonly volts: string;
  /** The rail it comes from; empty for the port itself. */
  readonly from: string;
  /** What makes it; empty where it is passed on. */
  readonly by: string;
  readonly via: string;
  readonly needs: '' | 'image' | 'talk';
}

export interface FunctionCompletion {
  readonly what: string;
  readonly parts: string;
  readonly rails: string;
  readonly minutes: string;
}

/** What is still missing, with the section in which it is said. */
export interface Check {
  readonly section: CompletionSection;
  readonly message: string;
}
export type CompletionSection = 'names' | 'parts' | 'port' | 'rails' | 'functions' | 'limits';

/** Plastic connectors suffer from here, °C. Common practice, no source: well below the liquidus of lead-free solder. */
const PLASTIC_C = 200;
/** Joints of a part with underfill of its own stay this far below the solidus of lead-free solder, K. Engineering estimate. */
const UNDERFILLED_MARGIN_K = 10;
const UNDERFILLED_C = ALLOYS.SAC305.solidusC - UNDERFILLED_MARGIN_K;
/**
 * What a chip's supply input reads to ground until a good board was read, ohm, and within which factor; copper of a layer; diode
 * drops of power and signal contacts, and how far they may lie off. Common practice, no source: supplies read 0.5 to 500 kΩ, drops
 * 0.2 to 0.8 V.
 */
const LOAD_OHM = 20_000;
const LOAD_WITHIN = 25;
const DROP_WITHIN_V = 0.2;
const COPPER_UM = 18;
const COVERAGE = 0.6;
const POWER_DROP_V = 0.45;
const SIGNAL_DROP_V = 0.265;

interface DraftPart {
  readonly ref: PartRef;
  readonly kind: PartKind;
  readonly ohm?: number;
  readonly pins: Readonly<Record<string, string>>;
}

const partsOf = ({ board }: BoardDraft): readonly DraftPart[] => board.parts as readonly DraftPart[];
const netsOf = ({ board }: BoardDraft): Readonly<Record<string, { readonly role: string }>> =>
  board.nets as Readonly<Record<string, { readonly role: string }>>;

/** What a draft already says and what was inferred of it, for a person to confirm; the rest empty. */
export function startCompletion(draft: BoardDraft): Completion {
  const { inference, near, board } = draft;
  return {
    id: String(board.id),
    device: '',
    name: '',
    revision: '',
    thicknessMm: String(board.thicknessMm ?? '1.0'),
    copperLayers: String(board.copperLayers ?? ''),
    groundNet: inference.ground ?? '',
    kinds: Object.fromEntries(partsOf(draft).map((p) => [p.ref, p.kind])),
    ohms: Object.fromEntries(partsOf(draft).flatMap((p) => (p.ohm === undefined ? [] : [[p.ref, String(p.ohm)]]))),
    ports: inference.ports.length > 0 ? inference.ports.map((port) => startPort(draft, port)) : [EMPTY_PORT],
    rails: (near?.rails ?? inference.rails).map((rail): RailCompletion => ({
      net: rail.net,
      volts: rail.volts === undefined ? '' : String(rail.volts),
      from: rail.from ?? '',
      by: rail.by ?? '',
      via: rail.via.join(' '),
      needs: '',
    })),
    functions: [],
    plastic: '',
    underfilled: '',
  };
}

export const EMPTY_PORT: PortCompletion = {
  connector: '',
  controller: '',
  imagePart: '',
  designV: '',
  healthyA: '0.4 0.8',
  busNet: '',
  cc1Net: '',
  cc2Net: '',
  controllerRails: '',
};

const startPort = (draft: BoardDraft, port: PortGuess): PortCompletion => ({
  ...EMPTY_PORT,
  connector: port.connector,
  controller: port.controller ?? '',
  imagePart: port.flash ?? '',
  busNet: port.bus,
  cc1Net: port.cc1,
  cc2Net: port.cc2,
  controllerRails: port.controller === undefined ? '' : controllerRails(draft, port.controller).join(' '),
});

/** Fixed rails on a chip: what it needs before it can talk. */
function controllerRails(draft: BoardDraft, controller: string): string[] {
  const nets = new Set(Object.values(partsOf(draft).find((p) => p.ref === controller)?.pins ?? {}));
  return (draft.near?.rails ?? draft.inference.rails)
    .filter((r) => r.volts !== 'bus' && nets.has(r.net))
    .map((r) => r.net);
}

/** Names in a list, as they stand on the board where it has them. */
const listOf = (text: string, known: ReadonlySet<string>): string[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map((name) => named(known, name) ?? name);

const refsOf = (draft: BoardDraft): ReadonlySet<string> => new Set(partsOf(draft).map((p) => p.ref));
const oneOf = (text: string, known: ReadonlySet<string>): string => named(known, text.trim()) ?? text.trim();

const figure = (text: string): number | undefined => {
  const parsed = parseFigure(text);
  return parsed.ok ? parsed.value : undefined;
};

const ohmOf = (said: Completion, ref: PartRef): number | undefined => {
  const text = said.ohms[ref] ?? '';
  return figure(text.replace(/\s*(ohm|Ω|r)$/i, '')) ?? valueOf(text);
};

/** Nets as they stand on the board, whatever capitals they were typed with. */
function asOnBoard(draft: BoardDraft, said: Completion): Completion {
  const nets = new Set(Object.keys(netsOf(draft)));
  const net = (text: string): string => oneOf(text, nets);
  return {
    ...said,
    groundNet: net(said.groundNet),
    ports: said.ports.map((port) => ({
      ...port,
      busNet: net(port.busNet),
      cc1Net: net(port.cc1Net),
      cc2Net: net(port.cc2Net),
    })),
    rails: said.rails.map((r) => ({ ...r, net: net(r.net), from: net(r.from) })),
  };
}

/** Everything that is still missing or does not fit, section by section; empty once the board can be added. */
export function completionChecks(draft: BoardDraft, typed: Completion): Check[] {
  const said = asOnBoard(draft, typed);
  const refs = refsOf(draft);
  const nets = netsOf(draft);
  const names = new Set([...refs, ...Object.keys(nets)]);
  const list = (text: string): string[] => listOf(text, names);
  const rails = new Set(said.rails.map((r) => r.net));
  const checks: Check[] = [];
  const want = (section: CompletionSection, holds: boolean, message: string): void => {
    if (!holds) checks.push({ section, message });
  };
  const wantParts = (section: CompletionSection, text: string, whose: string): void => {
    const unknown = list(text).filter((ref) => !refs.has(ref));
    want(section, unknown.length === 0, `${whose}: expected parts of this board; got ${unknown.join(', ')}.`);
  };
  want('names', /^[a-z0-9-]+$/.test(said.id), 'Give the board an id of small letters, digits and hyphens.');
  want(
    'names',
    [said.device, said.name, said.revision].every((t) => t.trim()),
    'Name device, board and revision.',
  );
  want('names', (figure(said.thicknessMm) ?? 0) > 0, 'Give the board’s thickness in millimetres.');
  want('names', (figure(said.copperLayers) ?? 0) >= 1, 'Give the number of copper layers.');
  want('names', nets[said.groundNet] !== undefined, 'Name the ground net.');
  want('port', said.ports.length > 0, 'List at least one port.');
  for (const port of said.ports) {
    const whose = said.ports.length > 1 ? ` of ${port.connector || 'each port'}` : '';
    want('port', refs.has(oneOf(port.connector, refs)), `Name the port’s connector${whose}.`);
    want('port', refs.has(oneOf(port.controller, refs)), `Name the port’s controller${whose}.`);
    want(
      'port',
      port.imagePart.trim() === '' || refs.has(oneOf(port.imagePart, refs)),
      `Image part${whose}: expected a part of this board, or nothing where the controller keeps its image; got ${port.imagePart}.`,
    );
    want('port', (figure(port.designV) ?? 0) >= 5, `Give the port’s design level in volts${whose}.`);
    want(
      'port',
      healthyRange(port.healthyA) !== undefined,
      `Give the lowest and highest healthy current, as 0.4 0.8${whose}.`,
    );
    want(
      'port',
      nets[port.cc1Net] && nets[port.cc2Net] ? port.cc1Net !== port.cc2Net : false,
      `Name both CC nets${whose}.`,
    );
    want('port', rails.has(port.busNet), `List the net of the bus among the rails${whose}.`);
    const needed = list(port.controllerRails);
    want(
      'port',
      needed.length > 0 && needed.every((r) => rails.has(r)),
      `Name the rails that the controller needs${whose}.`,
    );
    want(
      'parts',
      said.kinds[oneOf(port.controller, refs)] !== 'converter',
      `Say that the controller is a port controller${whose}.`,
    );
  }
  const unvalued = partsOf(draft).filter((p) => said.kinds[p.ref] === 'resistor' && !(ohmOf(said, p.ref)! > 0));
  want('parts', unvalued.length === 0, `Give these resistors their values: ${firstFew(unvalued.map((p) => p.ref))}.`);
  said.rails.forEach((rail, i) => {
    want('rails', nets[rail.net] !== undefined, `Rail ${i + 1}: expected a net of this board; got "${rail.net}".`);
    want('rails', rail.volts === 'bus' || (figure(rail.volts) ?? 0) > 0, `${rail.net}: give its volts, or say bus.`);
    const before = said.rails.slice(0, i).some((r) => r.net === rail.from);
    want('rails', rail.from === '' || before, `${rail.net}: it comes from ${rail.from}, which must stand before it.`);
    wantParts('rails', `${rail.via} ${rail.by}`, rail.net);
  });
  want(
    'rails',
    said.rails.some((r) => r.from === ''),
    'One rail must come from the port: leave its source empty.',
  );
  want('functions', said.functions.length > 0, 'List at least one function, such as: charges its pack.');
  for (const f of said.functions) {
    want('functions', f.what.trim() !== '' && list(f.parts).length > 0, 'Give every function its words and its parts.');
    want('functions', (figure(f.minutes) ?? 0) > 0, `${f.what || 'A function'}: give the minutes it takes to try.`);
    want(
      'functions',
      list(f.rails).every((r) => rails.has(r)),
      `${f.what}: its rails must be among the rails.`,
    );
    wantParts('functions', f.parts, f.what);
  }
  wantParts('limits', said.plastic, 'Plastic bodies');
  wantParts('limits', said.underfilled, 'Own underfill');
  return checks;
}

const healthyRange = (text: string): [number, number] | undefined => {
  const [low, high] = text.split(/[\s,;]+/).map((t) => figure(t));
  return low !== undefined && high !== undefined && high > low ? [low, high] : undefined;
};

/** The board that draft and completion make together, checked as any board file is. */
export function completeBoard(draft: BoardDraft, typed: Completion): Result<Board> {
  const [open] = completionChecks(draft, typed);
  if (open) return fail(open.message);
  const said = asOnBoard(draft, typed);
  const refs = refsOf(draft);
  const rails = new Set(said.rails.map((r) => r.net));
  const names = new Set([...refs, ...Object.keys(netsOf(draft))]);
  const list = (text: string): string[] => listOf(text, names);
  const plastic = new Set(list(said.plastic));
  const underfilled = new Set(list(said.underfilled));
  const connectors = new Set(said.ports.map((p) => oneOf(p.connector, refs)));
  const portNets = new Set(
    partsOf(draft)
      .filter((p) => connectors.has(p.ref))
      .flatMap((p) => Object.values(p.pins)),
  );
  const roleOf = (net: NetName): string =>
    net === said.groundNet
      ? 'ground'
      : rails.has(net)
        ? 'power'
        : netsOf(draft)[net].role === 'power'
          ? 'power'
          : 'signal';
  return parseBoard({
    ...draft.board,
    id: said.id,
    device: said.device.trim(),
    name: said.name.trim(),
    revision: said.revision.trim(),
    thicknessMm: figure(said.thicknessMm),
    layers: Array.from({ length: Math.round(figure(said.copperLayers)!) }, (_, i) => ({
      name: `L${i + 1}`,
      copperUm: COPPER_UM,
      coverage: COVERAGE,
    })),
    nets: Object.fromEntries(
      Object.keys(netsOf(draft)).map((net) => {
        const role = roleOf(net);
        const diodeV = role === 'power' ? POWER_DROP_V : SIGNAL_DROP_V;
        return [net, { role, ...(role !== 'ground' && portNets.has(net) && { diodeV, diodeWithinV: DROP_WITHIN_V }) }];
      }),
    ),
    parts: partsOf(draft).map((part) => ({
      ...part,
      kind: said.kinds[part.ref],
      ...(said.kinds[part.ref] === 'resistor' && { ohm: ohmOf(said, part.ref) }),
      // What was typed over an assumption is known.
      ...(said.ohms[part.ref] !== String(part.ohm) && { assumed: undefined }),
      ...(CHIP_KINDS.has(said.kinds[part.ref]) && loadsOf(part, rails)),
      ...(plastic.has(part.ref) && { bodyLimitC: PLASTIC_C }),
      ...(underfilled.has(part.ref) && { underfilled: true, jointLimitC: UNDERFILLED_C }),
    })),
    rails: said.rails.map((rail) => railOf(rail, list)),
    ports: said.ports.map((port) => portOf(port, refs, list)),
    functions: said.functions.map((f, i) => ({
      id: `function-${i + 1}`,
      what: f.what.trim(),
      parts: list(f.parts),
      rails: list(f.rails),
      minutes: figure(f.minutes),
    })),
  });
}

function loadsOf(
  part: DraftPart,
  rails: ReadonlySet<string>,
): Pick<Board['parts'][number], 'loadsOhm' | 'loadsWithin'> {
  const nets = [...new Set(Object.values(part.pins))].filter((n) => rails.has(n));
  const all = (figure: number): Record<string, number> => Object.fromEntries(nets.map((n) => [n, figure]));
  return { loadsOhm: all(LOAD_OHM), loadsWithin: all(LOAD_WITHIN) };
}

const railOf = (rail: RailCompletion, list: (text: string) => string[]): object => ({
  id: rail.net,
  net: rail.net,
  expect: rail.volts === 'bus' ? { kind: 'bus' } : { kind: 'fixed', volts: figure(rail.volts) },
  feeds: [
    {
      from: rail.from || null,
      via: list(rail.via),
      by: list(rail.by)[0] ?? null,
      needs: rail.needs === '' ? [] : [rail.needs],
    },
  ],
});

function portOf(port: PortCompletion, refs: ReadonlySet<string>, list: (text: string) => string[]): object {
  const connector = oneOf(port.connector, refs);
  return {
    id: connector,
    designV: figure(port.designV),
    healthyA: healthyRange(port.healthyA),
    controller: oneOf(port.controller, refs),
    ...(port.imagePart.trim() !== '' && { imagePart: oneOf(port.imagePart, refs) }),
    controllerRails: list(port.controllerRails),
    vbusRail: port.busNet,
    sides: [
      { side: 'A', ccNet: port.cc1Net, path: [connector] },
      { side: 'B', ccNet: port.cc2Net, path: [connector] },
    ],
  };
}
