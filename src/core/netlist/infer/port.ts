import type { ForeignBoard, ForeignPart } from '../foreign';
import { ccByName, isBusName, leafOf } from './names';
import { isBare, isChip, kindOf, lettersOf } from './kinds';
import type { Wiring } from './wiring';

/** A port that was found: its connector and nets, and the chips that serve it. */
export interface PortGuess {
  readonly connector: string;
  readonly bus: string;
  readonly cc1: string;
  readonly cc2: string;
  readonly controller?: string;
  readonly flash?: string;
  /** Filters, arrays and series parts on the CC lines. */
  readonly onCc: readonly string[];
  /** Why it is taken for a port, in a sentence. */
  readonly why: string;
}

/** Contacts of a USB Type-C receptacle. Source: USB Type-C Cable and Connector Specification, table 3-4. */
const BUS_PINS = ['A4', 'A9', 'B4', 'B9'] as const;
const CC1_PIN = 'A5';
const CC2_PIN = 'B5';

const netAt = (part: ForeignPart, pins: readonly string[]): string | undefined =>
  part.pads.find((p) => pins.includes(p.pin.toUpperCase()) && p.net !== undefined)?.net;

/** Ports: connectors with the contacts of a receptacle, or with both CC lines and a bus by name. */
export function portsOf(board: ForeignBoard, wiring: Wiring, ground: string | undefined): PortGuess[] {
  return board.parts.flatMap((part): PortGuess[] => {
    if (isChip(part) || /^(?:R|C|L|D|Q|F|FL|TP)$/.test(lettersOf(part.ref))) return [];
    const nets = [...new Set(part.pads.flatMap((p) => (p.net === undefined || p.net === ground ? [] : [p.net])))];
    const byPin = { cc1: netAt(part, [CC1_PIN]), cc2: netAt(part, [CC2_PIN]), bus: netAt(part, BUS_PINS) };
    const byName = {
      cc1: nets.find((n) => ccByName(n) === 1),
      cc2: nets.find((n) => ccByName(n) === 2),
      bus: nets.find((n) => isBusName(n)),
    };
    const [cc1, cc2, bus] = [byPin.cc1 ?? byName.cc1, byPin.cc2 ?? byName.cc2, byPin.bus ?? byName.bus];
    if (cc1 === undefined || cc2 === undefined || bus === undefined || cc1 === cc2 || cc1 === bus) return [];
    const how =
      byPin.cc1 !== undefined && byPin.bus !== undefined
        ? 'has the contacts of a receptacle'
        : 'carries both CC lines and the bus by name';
    const reach = reachOf(wiring, [cc1, cc2], ground);
    const controller = controllerOf(reach.chips, wiring, ground);
    return [
      {
        connector: part.ref,
        bus,
        cc1,
        cc2,
        controller: controller?.ref,
        flash: controller && flashOf(board, wiring, controller, ground)?.ref,
        onCc: reach.passed.map((p) => p.ref),
        why: `${part.ref} ${how}: ${leafOf(cc1)} and ${leafOf(cc2)}.`,
      },
    ];
  });
}

/** Parts that pass a line on: a filter, a series resistor, an array. */
const passes = (part: ForeignPart): boolean =>
  !isBare(part) && ['resistor', 'coil', 'lineFilter', 'esdArray', 'fuse', 'mosfet'].includes(kindOf(part).kind);

interface Reach {
  readonly chips: ReadonlyMap<ForeignPart, number>;
  readonly passed: readonly ForeignPart[];
}

/** Chips on both lines, directly or behind one part that passes them on; with how many of the lines each has. */
function reachOf(wiring: Wiring, lines: readonly string[], ground: string | undefined): Reach {
  const chips = new Map<ForeignPart, number>();
  const passed = new Set<ForeignPart>();
  for (const line of lines) {
    const near = [line];
    for (const part of wiring.partsOn(line)) {
      if (!passes(part)) continue;
      passed.add(part);
      for (const net of wiring.netsOf(part))
        if (!near.includes(net) && net !== ground && wiring.partsOn(net).length <= MOST_ON_LINE && !lines.includes(net))
          near.push(net);
    }
    // A chip that guards the lines has one of the same name behind it.
    for (const chip of wiring.partsOn(line).filter(isChip))
      near.push(...wiring.netsOf(chip).filter((net) => !near.includes(net) && ccByName(net) === ccByName(line)));
    const seen = new Set(near.flatMap((net) => wiring.partsOn(net)).filter((p) => isChip(p)));
    for (const chip of seen) chips.set(chip, (chips.get(chip) ?? 0) + 1);
  }
  return { chips, passed: [...passed] };
}

/** A line has few parts; a rail has many. */
const MOST_ON_LINE = 6;

/** The chip on both CC lines; of several the one whose words say it, else the one with the most different nets. */
function controllerOf(
  chips: ReadonlyMap<ForeignPart, number>,
  wiring: Wiring,
  ground: string | undefined,
): ForeignPart | undefined {
  const both = [...chips].filter(([, lines]) => lines === 2).map(([chip]) => chip);
  const candidates = both.length > 0 ? both : [...chips.keys()];
  const score = (chip: ForeignPart): number => {
    const { kind, sure } = kindOf(chip);
    const said = sure
      ? kind === 'portController'
        ? 100
        : kind === 'esdArray' || kind === 'mux' || kind === 'converter'
          ? -20
          : 0
      : 0;
    const guards = /\b(?:esd|protect|ovp|switch)/i.test(chip.value) ? -50 : 0;
    return said + guards + wiring.netsOf(chip).filter((n) => n !== ground).length;
  };
  return candidates.sort((a, b) => score(b) - score(a))[0];
}

const MEMORY_NET =
  /(?:^|[_.\-/])[fqrm]?(?:spi|qspi|fls|rom|flash|eep(?:rom)?|mem|sck|sclk|clk|cs|ncs|csn?|ce|mosi|miso|sdi|sdo|di|do|si|so|io[0-3]|d[0-3]|hold|wp)\d?(?:$|[_.\-/#\d])/i;
/** Lines of a bus of two wires, and lines that report or switch: many chips share those with a controller. */
const SLOW_NET = /(?:^|[_.\-/])(?:scl|sda|int|irq|alert|en|gpio|rst|reset|pg)\d*(?:$|[_.\-/])/i;
const MEMORY_PINS = 8;

/** The memory that a controller reads its image from: eight pins, four lines or more that lead to nobody else, or words that say it. */
function flashOf(
  board: ForeignBoard,
  wiring: Wiring,
  controller: ForeignPart,
  ground: string | undefined,
): ForeignPart | undefined {
  const mine = new Set(wiring.netsOf(controller).filter((n) => n !== ground));
  const score = (part: ForeignPart): number => {
    const shared = wiring.netsOf(part).filter((n) => mine.has(n) && wiring.partsOn(n).length <= MOST_ON_LINE);
    const named = shared.filter((n) => MEMORY_NET.test(leafOf(n))).length;
    const { kind, sure } = kindOf(part);
    const said = sure && kind === 'flash' ? 10 : 0;
    if (sure && kind !== 'flash') return 0;
    const pins = new Set(part.pads.map((p) => p.pin)).size;
    const shape = pins === MEMORY_PINS || pins === MEMORY_PINS + 1 ? 2 : pins <= 6 ? 0 : -4;
    if (said === 0 && shared.length < 3) return 0;
    const slow = shared.filter((n) => SLOW_NET.test(leafOf(n))).length;
    return shared.length === 0 ? 0 : said + shape + named + Math.min(shared.length, 6) - 2 * slow;
  };
  const best = board.parts
    .filter((p) => isChip(p) && p !== controller)
    .map((part) => ({ part, score: score(part) }))
    .sort((a, b) => b.score - a.score)[0];
  return best && best.score >= LEAST_MEMORY ? best.part : undefined;
}
/** Below it a chip is none of a controller's memories: four lines that lead to nobody else, on eight pins. Engineering estimate. */
const LEAST_MEMORY = 6;
