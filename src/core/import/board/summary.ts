import type { NetName } from '../../identities';
import { infer, netsOf, type ForeignBoard, type Inference } from '../../netlist';
import type { ImportQuestion } from '../importer';

export interface BoardSummary {
  readonly kind: 'board';
  readonly parts: number;
  /** Pads with a number or a designator, connected or not. */
  readonly pads: number;
  readonly unconnectedPads: number;
  readonly nets: number;
  readonly netNames: readonly string[];
  readonly ground: string | null;
  readonly ports: readonly {
    readonly connector: string;
    readonly controller: string | null;
    readonly flash: string | null;
    readonly bus: string;
    readonly cc1: string;
    readonly cc2: string;
  }[];
  readonly rails: readonly {
    readonly net: NetName;
    readonly volts: number | 'bus' | null;
    readonly from: string | null;
  }[];
  readonly outline: boolean;
  readonly copperLayers: number | null;
  readonly back: readonly string[];
  /** What a person still has to say, in sentences. */
  readonly open: readonly string[];
}

/** A board as it was read, with what was inferred of it. */
export interface ReadBoard {
  readonly foreign: ForeignBoard;
  readonly inference: Inference;
}

const NETS_SHOWN = 5000;

export function boardSummary({ foreign, inference }: ReadBoard): BoardSummary {
  const pads = foreign.parts.flatMap((p) => p.pads);
  const names = [...netsOf(foreign).keys()].sort();
  return {
    kind: 'board',
    parts: foreign.parts.length,
    pads: pads.length,
    unconnectedPads: pads.filter((p) => p.net === undefined).length,
    nets: names.length,
    netNames: names.slice(0, NETS_SHOWN),
    ground: inference.ground ?? null,
    ports: inference.ports.map((p) => ({
      connector: p.connector,
      controller: p.controller ?? null,
      flash: p.flash ?? null,
      bus: p.bus,
      cc1: p.cc1,
      cc2: p.cc2,
    })),
    rails: inference.rails.map((r) => ({ net: r.net, volts: r.volts ?? null, from: r.from ?? null })),
    outline: foreign.outlineMm !== undefined,
    copperLayers: foreign.copperLayers ?? null,
    back: foreign.parts.filter((p) => p.side === 'back').map((p) => p.ref),
    open: openOf({ foreign, inference }),
  };
}

/** What the file does not say and a person says on the board's sheet: nothing of it is needed to read the file. */
function openOf({ foreign, inference }: ReadBoard): string[] {
  return [
    ...(inference.groundDoubt !== undefined ? [`Is ${inference.ground} the ground? ${inference.groundDoubt}`] : []),
    ...(inference.ground === undefined ? ['Which net is the ground?'] : []),
    ...(inference.ports.length === 0 ? ['Which connector is the port? None has CC lines and a bus.'] : []),
    ...inference.ports.flatMap((p) => (p.controller === undefined ? [`Which chip serves ${p.connector}?`] : [])),
    ...(foreign.outlineMm ? [] : ['What is the outline of the board?']),
  ];
}

export const readBoardOf = (foreign: ForeignBoard): ReadBoard => ({ foreign, inference: infer(foreign) });

/** Two nets or designators that differ in capitals only cannot be told apart on the entry line: said, never merged. */
export function likeNames(foreign: ForeignBoard): string[] {
  const seen = new Map<string, string>();
  const like: string[] = [];
  for (const name of netsOf(foreign).keys()) {
    const before = seen.get(name.toUpperCase());
    if (before !== undefined) like.push(`${before} and ${name} differ in capitals only.`);
    seen.set(name.toUpperCase(), name);
  }
  return like.slice(0, 5);
}

export const UNITS_QUESTION: ImportQuestion = {
  id: 'units',
  why: 'The netlist does not say its unit: inch/10000 and mm/1000 are usual.',
  choices: ['inch/10000', 'mm/1000'],
};
