import { unzipSync } from 'fflate';
import type { CaptureReading } from '../../usb';
import { defineImporter, MIB, refused, type Answers, type ImportFile, type Outcome } from '../importer';
import { Slicer } from './analog';
import { ChannelBank, type CaptureSummary } from './bank';

/** What an archive may hold when it is unpacked, bytes. */
const MOST_UNPACKED = 1024 * MIB;
const LOCAL_HEADER = [0x50, 0x4b, 0x03, 0x04] as const;
const isZip = (bytes: Uint8Array): boolean => LOCAL_HEADER.every((b, i) => bytes[i] === b);

interface Session {
  readonly rateHz: number;
  /** Bytes of one sample of all logic channels. */
  readonly unitBytes: number;
  /** Name of the file of samples, without the number of its piece. */
  readonly logicFile?: string;
  readonly logicNames: readonly string[];
  readonly analogNames: readonly { readonly channel: number; readonly name: string }[];
}

/**
 * A session archive: a zip with `version`, `metadata` and the samples in pieces, `logic-1-1`, `logic-1-2` and on, one or more
 * bytes a sample with the first channel in the lowest bit; analog channels as 32-bit floats in volts. Source: the file format's
 * description in the documentation of the open signal-capture library in Debian, from memory.
 */
function readArchive(file: ImportFile, answers: Answers): Outcome<CaptureReading, CaptureSummary> {
  let total = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(file.bytes, {
      filter: (entry) => {
        total += entry.originalSize;
        return total <= MOST_UNPACKED;
      },
    });
  } catch (error) {
    return refused(`Expected an archive that can be unpacked; got one that cannot (${(error as Error).message}).`);
  }
  if (total > MOST_UNPACKED)
    return refused(`Expected at most ${MOST_UNPACKED / MIB} MiB of samples; got ${Math.round(total / MIB)}.`);
  if (!files.metadata) return refused('Expected a session archive with its metadata; got another kind of archive.');
  const session = sessionOf(new TextDecoder().decode(files.metadata));
  if (typeof session === 'string') return refused(session);
  return decode(session, files, answers);
}

function sessionOf(metadata: string): Session | string {
  const entries = new Map(
    metadata.split(/\r?\n/).flatMap((line): [string, string][] => {
      const at = line.indexOf('=');
      return at > 0 ? [[line.slice(0, at).trim(), line.slice(at + 1).trim()]] : [];
    }),
  );
  const rate = /^([\d.]+)\s*([kMG]?)(?:Hz)?$/.exec(entries.get('samplerate') ?? '');
  if (!rate) return `Expected a samplerate in the metadata; got "${entries.get('samplerate') ?? ''}".`;
  const rateHz = Number(rate[1]) * { '': 1, k: 1e3, M: 1e6, G: 1e9 }[rate[2] as '' | 'k' | 'M' | 'G'];
  const named = (prefix: string): { channel: number; name: string }[] =>
    [...entries]
      .flatMap(([key, name]) => {
        const channel = new RegExp(`^${prefix}(\\d+)$`).exec(key);
        return channel ? [{ channel: Number(channel[1]), name }] : [];
      })
      .sort((a, b) => a.channel - b.channel);
  const unitBytes = Number(entries.get('unitsize') ?? 1);
  if (!(rateHz > 0) || !(unitBytes >= 1 && unitBytes <= 8))
    return 'Expected a rate above 0 and samples of 1 to 8 bytes in the metadata.';
  const probes = named('probe');
  return {
    rateHz,
    unitBytes,
    logicFile: entries.get('capturefile'),
    logicNames: Array.from(
      {
        length: Math.min(
          8 * unitBytes,
          probes.length === 0 ? Number(entries.get('total probes') ?? 0) : probes[probes.length - 1].channel,
        ),
      },
      (_, i) => probes.find((p) => p.channel === i + 1)?.name ?? '',
    ),
    analogNames: named('analog'),
  };
}

/** Pieces of a file of samples in their order: `name-1`, `name-2`; or `name` alone. */
const piecesOf = (files: Record<string, Uint8Array>, name: string): Uint8Array[] => {
  const numbered = Object.keys(files)
    .flatMap((key) => {
      const piece = key.startsWith(`${name}-`) ? Number(key.slice(name.length + 1)) : NaN;
      return Number.isInteger(piece) ? [{ key, piece }] : [];
    })
    .sort((a, b) => a.piece - b.piece);
  return numbered.length > 0 ? numbered.map(({ key }) => files[key]) : files[name] ? [files[name]] : [];
};

function decode(
  session: Session,
  files: Record<string, Uint8Array>,
  answers: Answers,
): Outcome<CaptureReading, CaptureSummary> {
  const { rateHz, unitBytes, logicFile, logicNames, analogNames } = session;
  // A bit without a name was not captured.
  const bits = logicNames.flatMap((name, bit) => (name === '' ? [] : [{ name, bit }]));
  const bank = new ChannelBank([...bits.map((b) => b.name), ...analogNames.map((a) => a.name)], {
    scaleS: 1 / rateHz,
    rateHz,
  });
  if (bank.size === 0) return refused('Expected named channels in the metadata; got none.');
  let samples = 0;
  let carried = 0;
  let before: readonly number[] | undefined;
  const unit = new Uint8Array(unitBytes);
  for (const piece of logicFile ? piecesOf(files, logicFile) : []) {
    for (const byte of piece) {
      unit[carried++] = byte;
      if (carried < unitBytes) continue;
      carried = 0;
      const same = before?.every((b, i) => b === unit[i]) ?? false;
      if (!same) {
        bits.forEach(({ bit }, channel) => {
          const mask = 1 << (bit & 7);
          if (before && (before[bit >> 3] & mask) !== (unit[bit >> 3] & mask)) bank.edge(channel, samples);
        });
        before = [...unit];
      }
      samples++;
    }
  }
  bank.tick(samples);
  analogNames.forEach(({ channel }, i) => {
    const slicer = new Slicer((at) => bank.edge(bits.length + i, at));
    let at = 0;
    for (const piece of piecesOf(files, `analog-1-${channel}`)) {
      const view = new DataView(piece.buffer, piece.byteOffset, piece.byteLength);
      for (let k = 0; k + 4 <= piece.byteLength; k += 4) slicer.sample(at++, view.getFloat32(k, true));
    }
    slicer.finish();
    bank.tick(at);
  });
  return bank.finish(answers);
}

export const captureArchive = defineImporter<CaptureReading, CaptureSummary>({
  id: 'capture-archive',
  title: 'a session archive of a logic capture',
  mostBytes: 256 * MIB,
  score: (file) => (isZip(file.bytes) ? (/\.sr$/i.test(file.name) ? 1 : 0.6) : 0),
  read: readArchive,
});
