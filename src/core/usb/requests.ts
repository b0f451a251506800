import { amps, bit, field, flag, place, volts, type PowerObject } from './objects';

/** What every request says beside what it asks for. */
interface RequestFlags {
  /** Which offer, from 1. */
  readonly object: number;
  readonly mismatch: boolean;
  readonly communications: boolean;
  readonly noSuspend: boolean;
  readonly unchunked: boolean;
  readonly extendedRange: boolean;
}

/** A request: what it means depends on the offer that it answers. Source: USB Power Delivery specification, section on request messages (from memory). */
export type PowerRequest = RequestFlags &
  (
    | { readonly kind: 'current'; readonly giveBack: boolean; readonly operatingMa: number; readonly maximumMa: number }
    | { readonly kind: 'power'; readonly giveBack: boolean; readonly operatingMw: number; readonly maximumMw: number }
    | { readonly kind: 'voltage'; readonly stepMv: 20 | 25; readonly outputMv: number; readonly operatingMa: number }
    /** The offer is not known: its figures could be any of these. */
    | { readonly kind: 'unread'; readonly raw: number }
  );

/** Units that a programmable and an adjustable supply are asked in, mV. */
const STEP_MV = { programmable: 20, adjustable: 25, extendedAdjustable: 25 } as const;

const flagsOf = (word: number): RequestFlags => ({
  object: field(word, 31, 28),
  mismatch: bit(word, 26),
  communications: bit(word, 25),
  noSuspend: bit(word, 24),
  unchunked: bit(word, 23),
  extendedRange: bit(word, 22),
});

/** Reads a request against the offer it names; without it no figure of it is told. */
export function decodeRequest(word: number, offer: PowerObject | undefined): PowerRequest {
  const flags = flagsOf(word);
  switch (offer?.kind) {
    case 'fixed':
    case 'variable':
      return {
        ...flags,
        ...{ kind: 'current', giveBack: bit(word, 27) },
        ...{ operatingMa: field(word, 19, 10) * 10, maximumMa: field(word, 9, 0) * 10 },
      };
    case 'battery':
      return {
        ...flags,
        ...{ kind: 'power', giveBack: bit(word, 27) },
        ...{ operatingMw: field(word, 19, 10) * 250, maximumMw: field(word, 9, 0) * 250 },
      };
    case 'programmable':
    case 'adjustable':
    case 'extendedAdjustable': {
      const stepMv = STEP_MV[offer.kind];
      return {
        ...flags,
        kind: 'voltage',
        stepMv,
        outputMv: field(word, 20, 9) * stepMv,
        operatingMa: field(word, 6, 0) * 50,
      };
    }
    default:
      return { ...flags, kind: 'unread', raw: word >>> 0 };
  }
}

/** Figures between steps are rounded to the nearest. */
export function encodeRequest(request: PowerRequest): number {
  if (request.kind === 'unread') return request.raw;
  const flags =
    place(request.object, 28) +
    flag(request.mismatch, 26) +
    flag(request.communications, 25) +
    flag(request.noSuspend, 24) +
    flag(request.unchunked, 23) +
    flag(request.extendedRange, 22);
  switch (request.kind) {
    case 'current':
      return (
        flags +
        flag(request.giveBack, 27) +
        place(Math.round(request.operatingMa / 10), 10) +
        Math.round(request.maximumMa / 10)
      );
    case 'power':
      return (
        flags +
        flag(request.giveBack, 27) +
        place(Math.round(request.operatingMw / 250), 10) +
        Math.round(request.maximumMw / 250)
      );
    case 'voltage':
      return flags + place(Math.round(request.outputMv / request.stepMv), 9) + Math.round(request.operatingMa / 50);
  }
}

/** `offer 4, 3.25 A of at most 3.25 A`, `offer 6, 8.42 V 3 A`. */
export function requestWords(request: PowerRequest): string {
  const of = `offer ${request.object}`;
  const more = request.mismatch ? ', wants more than is offered' : '';
  switch (request.kind) {
    case 'current':
      return `${of}, ${amps(request.operatingMa)} of at ${request.giveBack ? 'least' : 'most'} ${amps(request.maximumMa)}${more}`;
    case 'power':
      return `${of}, ${request.operatingMw / 1000} W of at ${request.giveBack ? 'least' : 'most'} ${request.maximumMw / 1000} W${more}`;
    case 'voltage':
      return `${of}, ${volts(request.outputMv)} ${amps(request.operatingMa)}${more}`;
    case 'unread':
      return `${of}, which is not in this record: its figures are not read${more}`;
  }
}
