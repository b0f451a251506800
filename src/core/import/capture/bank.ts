import { LineDecoder, messageName, talkingLine, type CaptureReading, type CcLine, type PdPacket } from '../../usb';
import type { Answers, ImportQuestion, Outcome } from '../importer';

export interface LineSummary {
  readonly name: string;
  readonly role: CcLine | null;
  readonly edges: number;
  readonly messages: number;
}

export interface CaptureSummary {
  readonly kind: 'capture';
  readonly lines: readonly LineSummary[];
  /** Samples in a second; null where the file holds changes only. */
  readonly rateHz: number | null;
  readonly durationS: number | null;
  readonly edges: number;
  /** Messages whose check sum holds, on both CC lines. */
  readonly messages: number;
  readonly conversation: readonly string[];
}

/** Most channels that are decoded side by side. */
export const MOST_CHANNELS = 32;
/** Edges after which the time base is decided. */
const DECIDING_EDGES = 4000;
/** Times between two edges of a line that talks: half a bit and a bit at 270 to 330 kbit/s. Source: USB Power Delivery, table 5-x of the physical layer, from memory. */
const SHORTEST_S = 1.2e-6;
const LONGEST_S = 4.4e-6;
/** Seconds to a unit of time without a name. */
const TIME_SCALES = [1, 1e-3, 1e-6, 1e-9] as const;
const SCALE_NAMES = ['s', 'ms', 'µs', 'ns'] as const;
/** Below it a half bit of 1.67 µs has fewer than four samples. Engineering estimate. */
const LEAST_RATE_HZ = 2.4e6;
const CONVERSATION_SHOWN = 12;

/** What is known of a capture's time base. */
export interface TimeBase {
  /** Seconds to one unit of the times that come in; undefined where the file does not say it. */
  readonly scaleS?: number;
  /** Set where rows are samples that carry no time: the rate is asked. */
  readonly rateAsked?: boolean;
  readonly rateHz?: number;
}

/** The channels of a capture, each with a decoder of its own. Memory is a packet a channel, and the edges until the time base is known. */
export class ChannelBank {
  private readonly channels: { name: string; decoder: LineDecoder; packets: PdPacket[] }[] = [];
  private waiting: { channel: number; at: number }[] | undefined;
  private scaleS = 1;
  private last = 0;
  readonly notes: string[] = [];

  constructor(
    names: readonly string[],
    private readonly base: TimeBase,
  ) {
    const shown = names
      .slice(0, MOST_CHANNELS)
      .map((name, i) => (names.indexOf(name) === names.lastIndexOf(name) ? name : `${name} (channel ${i + 1})`));
    for (const name of shown) {
      const packets: PdPacket[] = [];
      this.channels.push({ name, packets, decoder: new LineDecoder((p) => packets.push(p)) });
    }
    this.scaleS = base.scaleS ?? 1;
    if (base.scaleS === undefined) this.waiting = [];
  }

  get size(): number {
    return this.channels.length;
  }

  /** The capture goes on to this time. */
  tick(at: number): void {
    if (at > this.last) this.last = at;
  }

  edge(channel: number, at: number): void {
    if (at > this.last) this.last = at;
    if (!this.waiting) {
      this.channels[channel].decoder.edge(at * this.scaleS);
      return;
    }
    this.waiting.push({ channel, at });
    if (this.waiting.length >= DECIDING_EDGES && !this.base.rateAsked) this.decide();
  }

  /** Takes the unit under which the edges are bits of a conversation; the edges wait on where none is. */
  private decide(): boolean {
    const fitting = TIME_SCALES.findIndex((scale) => this.looksLikeBits(scale));
    if (fitting < 0) {
      if (this.waiting!.length > 50 * DECIDING_EDGES) this.waiting = this.waiting!.slice(-DECIDING_EDGES);
      return false;
    }
    this.scaleS = TIME_SCALES[fitting];
    this.notes.push(
      `The times have no unit: taken as ${SCALE_NAMES[fitting]}, since the edges are then bits of a conversation.`,
    );
    const waiting = this.waiting!;
    this.waiting = undefined;
    for (const { channel, at } of waiting) this.channels[channel].decoder.edge(at * this.scaleS);
    return true;
  }

  private looksLikeBits(scale: number): boolean {
    const gaps: number[] = [];
    const last = new Map<number, number>();
    for (const { channel, at } of this.waiting!) {
      const before = last.get(channel);
      if (before !== undefined) gaps.push((at - before) * scale);
      last.set(channel, at);
    }
    const inside = gaps.filter((g) => g > SHORTEST_S && g < LONGEST_S).length;
    return gaps.length > 60 && inside > 0.7 * gaps.length;
  }

  /** What the capture holds, once its last edge has come. */
  finish(answers: Answers): Outcome<CaptureReading, CaptureSummary> {
    const questions: ImportQuestion[] = [];
    if (this.waiting && !this.base.rateAsked && !this.decide() && this.waiting.length > 0)
      questions.push({ id: 'unit', why: 'The times of the capture have no unit.', choices: SCALE_NAMES });
    if (this.base.rateAsked)
      questions.push({
        id: 'rate',
        why: 'The rows carry no time: how many samples are there in a second, such as 10 MHz?',
        choices: [],
      });
    for (const { decoder } of this.channels) decoder.finish();
    const talks = this.channels.some((c) => intactIn(c.packets) > 0);
    const roles = this.rolesOf(answers, talks);
    questions.push(...roles.questions);
    const packetsOf = (i: number | undefined): PdPacket[] => (i === undefined ? [] : this.channels[i].packets);
    const edgesOf = (i: number | undefined): number => (i === undefined ? 0 : this.channels[i].decoder.edgeCount);
    const packets = { CC1: packetsOf(roles.CC1), CC2: packetsOf(roles.CC2) };
    const edges = { CC1: edgesOf(roles.CC1), CC2: edgesOf(roles.CC2) };
    const line = talkingLine(packets, edges);
    const known = this.waiting === undefined;
    const durationS = this.last * this.scaleS;
    const said = line ? packets[line] : [];
    return {
      kind: 'understood',
      summary: {
        kind: 'capture',
        lines: this.channels.map((c, i) => ({
          name: c.name,
          role: i === roles.CC1 ? 'CC1' : i === roles.CC2 ? 'CC2' : null,
          edges: this.waiting ? this.waiting.filter((w) => w.channel === i).length : c.decoder.edgeCount,
          messages: intactIn(c.packets),
        })),
        rateHz: this.base.rateHz ?? null,
        durationS: known ? Number(durationS.toFixed(12)) : null,
        edges: this.waiting ? this.waiting.length : this.channels.reduce((sum, c) => sum + c.decoder.edgeCount, 0),
        messages: this.channels.reduce((sum, c) => sum + intactIn(c.packets), 0),
        conversation: said
          .flatMap((p) => (p.intact && p.header ? [messageName(p.header)] : []))
          .slice(0, CONVERSATION_SHOWN),
      },
      questions,
      notes: [
        ...this.notes,
        ...roles.notes,
        ...this.rateNotes(),
        ...(known && !talks ? ['No conversation was found in it.'] : []),
      ],
      value: questions.length === 0 ? { line, packets: said, edges, durationS } : undefined,
    };
  }

  private rateNotes(): string[] {
    const { rateHz } = this.base;
    return rateHz !== undefined && rateHz < LEAST_RATE_HZ
      ? [
          `At ${(rateHz / 1e6).toPrecision(3)} MHz half a bit has ${(rateHz * 1.667e-6).toFixed(1)} samples: a conversation cannot be read below ${LEAST_RATE_HZ / 1e6} MHz.`,
        ]
      : [];
  }

  /** Which channels are the CC lines: by answer, by name, the only one or the only two in their order; else it is asked. */
  private rolesOf(
    answers: Answers,
    talks: boolean,
  ): { CC1?: number; CC2?: number; questions: ImportQuestion[]; notes: string[] } {
    const names = this.channels.map((c) => c.name);
    const find = (line: CcLine): number | undefined => {
      const said = answers[line.toLowerCase()];
      const at =
        said === undefined
          ? names.findIndex((n) => new RegExp(`cc[\\s_.-]*${line[2]}(?!\\d)`, 'i').test(n))
          : names.indexOf(said);
      return at < 0 ? undefined : at;
    };
    const [CC1, CC2] = [find('CC1'), find('CC2')];
    const halfSaid = (answers.cc1 === undefined) !== (answers.cc2 === undefined);
    if (halfSaid && names.length > 2 && (CC1 === undefined || CC2 === undefined)) {
      const id = answers.cc1 === undefined ? 'cc1' : 'cc2';
      const why = `Which channel is ${id.toUpperCase()}?`;
      return { CC1, CC2, questions: [{ id, why, choices: [...names, 'none'] }], notes: [] };
    }
    if (CC1 !== undefined || CC2 !== undefined || names.length === 0) return { CC1, CC2, questions: [], notes: [] };
    if (names.length === 1) return { CC1: 0, questions: [], notes: [`${names[0]}: taken as CC1.`] };
    if (names.length === 2)
      return { CC1: 0, CC2: 1, questions: [], notes: [`${names[0]}: taken as CC1; ${names[1]}: as CC2.`] };
    if (!talks && !this.waiting) return { questions: [], notes: [] };
    const talking = this.channels.filter((c) => intactIn(c.packets) > 0).map((c) => c.name);
    const why =
      `${names.length} channels: which are the CC lines? ${talking.length > 0 ? `A conversation is on ${talking.join(' and ')}.` : ''}`.trim();
    return {
      questions: (['cc1', 'cc2'] as const).map((id) => ({ id, why, choices: [...names, 'none'] })),
      notes: [],
    };
  }
}

const intactIn = (packets: readonly PdPacket[]): number => packets.filter((p) => p.intact).length;
