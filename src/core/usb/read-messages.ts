import { joinChunks, readExtended, type ExtendedHeader, type ExtendedPart } from './extended';
import { readFields, type Fields } from './layout';
import { definitionOfMessage, messageName, type MessageDefinition } from './messages';
import { TYPE, decodePowerObject, powerObjectWords, type PowerObject } from './objects';
import type { PdPacket } from './packet';
import { decodeRequest, requestWords, type PowerRequest } from './requests';

/** A message with everything that it says, each field by its name. */
export interface ReadMessage {
  readonly packet: PdPacket;
  readonly name: string;
  /** Section of the specification that defines it; none for numbers that no table holds. */
  readonly section?: string;
  /** Head of an extended message, as this chunk has it. */
  readonly extended?: ExtendedHeader;
  /** One for each data object, or one for the whole block of an extended message once it is there. */
  readonly fields: readonly Fields[];
  readonly supplies?: readonly PowerObject[];
  readonly request?: PowerRequest;
  readonly words: string;
}

/** Reads messages in their order: a request against the offers before it, an extended message over all of its chunks. */
export function readMessages(packets: readonly PdPacket[]): ReadMessage[] {
  const reader = new MessageReader();
  return packets.map((p) => reader.read(p));
}

/** What each message says, one line each. */
export const messageWords = (packets: readonly PdPacket[]): string[] => readMessages(packets).map((m) => m.words);

const bytesOf = (words: readonly number[]): Uint8Array => {
  const view = new DataView(new ArrayBuffer(4 * words.length));
  words.forEach((w, i) => view.setUint32(4 * i, w >>> 0, true));
  return new Uint8Array(view.buffer);
};

class MessageReader {
  /** What was last offered: in the standard range, and in both together. */
  private offers: readonly PowerObject[] = [];
  /** Chunks that came so far, by set, sender and type. */
  private readonly chunks = new Map<string, ExtendedPart[]>();

  read(packet: PdPacket): ReadMessage {
    const { header, set, objects, intact, trouble } = packet;
    if (set.endsWith('Reset')) return { packet, name: set, fields: [], words: set };
    if (!header) return { packet, name: 'unreadable', fields: [], words: `unreadable: ${trouble}` };
    const definition = definitionOfMessage(header);
    const name = messageName(header);
    const base = { packet, name, ...(definition && { section: definition.section }) };
    if (!intact) return { ...base, fields: [], words: `${name}, but ${trouble}` };
    if (header.extended) return { ...base, ...this.extended(packet, name, definition) };
    if (definition?.objects === 'supplies') {
      const supplies = objects.map(decodePowerObject);
      if (header.type === TYPE.sourceCapabilities) this.offers = supplies;
      return { ...base, fields: [], supplies, words: `${name}: ${supplies.map(powerObjectWords).join(', ')}` };
    }
    if (definition?.objects === 'requests' && objects.length > 0) {
      // In the extended range a request brings a copy of the offer it answers.
      const copy =
        header.type === TYPE.extendedRequest && objects.length > 1 ? decodePowerObject(objects[1]) : undefined;
      const request = decodeRequest(objects[0], copy ?? this.offers[(objects[0] >>> 28) - 1]);
      return { ...base, fields: [], request, words: `${name}: ${requestWords(request)}` };
    }
    const layout = definition?.layout;
    const fields = layout ? objects.map((w) => readFields(layout, bytesOf([w]))) : [];
    // Only the first object of a vendor's message has a head.
    const own = header.type === TYPE.vendorDefined ? fields.slice(0, 1) : fields;
    return { ...base, fields: own, words: withFields(name, own) };
  }

  private extended(
    packet: PdPacket,
    name: string,
    definition: MessageDefinition | undefined,
  ): Pick<ReadMessage, 'extended' | 'fields' | 'supplies' | 'words'> {
    const part = readExtended(packet.data ?? bytesOf(packet.objects));
    if (!part) return { fields: [], words: `${name}, but its head is missing` };
    const { header } = part;
    if (header.asks) return { extended: header, fields: [], words: `${name}: asks for chunk ${header.chunk}` };
    const key = `${packet.set} ${packet.header!.source} ${packet.header!.type}`;
    const parts = header.chunked && header.chunk > 0 ? [...(this.chunks.get(key) ?? []), part] : [part];
    this.chunks.set(key, parts);
    const block = joinChunks(parts);
    if (!block)
      return { extended: header, fields: [], words: `${name}: chunk ${header.chunk} of ${header.size} bytes` };
    this.chunks.delete(key);
    if (definition?.objects === 'supplies') {
      const view = new DataView(block.buffer);
      const supplies = Array.from({ length: Math.floor(block.length / 4) }, (_, i) =>
        decodePowerObject(view.getUint32(4 * i, true)),
      );
      if (packet.header!.type === TYPE.extendedSourceCapabilities) this.offers = supplies;
      // Places of the standard range that are not used are noughts.
      const told = supplies.filter((s) => !(s.kind === 'fixed' && s.voltageMv === 0));
      return { extended: header, fields: [], supplies, words: `${name}: ${told.map(powerObjectWords).join(', ')}` };
    }
    const fields = definition?.layout ? [readFields(definition.layout, block)] : [];
    return { extended: header, fields, words: withFields(name, fields) };
  }
}

/** Fields that say nothing are left out of the words: what is off, nought or not supported. */
const SILENT: ReadonlySet<unknown> = new Set([false, 0, null, 'none', 'not supported', 'not given']);
const MOST_TOLD = 6;

/** `Alert: overTemperature, fixedBatteries 1`. */
function withFields(name: string, fields: readonly Fields[]): string {
  const told = fields
    .flatMap((f) => Object.entries(f))
    .filter(([, value]) => !SILENT.has(value))
    .map(([field, value]) => (value === true ? field : `${field} ${value}`));
  if (told.length === 0) return name;
  return `${name}: ${told.slice(0, MOST_TOLD).join(', ')}${told.length > MOST_TOLD ? ' …' : ''}`;
}
