import type { NetName, PartRef } from '../../identities';
import type { z } from 'zod';
import type { Board, ProbePlace, Shield } from '../../board';
import type { CommandDefinition } from '../../command-line';
import type { ReferenceTable } from '../../reference';
import type { Access } from '../access';
import type { CircuitModel } from '../circuit-model';
import type { Fault } from '../faults';
import type { FaultPartition, Partitioner } from '../partitioner';
import type { Prediction } from '../prediction';
import type { Value } from '../value';
import type { Scale } from './scale';

/** A point on the board that a place should be near to. */
export interface Near {
  readonly xMm: number;
  readonly yMm: number;
}

/** What a reading says about its point, before any part is blamed. */
export interface Interpretation {
  readonly message: string;
  readonly state: 'good' | 'bad' | 'plain';
}

/** What an interpretation may ask: the board as it is, what good boards read, and what a sound board would read here. */
export interface InterpretationContext {
  readonly model: CircuitModel;
  readonly absent: ReadonlySet<PartRef>;
  readonly references: ReferenceTable;
  /** What good boards read at this point, where they were read. */
  readonly goodBoards: ReferenceTable[string] | undefined;
  /** What a sound board reads here in its present state, in the units of the prediction: its centre, and its spread with what is not known. */
  readonly sound: () => Sound;
}

/** What a sound board reads. */
export interface Sound {
  readonly mean: number;
  readonly sd: number;
}

/** What power a test puts on the board: none, the charger's at a port, any port's, or a limited current into one net. */
export type PowerNeed =
  | { readonly kind: 'none' }
  | { readonly kind: 'port'; readonly port: string }
  | { readonly kind: 'anyPort' }
  | { readonly kind: 'injected'; readonly net: NetName };

export const UNPOWERED: PowerNeed = { kind: 'none' };

/** A fault with its chance, alone or with another. */
export interface LikelyFault {
  readonly fault: Fault;
  readonly p: number;
}

/** What a proposal may ask of the belief: the faults likeliest first, parts that are off, parts that were replaced. */
export interface ProposalContext {
  readonly board: Board;
  readonly likely: readonly LikelyFault[];
  readonly absent: ReadonlySet<PartRef>;
  readonly replaced: ReadonlySet<string>;
}

/** What a typed measurement line reads of its world. */
export interface MeasurementLineContext {
  readonly board: Board;
  /** How a bare figure is taken: ohms while probing unpowered, volts while proving. */
  readonly mode: 'ohm' | 'volt';
}

/** A measurement with its value, as a typed line, a pointer or an instrument makes it. */
export interface MeasurementEntry<M = { readonly kind: string }> {
  readonly measurement: M;
  readonly value: Value;
  /** What the echo calls the measurement, where the line says it better than its title. */
  readonly title?: string;
  /** The whole echo, where title and value do not say it well. */
  readonly echo?: string;
}

/**
 * One kind of measurement: everything that the program knows of it. The registry holds them all; nothing outside this
 * folder asks for a kind by its name to find out one of these things.
 */
export interface MeasurementDefinition<M extends { readonly kind: string }> {
  readonly kind: M['kind'];
  readonly schema: z.ZodType<M> & z.core.$ZodTypeDiscriminable;
  /** What the kind is called where its error rate is set. */
  readonly label: string;
  /** One point, one id. Ids are stored with readings on good boards: their form does not change. */
  readonly id: (m: M) => string;
  /** Tests that a board offers at any time. */
  readonly offered: (board: Board) => readonly M[];
  /** Tests that only a belief makes worth proposing, likeliest first. */
  readonly proposed?: (context: ProposalContext) => readonly M[];
  /** Why a measurement does not speak of this board, or nothing. */
  readonly misfit: (board: Board, m: M) => string | undefined;
  /** As an instruction: `TP7 to ground, resistance`. */
  readonly title: (board: Board, m: M, near?: Near) => string;
  /** Where a reading was taken, short: `C14`, `VBUS, A way`. */
  readonly name: (board: Board, m: M) => string;
  /** Where the probe goes, nearest to `near` where there is a choice. */
  readonly place: (board: Board, m: M, near?: Near) => ProbePlace | undefined;
  readonly access: (m: M) => Access;
  /** Minutes for the test itself, opening left out. */
  readonly minutes: (board: Board, m: M) => number;
  /** The shield that has to come off first. */
  readonly shield: (board: Board, m: M) => Shield | undefined;
  readonly power: (m: M) => PowerNeed;
  /** What a meter on a line reads it with; undefined for what no meter reads alone. Of a two-lead reading the hand holds both. */
  readonly meterReads?: 'V' | 'Ω' | 'drop';
  /** What has to be minded where the test is taken. */
  readonly caution?: string;
  /** Share of readings that are simply wrong: a slipped probe, a bad ground clip, a misread display. A bench may set its own. */
  readonly errorRate: number;
  /** True where another charger, cable or pack may change the reading. */
  readonly seesSwaps: boolean;
  /** True where a contact that comes and goes shows each time: a look, a finger on it. */
  readonly meetsAlways?: boolean;
  /** True where it belongs to the Outside stage: taken at the port, the device closed. */
  readonly outside: boolean;
  /** Place in a fixed checklist, rising; undefined where a checklist does not hold it. */
  readonly checklistRank?: number;
  readonly scale: Scale;
  /** Nets whose state the reading depends on; what is joined to them as good as directly is added by the caller. */
  readonly touches: (board: Board, m: M) => readonly string[];
  /** The named answers of a choice. */
  readonly choices?: (board: Board, m: M) => readonly string[];
  /** What it reads with a fault in the circuit; faults that no longer count are left out before. */
  readonly predict: (model: CircuitModel, m: M, fault: Fault, absent: ReadonlySet<PartRef>) => Prediction;
  /** Which faults it can tell apart. */
  readonly partition: (partitioner: Partitioner, m: M) => FaultPartition;
  /** A test that is another one on the board without a part: it is predicted and counted as that. */
  readonly actsAs?: (m: M) => { readonly measurement: { readonly kind: string }; readonly without: string };
  readonly interpret: (context: InterpretationContext, m: M, value: Value) => Interpretation;
  /**
   * Set where readings compare from board to board: how a point is found by its id, and whether the interval of good
   * boards decides in place of the board file.
   */
  readonly goodBoards?: { readonly fromId: (first: string, second: string) => M; readonly decide: boolean };
  /** The entry that answers the test, up to its value, as typed in the entry line. */
  readonly stem: (board: Board, m: M, near?: Near) => string;
  /** Lines that begin with a word or a name of their own. */
  readonly commands: readonly CommandDefinition<MeasurementLineContext, MeasurementEntry<{ readonly kind: string }>>[];
}

/** States a kind; a member that is missing is a compile error. */
export const defineMeasurement = <M extends { readonly kind: string }>(
  definition: MeasurementDefinition<M>,
): MeasurementDefinition<M> => definition;
