/**
 * Power data objects and headers as 32- and 16-bit words. Source: USB Power Delivery specification, sections on power data
 * objects and the message header.
 */
import { formatHex } from '../units';

export interface FixedSupply {
  readonly kind: 'fixed';
  readonly dualRolePower: boolean;
  readonly suspend: boolean;
  readonly unconstrained: boolean;
  readonly communications: boolean;
  readonly dualRoleData: boolean;
  readonly unchunked: boolean;
  readonly extendedRange: boolean;
  /** Peak current class, 0 to 3. */
  readonly peak: number;
  readonly voltageMv: number;
  readonly currentMa: number;
}

export interface BatterySupply {
  readonly kind: 'battery';
  readonly maxMv: number;
  readonly minMv: number;
  readonly powerMw: number;
}

export interface VariableSupply {
  readonly kind: 'variable';
  readonly maxMv: number;
  readonly minMv: number;
  readonly currentMa: number;
}

export interface ProgrammableSupply {
  readonly kind: 'programmable';
  readonly powerLimited: boolean;
  readonly maxMv: number;
  readonly minMv: number;
  readonly currentMa: number;
}

/** Adjustable voltage in the standard range: from 9 to 15 V, and to 20 V where that has a current. */
export interface AdjustableSupply {
  readonly kind: 'adjustable';
  readonly peak: number;
  readonly currentTo15Ma: number;
  /** 0 where it ends at 15 V. */
  readonly currentTo20Ma: number;
}

/** Adjustable voltage in the extended range, bounded by its power. */
export interface ExtendedAdjustableSupply {
  readonly kind: 'extendedAdjustable';
  readonly peak: number;
  readonly maxMv: number;
  readonly minMv: number;
  readonly powerW: number;
}

/** An augmented object of the kind that the specification keeps for later. */
export interface OtherSupply {
  readonly kind: 'other';
  readonly raw: number;
}

export type PowerObject =
  | FixedSupply
  | BatterySupply
  | VariableSupply
  | ProgrammableSupply
  | AdjustableSupply
  | ExtendedAdjustableSupply
  | OtherSupply;

export const field = (word: number, high: number, low: number): number => (word >>> low) & (2 ** (high - low + 1) - 1);
export const bit = (word: number, at: number): boolean => ((word >>> at) & 1) === 1;
export const flag = (on: boolean, at: number): number => (on ? 2 ** at : 0);
export const place = (value: number, low: number): number => value * 2 ** low;

export function decodePowerObject(word: number): PowerObject {
  switch (word >>> 30) {
    case 0:
      return {
        kind: 'fixed',
        dualRolePower: bit(word, 29),
        suspend: bit(word, 28),
        unconstrained: bit(word, 27),
        communications: bit(word, 26),
        dualRoleData: bit(word, 25),
        unchunked: bit(word, 24),
        extendedRange: bit(word, 23),
        peak: field(word, 21, 20),
        voltageMv: field(word, 19, 10) * 50,
        currentMa: field(word, 9, 0) * 10,
      };
    case 1:
      return {
        kind: 'battery',
        maxMv: field(word, 29, 20) * 50,
        minMv: field(word, 19, 10) * 50,
        powerMw: field(word, 9, 0) * 250,
      };
    case 2:
      return {
        kind: 'variable',
        maxMv: field(word, 29, 20) * 50,
        minMv: field(word, 19, 10) * 50,
        currentMa: field(word, 9, 0) * 10,
      };
    default:
      return decodeAugmented(word);
  }
}

/** Source: USB Power Delivery specification, revision 3.1 and 3.2, augmented power data objects (from memory). */
function decodeAugmented(word: number): PowerObject {
  switch (field(word, 29, 28)) {
    case 0:
      return {
        kind: 'programmable',
        powerLimited: bit(word, 27),
        maxMv: field(word, 24, 17) * 100,
        minMv: field(word, 15, 8) * 100,
        currentMa: field(word, 6, 0) * 50,
      };
    case 1:
      return {
        kind: 'extendedAdjustable',
        peak: field(word, 27, 26),
        maxMv: field(word, 25, 17) * 100,
        minMv: field(word, 15, 8) * 100,
        powerW: field(word, 7, 0),
      };
    case 2:
      return {
        kind: 'adjustable',
        peak: field(word, 27, 26),
        currentTo15Ma: field(word, 19, 10) * 10,
        currentTo20Ma: field(word, 9, 0) * 10,
      };
    default:
      return { kind: 'other', raw: word >>> 0 };
  }
}

/** Units that a field does not hold exactly are rounded to the nearest step. */
export function encodePowerObject(object: PowerObject): number {
  switch (object.kind) {
    case 'fixed':
      return (
        flag(object.dualRolePower, 29) +
        flag(object.suspend, 28) +
        flag(object.unconstrained, 27) +
        flag(object.communications, 26) +
        flag(object.dualRoleData, 25) +
        flag(object.unchunked, 24) +
        flag(object.extendedRange, 23) +
        place(object.peak, 20) +
        place(Math.round(object.voltageMv / 50), 10) +
        Math.round(object.currentMa / 10)
      );
    case 'battery':
      return (
        place(1, 30) +
        place(Math.round(object.maxMv / 50), 20) +
        place(Math.round(object.minMv / 50), 10) +
        Math.round(object.powerMw / 250)
      );
    case 'variable':
      return (
        place(2, 30) +
        place(Math.round(object.maxMv / 50), 20) +
        place(Math.round(object.minMv / 50), 10) +
        Math.round(object.currentMa / 10)
      );
    case 'programmable':
      return (
        place(3, 30) +
        flag(object.powerLimited, 27) +
        place(Math.round(object.maxMv / 100), 17) +
        place(Math.round(object.minMv / 100), 8) +
        Math.round(object.currentMa / 50)
      );
    case 'extendedAdjustable':
      return (
        place(3, 30) +
        place(1, 28) +
        place(object.peak, 26) +
        place(Math.round(object.maxMv / 100), 17) +
        place(Math.round(object.minMv / 100), 8) +
        Math.round(object.powerW)
      );
    case 'adjustable':
      return (
        place(3, 30) +
        place(2, 28) +
        place(object.peak, 26) +
        place(Math.round(object.currentTo15Ma / 10), 10) +
        Math.round(object.currentTo20Ma / 10)
      );
    case 'other':
      return object.raw;
  }
}

/** A plain fixed supply, as chargers offer it. */
export const fixedSupply = (voltageMv: number, currentMa: number): FixedSupply => ({
  kind: 'fixed',
  dualRolePower: false,
  suspend: false,
  unconstrained: false,
  communications: false,
  dualRoleData: false,
  unchunked: false,
  extendedRange: false,
  peak: 0,
  voltageMv,
  currentMa,
});

export interface MessageHeader {
  readonly extended: boolean;
  /** Number of data objects; 0 in control messages. */
  readonly count: number;
  readonly id: number;
  /** True for a source; on cable packets, for a message from the plug. */
  readonly source: boolean;
  /** Specification revision, 1 to 3. */
  readonly revision: number;
  /** True for the downstream-facing (host) role. */
  readonly host: boolean;
  readonly type: number;
}

export const decodeHeader = (word: number): MessageHeader => ({
  extended: bit(word, 15),
  count: field(word, 14, 12),
  id: field(word, 11, 9),
  source: bit(word, 8),
  revision: field(word, 7, 6) + 1,
  host: bit(word, 5),
  type: field(word, 4, 0),
});

export const encodeHeader = (header: MessageHeader): number =>
  flag(header.extended, 15) +
  place(header.count, 12) +
  place(header.id, 9) +
  flag(header.source, 8) +
  place(header.revision - 1, 6) +
  flag(header.host, 5) +
  header.type;

/** Message types by name. Source: USB Power Delivery specification, tables of control and data message types. */
export const TYPE = {
  goodCrc: 1,
  accept: 3,
  reject: 4,
  psReady: 6,
  getSourceCap: 7,
  wait: 12,
  softReset: 13,
  sourceCapabilities: 1,
  request: 2,
  extendedRequest: 9,
  extendedSourceCapabilities: 17,
  vendorDefined: 15,
} as const;

export const volts = (mv: number): string => `${trim(mv / 1000)} V`;
export const amps = (ma: number): string => `${trim(ma / 1000)} A`;
const trim = (value: number): string => String(Number(value.toFixed(2)));

/** `9 V 3 A`, `3.3 to 11 V up to 3 A`. */
export function powerObjectWords(object: PowerObject): string {
  switch (object.kind) {
    case 'fixed':
      return `${volts(object.voltageMv)} ${amps(object.currentMa)}`;
    case 'battery':
      return `${volts(object.minMv)} to ${volts(object.maxMv)}, ${trim(object.powerMw / 1000)} W`;
    case 'variable':
      return `${volts(object.minMv)} to ${volts(object.maxMv)}, ${amps(object.currentMa)}`;
    case 'programmable':
      return `${volts(object.minMv)} to ${volts(object.maxMv)} adjustable, ${amps(object.currentMa)}`;
    case 'adjustable':
      return object.currentTo20Ma > 0
        ? `9 V to 20 V adjustable, ${amps(object.currentTo15Ma)} to 15 V, ${amps(object.currentTo20Ma)} above`
        : `9 V to 15 V adjustable, ${amps(object.currentTo15Ma)}`;
    case 'extendedAdjustable':
      return `${volts(object.minMv)} to ${volts(object.maxMv)} adjustable, ${object.powerW} W`;
    case 'other':
      return `object ${formatHex(object.raw, 8)}`;
  }
}
