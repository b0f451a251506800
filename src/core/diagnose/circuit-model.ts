import type { NetName, PartRef } from '../identities';
import {
  behindNet,
  groundNet,
  partByRef,
  type Behind,
  type Board,
  type BoardFunction,
  type PlugSide,
  type Port,
} from '../board';
import type { Effect, Fault } from './faults';
import { ResistanceNetwork, type ConductanceChange } from './network';
import { solvePower, type MeterCase, type PowerSolution, type SupplyState } from './power';

/**
 * The board as a circuit: its resistances and its powered behaviour, with any faults in it and any parts off. Networks
 * and solutions are kept, so that every job on the board shares them. What an instrument shows of it is said by the
 * measurement kinds.
 */
export class CircuitModel {
  private readonly networks = new Map<string, ResistanceNetwork>();
  private readonly power = new Map<string, PowerSolution>();
  private readonly signals = new Map<string, ReadonlySet<string>>();
  /** What nets reach on the sound board. */
  private readonly soundBehind = new Map<string, Behind>();

  constructor(readonly board: Board) {}

  /** Whether a part stands for itself here; those far off on a large board do not. */
  namesPart(_ref: PartRef): boolean {
    return true;
  }

  /** The resistances of the board without some parts; cached. */
  networkWithout(absent: ReadonlySet<PartRef>): ResistanceNetwork {
    const key = [...absent].sort().join(' ');
    let network = this.networks.get(key);
    if (!network) this.networks.set(key, (network = ResistanceNetwork.ofBoard(this.board, absent)));
    return network;
  }

  /** Resistance between two nets with a fault in the circuit, ohm. */
  resistanceOhm(a: string, b: string, fault: Fault, absent: ReadonlySet<PartRef>): number {
    const network = this.networkWithout(absent);
    return network.resistanceOhm(a, b, ...conductanceChanges(fault.effects, network, groundNet(this.board)));
  }

  /** How the board comes up at one port; cached. */
  solvePower(fault: Fault, absent: ReadonlySet<PartRef>, supply: SupplyState): PowerSolution {
    const key = `${fault.id}|${[...absent].sort().join(' ')}|${supply.port}${supply.side}${supply.pack}`;
    let solution = this.power.get(key);
    if (!solution) this.power.set(key, (solution = solvePower(this.board, fault.effects, absent, supply)));
    return solution;
  }

  /** What a meter in line would see with the device closed, its pack in. */
  meterCase(port: string, side: PlugSide, fault: Fault, absent: ReadonlySet<PartRef>): MeterCase {
    return this.solvePower(fault, absent, { port, side, pack: 'in' }).meter;
  }

  /** True where the port talks to a charger one way round at least. */
  talksAt(port: Port, fault: Fault, absent: ReadonlySet<PartRef>): boolean {
    return port.sides.some(({ side }) => this.solvePower(fault, absent, { port: port.id, side, pack: 'in' }).talks);
  }

  /** True where the CC contact of this plug way is dirty. */
  isDirtyAt(portId: string, side: PlugSide, { effects }: Fault): boolean {
    const cc = portOf(this.board, portId).sides.find((s) => s.side === side)!.ccNet;
    return effects.some((e) => e.kind === 'dirty' && e.ref === portId && e.net === cc);
  }

  /** True for the CC lines of the board's ports, of one plug way where it is named. */
  isCcNet(net: NetName, side?: PlugSide): boolean {
    return this.board.ports.some((port) => port.sides.some((s) => (side ?? s.side) === s.side && s.ccNet === net));
  }

  /** Chips whose pins a net reaches through sound line filters; `cut` when a filter line on the way is open. */
  behind(net: NetName, fault: Fault, absent: ReadonlySet<PartRef>): { chips: readonly string[]; cut: boolean } {
    const opens = fault.effects.flatMap((e) => (e.kind === 'open' ? [e.element] : []));
    const sound = absent.size === 0 && opens.length === 0;
    const known = sound ? this.soundBehind.get(net) : undefined;
    if (known) return known;
    const found = behindNet(
      this.board,
      net,
      ['lineFilter'],
      (ref, line) => !absent.has(ref) && !opens.includes(`${ref}:${line}`),
    );
    if (sound) this.soundBehind.set(net, found);
    return found;
  }

  /** True where effects hit a part of the function or its signals, whatever the rails do. */
  breaksDirectly(fn: BoardFunction, effects: readonly Effect[]): boolean {
    const signals = this.signalsOf(fn);
    if (effects.some((e) => e.kind === 'software')) return true;
    const hit = effects.some((e) =>
      e.kind === 'pinOpen' || e.kind === 'jointOpen'
        ? fn.parts.includes(e.ref) && signals.has(e.net)
        : 'ref' in e && e.kind !== 'imageBad' && e.kind !== 'visible' && fn.parts.includes(e.ref),
    );
    const packFails =
      effects.some((e) => e.kind === 'outside' && e.what === 'pack') &&
      fn.parts.some((ref) => partByRef(this.board, ref)?.kind === 'batteryConnector');
    if (hit || packFails) return true;
    return effects.some(
      (e) => (e.kind === 'bridge' && signals.has(e.netA)) || (e.kind === 'shunt' && signals.has(e.net)),
    );
  }

  /** The signals that run between parts of a function; CC lines are left to the rails. */
  private signalsOf(fn: BoardFunction): ReadonlySet<string> {
    let nets = this.signals.get(fn.id);
    if (!nets) {
      const touching = new Map<string, number>();
      for (const ref of fn.parts)
        for (const net of new Set(signalNets(this.board, ref))) touching.set(net, (touching.get(net) ?? 0) + 1);
      nets = new Set([...touching].filter(([net, parts]) => parts > 1 && !this.isCcNet(net)).map(([net]) => net));
      this.signals.set(fn.id, nets);
    }
    return nets;
  }
}

export const portOf = (board: Board, id: string): Port => board.ports.find((p) => p.id === id)!;

function signalNets(board: Board, ref: PartRef): string[] {
  return Object.values(partByRef(board, ref)!.pins).filter((net) => board.nets[net].role === 'signal');
}

/** The conductance changes of effects: one for a fault, two for a double fault. */
export function conductanceChanges(
  effects: readonly Effect[],
  network: ResistanceNetwork,
  ground: string,
): ConductanceChange[] {
  return effects.flatMap((e): ConductanceChange[] => {
    if (e.kind === 'shunt') return [{ a: e.net, b: ground, siemens: 1 / e.ohm }];
    if (e.kind === 'bridge') return [{ a: e.netA, b: e.netB, siemens: 1 / e.ohm }];
    if (e.kind === 'drift') {
      const drifted = network.opening(e.element);
      // Its conductance falls from g to g/factor.
      return drifted ? [{ ...drifted, siemens: drifted.siemens * (1 - 1 / e.factor) }] : [];
    }
    return e.kind === 'open' ? [network.opening(e.element)].filter((c) => c !== undefined) : [];
  });
}
