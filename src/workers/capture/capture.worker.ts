import { CaptureReader } from '@/core/import';
import { problemText } from '@/core/result';
import type { CaptureReply, CaptureRequest } from './protocol';

/** Progress is told at most this often, ms. */
const TELL_EVERY_MS = 80;

const post = (reply: CaptureReply): void => self.postMessage(reply);

/** Reads the file piece by piece: memory stays at one piece, whatever its length. */
self.onmessage = async ({ data }: MessageEvent<CaptureRequest>): Promise<void> => {
  const reader = new CaptureReader(data.name, data.answers);
  const pieces = data.file.stream().getReader();
  let doneBytes = 0;
  let told = performance.now();
  for (let piece = await pieces.read(); !piece.done; piece = await pieces.read()) {
    doneBytes += piece.value.length;
    if (!reader.push(piece.value)) break;
    const now = performance.now();
    if (now - told < TELL_EVERY_MS) continue;
    told = now;
    post({ kind: 'progress', doneBytes, totalBytes: data.file.size });
  }
  const outcome = reader.finish();
  if (outcome.kind === 'refused') return post({ kind: 'problem', message: problemText(outcome.problems) });
  const { value, questions, notes } = outcome;
  post(value ? { kind: 'done', reading: value, notes } : { kind: 'asked', questions, notes });
};
