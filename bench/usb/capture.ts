import { closeSync, mkdtempSync, openSync, readSync, rmSync, statSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CaptureReader } from '../../src/core/import';
import { captureCsv, conversation, edgesOf, OFFERS_65W } from '../../src/core/usb';
import { note, ratio, section } from '../print';

const PIECE_BYTES = 1 << 20;
export const WANTED_BYTES = 200_000_000;

/** A 200 MB capture, decoded piece by piece, against reading the same file. */
export function benchCapture(): void {
  section('CC capture of 200 MB: decoding against reading the file');
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-bench-'));
  const file = path.join(folder, 'capture.csv');
  const rounds = writeCapture(file, WANTED_BYTES);
  const reading = median([1, 2, 3].map(() => seconds(() => eachPiece(file, () => true))));
  let messages = 0;
  const before = process.memoryUsage().rss;
  const decoding = seconds(() => {
    const reader = new CaptureReader('bench.csv');
    eachPiece(file, (piece) => reader.push(piece));
    const result = reader.finish();
    if (result.kind === 'understood') messages = result.value?.packets.length ?? 0;
  });
  const perRound = conversation({ trouble: 'none', offers: OFFERS_65W, want: 3, wantMa: 2000 }).length;
  note(
    `${(statSync(file).size / 1e6).toFixed(0)} MB, ${messages} of ${rounds * perRound} messages, ${decoding.toFixed(1)} s (wanted within 20 s)`,
  );
  note(`memory grew by ${((process.memoryUsage().rss - before) / 1e6).toFixed(0)} MB`);
  ratio('decoding / reading', decoding / reading, 'printed for comparison');
  rmSync(folder, { recursive: true });
}

/** Writes the same conversation again and again, time going on, until the file is so long. Gives the number of rounds. */
export function writeCapture(file: string, wantedBytes: number): number {
  const edges = edgesOf(conversation({ trouble: 'none', offers: OFFERS_65W, want: 3, wantMa: 2000 }), { seed: 1 });
  const rows = captureCsv(edges, 'CC1', 24e6)
    .trimEnd()
    .split('\n')
    .slice(1)
    .map((row) => row.split(','));
  const periodS = Number(rows[rows.length - 1][0]) + 0.01;
  const handle = openSync(file, 'w');
  writeSync(handle, 'Time [s],CC1,CC2\n');
  let rounds = 0;
  for (let bytes = 0; bytes < wantedBytes; rounds++) {
    const text = rows.map(([t, a, b]) => `${(Number(t) + rounds * periodS).toFixed(9)},${a},${b}`).join('\n') + '\n';
    bytes += text.length;
    writeSync(handle, text);
  }
  closeSync(handle);
  return rounds;
}

function eachPiece(file: string, take: (piece: Uint8Array) => boolean): void {
  const handle = openSync(file, 'r');
  const piece = new Uint8Array(PIECE_BYTES);
  for (let got = readSync(handle, piece); got > 0; got = readSync(handle, piece)) if (!take(piece.slice(0, got))) break;
  closeSync(handle);
}

function seconds(work: () => void): number {
  const start = performance.now();
  work();
  return (performance.now() - start) / 1000;
}

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
