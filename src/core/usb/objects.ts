/**
 * Power data objects, requests and headers as 32- and 16-bit words. Source: USB Power Delivery specification, sections
 * on power data objects, request messages and the message header.
 */
import { formatHex } from '../units';

export interface FixedSupply {
  readonly kind: 'fixed';
  readonly dualRolePower: boolean;
  readonly suspend: boolean;
  readonly unconstrained: boolean;
  readonly communications: boolean;
  readonly dualRoleData: boolean;
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
  readonly maxMv: number;
  readonly minMv: number;
  readonly currentMa: number;
}

/** An augmented object of a kind that is not read further. */
export interface OtherSupply {
  readonly kind: 'other';
  readonly raw: number;
}

export type PowerObject = FixedSupply | BatterySupply | VariableSupply | ProgrammableSupply | OtherSupply;

const field = (word: number, high: number, low: number): number => (word >>> low) & (2 ** (high - low + 1) - 1);
const bit = (word: number, at: number): boolean => ((word >>> at) & 1) === 1;
const flag = (on: boolean, at: number): number => (on ? 2 ** at : 0);
const place = (value: number, low: number): number => value * 2 ** low;

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
      if (field(word, 29, 28) !== 0) return { kind: 'other', raw: word >>> 0 };
      return {
        kind: 'programmable',
        maxMv: field(word, 24, 17) * 100,
        minMv: field(word, 15, 8) * 100,
        currentMa: field(word, 6, 0) * 50,
      };
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
        place(Math.round(object.maxMv / 100), 17) +
        place(Math.round(object.minMv / 100), 8) +
        Math.round(object.currentMa / 50)
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
  extendedRange: false,
  peak: 0,
  voltageMv,
  currentMa,
});

/** A request for a fixed or variable supply. */
export interface PowerRequest {
  /** Which offer, from 1. */
  readonly object: number;
  readonly giveBack: boolean;
  readonly mismatch: boolean;
  readonly communications: boolean;
  readonly noSuspend: boolean;
  readonly unchunked: boolean;
  readonly operatingMa: number;
  readonly maximumMa: number;
}

export const decodeRequest = (word: number): PowerRequest => ({
  object: field(word, 31, 28),
  giveBack: bit(word, 27),
  mismatch: bit(word, 26),
  communications: bit(word, 25),
  noSuspend: bit(word, 24),
  unchunked: bit(word, 23),
  operatingMa: field(word, 19, 10) * 10,
  maximumMa: field(word, 9, 0) * 10,
});

export const encodeRequest = (request: PowerRequest): number =>
  place(request.object, 28) +
  flag(request.giveBack, 27) +
  flag(request.mismatch, 26) +
  flag(request.communications, 25) +
  flag(request.noSuspend, 24) +
  flag(request.unchunked, 23) +
  place(Math.round(request.operatingMa / 10), 10) +
  Math.round(request.maximumMa / 10);

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

const CONTROL = [
  '',
  'GoodCRC',
  'GotoMin',
  'Accept',
  'Reject',
  'Ping',
  'PS_RDY',
  'Get_Source_Cap',
  'Get_Sink_Cap',
  'DR_Swap',
  'PR_Swap',
  'VCONN_Swap',
  'Wait',
  'Soft_Reset',
  'Data_Reset',
  'Data_Reset_Complete',
  'Not_Supported',
  'Get_Source_Cap_Extended',
  'Get_Status',
  'FR_Swap',
  'Get_PPS_Status',
  'Get_Country_Codes',
  'Get_Sink_Cap_Extended',
] as const;

const DATA = [
  '',
  'Source_Capabilities',
  'Request',
  'BIST',
  'Sink_Capabilities',
  'Battery_Status',
  'Alert',
  'Get_Country_Info',
  'Enter_USB',
  'EPR_Request',
  'EPR_Mode',
  'Source_Info',
  'Revision',
  '',
  '',
  'Vendor_Defined',
] as const;

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
  vendorDefined: 15,
} as const;

export function messageName(header: Pick<MessageHeader, 'count' | 'type' | 'extended'>): string {
  if (header.extended) return `Extended ${header.type}`;
  const name = header.count === 0 ? CONTROL[header.type] : DATA[header.type];
  return name || `${header.count === 0 ? 'Control' : 'Data'} ${header.type}`;
}

const volts = (mv: number): string => `${trim(mv / 1000)} V`;
const amps = (ma: number): string => `${trim(ma / 1000)} A`;
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
    case 'other':
      return `object ${formatHex(object.raw, 8)}`;
  }
}
