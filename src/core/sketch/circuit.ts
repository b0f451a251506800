import type { NetName, PartRef } from '../identities';
import type { z } from 'zod';
import type { PartKind, boardSchema } from '../board';
import type { Answers } from './answers';
import type { UsualRail } from './levels';

/** A part of a generic circuit: what it is, the nets it is on in the order of its pins, and where it mostly sits. */
export interface CircuitPart {
  readonly ref: PartRef;
  readonly kind: PartKind;
  readonly what: string;
  /** Name of a land pattern; where it was answered rather than assumed, `known`. */
  readonly pattern: string;
  readonly known?: boolean;
  /** Nets in the order of the pins, ground left to the last ones; by name where the pins have fixed meanings. */
  readonly nets: readonly NetName[] | Readonly<Record<string, string>>;
  /** Supplies that it loads. */
  readonly loads?: readonly string[];
  /** Where it mostly sits, as shares of the board's width and height. */
  readonly at: readonly [number, number];
  readonly required?: boolean;
  readonly optional?: boolean;
  readonly ohm?: number;
}

type BoardInput = z.input<typeof boardSchema>;
type RailInput = BoardInput['rails'][number];

/** A generic circuit as data: parts, the rails in the order in which they come up, ports and functions. */
export interface Circuit {
  readonly parts: readonly CircuitPart[];
  readonly rails: readonly (RailInput & { readonly usual: UsualRail })[];
  readonly ports: BoardInput['ports'];
  readonly functions: BoardInput['functions'];
}

export const GROUND = 'GND';

/** Levels of rails that follow what nobody has asked yet, V, with the share within which they lie. Common practice, no source. */
const ONE_CELL = { volts: 3.8, tolerance: 0.2 };
const FEW_CELLS = { volts: 9, tolerance: 0.5 };
const CORE_SUPPLY = { volts: 1.65, tolerance: 0.16 };
/** What a device takes from its charger when all is well, A: wide, since nobody has seen it charge. Common practice. */
const HEALTHY_A: [number, number] = [0.15, 3.2];
/** Minutes to try a function. Engineering estimates. */
const MINUTES = { charge: 3, data: 2, start: 3, dock: 4 };

const fixed = (
  id: string,
  level: { volts: number; tolerance?: number },
  usual: UsualRail,
  feed: RailInput['feeds'][number],
) => ({
  id,
  net: id,
  expect: { kind: 'fixed' as const, volts: level.volts },
  ...(level.tolerance !== undefined && { tolerance: level.tolerance }),
  feeds: [feed],
  usual,
});
const bus = (id: string, usual: UsualRail, feeds: RailInput['feeds'], port?: string) => ({
  id,
  net: id,
  expect: { kind: 'bus' as const },
  feeds,
  usual,
  ...(port !== undefined && { port }),
});

/** The way from a port to where its power joins the rest, and the chip that speaks at it. */
interface PortCircuit extends Pick<Circuit, 'parts' | 'rails' | 'ports'> {
  /** How this port feeds the charger's input. */
  readonly feed: RailInput['feeds'][number];
}

/** Contacts of a receptacle by net, both rows; what runs to other parts only. Source: USB Type-C, receptacle pins. */
function contactsOf(n: string): Record<string, string> {
  const pins: Record<string, string> = {};
  for (const pin of ['A1', 'A12', 'B1', 'B12', 'S1', 'S2', 'S3', 'S4']) pins[pin] = GROUND;
  for (const pin of ['A4', 'A9', 'B4', 'B9']) pins[pin] = `VBUS${n}`;
  pins.A5 = `CC1${n && `_${n}`}`;
  pins.B5 = `CC2${n && `_${n}`}`;
  for (const pin of ['A6', 'B6']) pins[pin] = `DP${n && `_${n}`}`;
  for (const pin of ['A7', 'B7']) pins[pin] = `DN${n && `_${n}`}`;
  return pins;
}

/**
 * One port: connector, clamp, ESD parts, fuse, switch, controller with its own supplies.
 * @param n number in names where there are several; empty for one. @param share where it sits down the board's edge.
 */
function portCircuit(answers: Answers, n: string, down: (share: number) => number): PortCircuit {
  const name = (ref: PartRef): string => `${ref}${n}`;
  const net = (base: string): string => (n ? `${base}_${n}` : base);
  const [vbus, behind, gate] = [`VBUS${n}`, `VBUSF${n}`, net('GATE')];
  const [supply, core] = [`LDO33${n}`, `LDO18${n}`];
  const talks = answers.archetype !== 'fiveVolts';
  const memory = talks && answers.memory;
  const bus4 = ['FCS', 'FCLK', 'FDI', 'FDO'];
  const controller = name('U1');
  const [j, f, q] = [name('J1'), name('F1'), name('Q1')];
  const signals = [net('CC1'), net('CC2'), net('DP'), net('DN'), gate, ...(memory ? bus4 : []), 'SCL', 'SDA', 'IRQ'];
  return {
    parts: [
      {
        ref: j,
        kind: 'connector',
        what: 'USB Type-C port',
        pattern: 'PORT-24',
        nets: contactsOf(n),
        at: [0.08, down(0.5)],
      },
      {
        ref: name('D3'),
        kind: 'clampDiode',
        what: 'port clamp',
        pattern: 'DIODE-2',
        nets: [vbus, GROUND],
        at: [0.2, down(0.34)],
      },
      {
        ref: name('D1'),
        kind: 'esdArray',
        what: 'ESD array at CC1',
        pattern: 'ESD-3',
        nets: [net('CC1'), net('DP'), GROUND],
        at: [0.2, down(0.44)],
        optional: true,
      },
      {
        ref: name('D2'),
        kind: 'esdArray',
        what: 'ESD array at CC2',
        pattern: 'ESD-3',
        nets: [net('CC2'), net('DN'), GROUND],
        at: [0.2, down(0.56)],
        optional: true,
      },
      {
        ref: f,
        kind: 'fuse',
        what: 'fuse behind the port',
        pattern: 'CHIP-3216',
        nets: [vbus, behind],
        at: [0.2, down(0.66)],
      },
      {
        ref: q,
        kind: 'mosfet',
        what: 'power switch of the port',
        pattern: 'FET-3.3',
        nets: [gate, behind, 'VIN'],
        at: [0.32, down(0.62)],
      },
      {
        ref: controller,
        kind: 'portController',
        what: talks ? 'port controller' : 'interface chip',
        pattern: answers.controllerPackage,
        known: true,
        nets: [...signals, behind, supply, ...(talks ? [core] : [])],
        loads: [behind, supply, ...(talks ? [core] : [])],
        at: [0.36, down(0.4)],
      },
      ...[vbus, behind, supply, ...(talks ? [core] : [])].map((rail, i): CircuitPart => ({
        ref: n ? `C${n}${i + 1}` : `C${i + 1}`,
        kind: 'capacitor',
        what: `capacitor at ${rail}`,
        pattern: i < 2 ? 'CHIP-1608' : 'CHIP-1005',
        nets: [rail, GROUND],
        at: [0.26 + 0.05 * i, down(0.7)],
      })),
    ],
    rails: [
      bus(vbus, 'bus', [{ from: null }], n ? j : undefined),
      bus(behind, 'bus', [{ from: vbus, via: [f] }], n ? j : undefined),
      fixed(supply, { volts: 3.3 }, 'controllerSupply', { from: behind, by: controller }),
      ...(talks
        ? [
            fixed(core, CORE_SUPPLY, 'controllerSupply', {
              from: supply,
              by: controller,
              ...(memory && { needs: ['image'] }),
            }),
          ]
        : []),
    ],
    ports: [
      {
        id: j,
        designV: answers.archetype === 'fiveVolts' ? 5 : answers.designV,
        healthyA: HEALTHY_A,
        controller,
        ...(memory && { imagePart: 'U3' }),
        controllerRails: talks ? [supply, core] : [supply],
        vbusRail: vbus,
        sides: [
          { side: 'A', ccNet: net('CC1'), path: [j] },
          { side: 'B', ccNet: net('CC2'), path: [j] },
        ],
      },
    ],
    feed: { from: behind, via: [q], needs: ['talk'] },
  };
}

/** Charger, coil, pack, the system's 3.3 V, its processor and the mux: the same behind every port. */
function systemCircuit(
  answers: Answers,
): Pick<Circuit, 'parts' | 'rails' | 'functions'> & { readonly charger: string } {
  const oneChip = answers.archetype === 'oneChip';
  const charger = oneChip ? 'U1' : 'U2';
  const cells = answers.archetype === 'fiveVolts' || oneChip ? ONE_CELL : FEW_CELLS;
  const dock = answers.archetype === 'dock';
  return {
    charger,
    parts: [
      ...(oneChip
        ? []
        : [
            {
              ref: 'U2',
              kind: 'chargeController',
              what: 'charge controller',
              pattern: answers.chargerPackage,
              known: true,
              nets: ['VIN', 'SWC', 'SCL', 'SDA', 'IRQ', 'VSYS', 'VPACK', 'PGATE'],
              loads: ['VIN', 'VSYS', 'VPACK'],
              at: [0.58, 0.4],
            } satisfies CircuitPart,
          ]),
      {
        ref: 'L1',
        kind: 'coil',
        what: 'coil of the charger',
        pattern: 'COIL-4040',
        nets: ['SWC', 'VSYS'],
        at: [0.7, 0.4],
      },
      {
        ref: 'Q2',
        kind: 'mosfet',
        what: 'switch of the pack',
        pattern: 'FET-3.3',
        nets: ['PGATE', 'VSYS', 'VPACK'],
        at: [0.7, 0.7],
      },
      {
        ref: 'J2',
        kind: 'batteryConnector',
        what: 'battery connector',
        pattern: 'PACK-4',
        nets: { 1: 'VPACK', 2: 'VPACK', 3: GROUND, 4: GROUND },
        at: [0.7, 0.86],
      },
      {
        ref: 'U6',
        kind: 'converter',
        what: '3.3 V converter',
        pattern: 'QFN-16-0.5',
        nets: ['VSYS', 'SW3', 'V33'],
        loads: ['VSYS', 'V33'],
        at: [0.84, 0.3],
      },
      { ref: 'L2', kind: 'coil', what: '3.3 V coil', pattern: 'COIL-2520', nets: ['SW3', 'V33'], at: [0.92, 0.3] },
      {
        ref: 'U8',
        kind: 'processor',
        what: 'processor',
        pattern: 'BGA-100-0.8',
        nets: ['V33', 'SCL', 'SDA', 'IRQ', 'HDP', 'HDN'],
        loads: ['V33'],
        at: [0.84, 0.6],
        required: true,
      },
      {
        ref: 'U5',
        kind: 'mux',
        what: 'data mux',
        pattern: 'QFN-24-0.5',
        nets: [...dataNets(answers), 'HDP', 'HDN', 'V33'],
        loads: ['V33'],
        at: [0.56, 0.14],
      },
      ...(dock
        ? [
            {
              ref: 'U7',
              kind: 'mux',
              what: 'bridge of the dock’s picture',
              pattern: 'QFN-40-0.5',
              nets: ['V33', 'VDOCK', 'HDP', 'HDN', 'SCL', 'SDA'],
              loads: ['V33', 'VDOCK'],
              at: [0.7, 0.14],
            } satisfies CircuitPart,
          ]
        : []),
      ...['VIN', 'VSYS', 'VPACK', 'V33', ...(dock ? ['VDOCK'] : [])].map((rail, i): CircuitPart => ({
        ref: `C${6 + i}`,
        kind: 'capacitor',
        what: `capacitor at ${rail}`,
        pattern: i < 3 ? 'CHIP-2012' : 'CHIP-1005',
        nets: [rail, GROUND],
        at: [0.5 + 0.09 * i, 0.56],
      })),
    ],
    rails: [
      fixed('VSYS', cells, 'system', { from: 'VIN', via: ['L1'], by: charger }),
      fixed('VPACK', cells, 'pack', { from: 'VSYS', via: ['Q2'] }),
      fixed('V33', { volts: 3.3 }, 'systemSupply', { from: 'VSYS', via: ['L2'], by: 'U6' }),
      ...(dock ? [fixed('VDOCK', CORE_SUPPLY, 'systemSupply', { from: 'V33', by: 'U7' })] : []),
    ],
    functions: [
      { id: 'start', what: 'the device starts', parts: ['U8'], rails: ['V33'], minutes: MINUTES.start },
      {
        id: 'data',
        what: 'a memory stick is read at the port',
        parts: ['U5', 'U8'],
        rails: ['V33'],
        minutes: MINUTES.data,
      },
      ...(dock
        ? [{ id: 'dock', what: 'a dock shows a picture', parts: ['U7', 'U8'], rails: ['VDOCK'], minutes: MINUTES.dock }]
        : []),
    ],
  };
}

const dataNets = ({ archetype, ports }: Answers): string[] =>
  archetype === 'sharedMemory' && ports > 1
    ? Array.from({ length: ports }, (_, i) => [`DP_${i + 1}`, `DN_${i + 1}`]).flat()
    : ['DP', 'DN'];

/** The generic circuit of an archetype with what was answered. */
export function circuitOf(answers: Answers): Circuit {
  const several = answers.archetype === 'sharedMemory' && answers.ports > 1;
  const count = several ? answers.ports : 1;
  const ports = Array.from({ length: count }, (_, i) =>
    portCircuit(answers, several ? String(i + 1) : '', (y) => (i + y) / count),
  );
  const system = systemCircuit(answers);
  const talks = answers.archetype !== 'fiveVolts';
  const shared = ports[0].rails.find((r) => r.usual === 'controllerSupply')!.id;
  const parts = [...ports.flatMap((p) => p.parts), ...system.parts];
  if (talks && answers.memory)
    parts.push({
      ...{ ref: 'U3', kind: 'flash', what: 'memory of the image', pattern: 'SON-8-0.5' },
      ...{ nets: { 1: 'FCS', 2: 'FDO', 4: GROUND, 5: 'FDI', 6: 'FCLK', 8: shared }, loads: [shared], at: [0.46, 0.3] },
    });
  const charge = ports.map(({ ports: [{ id, vbusRail }] }, i) => ({
    ...{ id: i === 0 ? 'charge' : `charge-${i + 1}`, what: `it charges its pack${several ? ` at ${id}` : ''}` },
    ...{ parts: [id, system.charger, 'J2'], rails: [vbusRail, 'VSYS', 'VPACK'], minutes: MINUTES.charge },
  }));
  return {
    parts: answers.archetype === 'oneChip' ? parts.map(withCharger) : parts,
    rails: [
      ...ports.flatMap((p) => p.rails),
      bus(
        'VIN',
        'chargerInput',
        ports.map((p) => p.feed),
      ),
      ...system.rails,
    ],
    ports: ports.flatMap((p) => p.ports),
    functions: [...charge, ...system.functions],
  };
}

/** The chip at the port is the charger too. */
const withCharger = (part: CircuitPart): CircuitPart =>
  part.ref === 'U1'
    ? {
        ...part,
        what: 'port and charge control',
        nets: [...(part.nets as readonly string[]), 'VIN', 'SWC', 'VSYS', 'VPACK', 'PGATE'],
        loads: [...(part.loads ?? []), 'VIN', 'VSYS', 'VPACK'],
      }
    : part;
