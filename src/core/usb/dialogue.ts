import { partByRef, type Board, type Port } from '../board';
import { TYPE } from './objects';
import { isMessage, type PdPacket } from './packet';
import { readMessages } from './read-messages';
import type { CaptureReading } from './capture';

/** How far the conversation came. */
export const PD_OUTCOMES = [
  'silent',
  'offersUnanswered',
  'offersNotAsked',
  'refused',
  'notReady',
  'contract',
  'collapsed',
  'noisy',
] as const;
export type PdOutcome = (typeof PD_OUTCOMES)[number];

export interface DialogueLine {
  readonly atS: number;
  readonly who: 'charger' | 'device' | 'cable' | 'line';
  readonly words: string;
  readonly intact: boolean;
}

export interface Dialogue {
  readonly lines: readonly DialogueLine[];
  readonly stop: PdOutcome;
  /** At which step it stopped, in words. */
  readonly headline: string;
  /** What that implicates on this board, most to the point first. */
  readonly implicated: readonly { /** A part or a rail. */ readonly ref: string; readonly why: string }[];
  /** The contract that was reached, in volts and amperes at most. */
  readonly contract?: { readonly volts: number; readonly amps: number };
}

/** Above this share of broken packets the line itself is the trouble. Engineering estimate. */
const NOISY_SHARE = 0.3;

const isReset = (p: PdPacket): boolean => p.set === 'Hard Reset';
const onPort = (p: PdPacket): boolean => p.set === 'SOP' || isReset(p);

/** Reads a decoded capture as a conversation. GoodCRC acknowledgements are folded into the message they answer. */
export function readDialogue(
  board: Board,
  portId: string,
  capture: Pick<CaptureReading, 'packets' | 'line'>,
): Dialogue {
  const port = board.ports.find((p) => p.id === portId)!;
  const stop = stopOf(capture.packets);
  return {
    lines: linesOf(capture.packets),
    stop,
    headline: HEADLINES[stop],
    implicated: implicated(board, port, stop, capture.line),
    contract: contractOf(capture.packets),
  };
}

const HEADLINES: Record<PdOutcome, string> = {
  silent: 'Nobody talks: the charger sees no pull-down',
  offersUnanswered: 'Offers go unanswered',
  offersNotAsked: 'Offers are acknowledged, but nothing is asked for',
  refused: 'The request is refused',
  notReady: 'Accepted, but the supply never comes',
  contract: 'A contract is reached and holds',
  collapsed: 'A contract is reached, then collapses',
  noisy: 'The line is noisy: check sums fail',
};

function stopOf(packets: readonly PdPacket[]): PdOutcome {
  const port = packets.filter(onPort);
  if (port.length === 0) return 'silent';
  const messages = port.filter((p) => !isReset(p));
  const broken = messages.filter((p) => !p.intact).length;
  if (messages.length > 0 && broken / messages.length > NOISY_SHARE) return 'noisy';
  const seen = (type: number, data: boolean): PdPacket | undefined => port.find((p) => isMessage(p, type, data));
  const ready = seen(TYPE.psReady, false);
  if (ready) return port.some((p) => isReset(p) && p.atS > ready.atS) ? 'collapsed' : 'contract';
  if (seen(TYPE.accept, false)) return 'notReady';
  if (seen(TYPE.reject, false) || seen(TYPE.wait, false)) return 'refused';
  const answered = port.some((p) => isMessage(p, TYPE.goodCrc, false) && !p.header!.source);
  return answered ? 'offersNotAsked' : 'offersUnanswered';
}

function linesOf(packets: readonly PdPacket[]): DialogueLine[] {
  return readMessages(packets)
    .filter(({ packet }) => !isMessage(packet, TYPE.goodCrc, false))
    .map(({ packet: p, words }) => ({ atS: p.atS, who: speaker(p), words, intact: p.intact }));
}

function speaker(p: PdPacket): DialogueLine['who'] {
  if (isReset(p) || !p.header) return 'line';
  if (p.set !== 'SOP') return p.header.source ? 'cable' : 'charger';
  return p.header.source ? 'charger' : 'device';
}

function contractOf(packets: readonly PdPacket[]): Dialogue['contract'] {
  const ready = packets.findIndex((p) => isMessage(p, TYPE.psReady, false));
  const before = readMessages(packets.slice(0, Math.max(0, ready)));
  const request = before.findLast((m) => m.request)?.request;
  const offers = before.findLast(
    (m) => m.supplies && m.packet.header?.source === true && m.name.endsWith('Source_Capabilities'),
  )?.supplies;
  if (!request || request.kind === 'unread') return undefined;
  if (request.kind === 'voltage') return { volts: request.outputMv / 1000, amps: request.operatingMa / 1000 };
  const offer = offers?.[request.object - 1];
  return request.kind === 'current' && offer?.kind === 'fixed'
    ? { volts: offer.voltageMv / 1000, amps: request.maximumMa / 1000 }
    : undefined;
}

/** The way of the plug whose CC line talks. */
function sidePath(port: Port, line: CaptureReading['line']): string[] {
  const side = port.sides[line === 'CC2' ? 1 : 0];
  return line ? side.path : port.sides.flatMap((s) => s.path);
}

function implicated(board: Board, port: Port, stop: PdOutcome, line: CaptureReading['line']): Dialogue['implicated'] {
  const path = [...new Set(sidePath(port, line))].filter((ref) => ref !== port.id);
  const entry = (ref: string, why: string) => ({ ref, why });
  const esd = path
    .filter((ref) => partByRef(board, ref)?.kind === 'esdArray')
    .map((ref) => entry(ref, 'shorts the CC line, or loads it'));
  const image = (why: string) => (port.imagePart === undefined ? [] : [entry(port.imagePart, why)]);
  switch (stop) {
    case 'silent':
      return [
        entry(port.id, 'a CC pin that does not touch'),
        ...esd,
        entry(port.controller, 'its pull-down is missing'),
      ];
    case 'offersUnanswered':
      return [
        entry(port.controller, 'hears offers and does not acknowledge: dead, or not supplied'),
        ...port.controllerRails.map((id) => entry(id, 'the controller’s own supply')),
        ...esd,
      ];
    case 'offersNotAsked':
      return [
        ...image('the controller acknowledges by itself, but its program does not run'),
        entry(port.controller, 'its program does not ask'),
      ];
    case 'refused':
      return [
        ...image('asks for what was not offered: settings of another model'),
        entry(port.controller, 'asks wrongly'),
      ];
    case 'notReady':
      return [entry('charger', 'accepted and did not switch: try the known-good one')];
    case 'collapsed':
      return [
        ...switchesBehind(board, port).map((ref) => entry(ref, 'switches the new level onto a short')),
        entry('load', 'something behind the switch draws the level down'),
      ];
    case 'noisy':
      return [entry(port.id, 'a dirty or half-open CC pin'), ...esd, entry('cable', 'try the known-good one')];
    case 'contract':
      return [];
  }
}

/** Series parts that pass the bus on once there is a contract. */
function switchesBehind(board: Board, port: Port): string[] {
  const onBus = new Set(board.rails.filter((r) => r.feeds.some((f) => f.from === port.vbusRail)).map((r) => r.id)).add(
    port.vbusRail,
  );
  return [
    ...new Set(
      board.rails.flatMap((r) =>
        r.feeds.filter((f) => f.from !== null && onBus.has(f.from) && f.needs.includes('talk')).flatMap((f) => f.via),
      ),
    ),
  ];
}
