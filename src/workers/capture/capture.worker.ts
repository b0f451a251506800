import { CaptureReader } from '@/core/import';
import { failAll, ok, type Result } from '@/core/result';
import { atMostEvery, serveTask } from '../serve';
import type { CaptureOutcome, CaptureRequest, captureTask } from './task';

/** Progress is told at most this often, ms. */
const TELL_EVERY_MS = 80;

serveTask<typeof captureTask>({
  stopped: 'Reading the capture stopped',
  compute: (request, tell) => readCapture(request, atMostEvery(TELL_EVERY_MS, tell)),
});

/** Reads the file piece by piece: memory stays at one piece, whatever its length. */
async function readCapture(
  { file, name, answers }: CaptureRequest,
  tell: (share: number) => void,
): Promise<Result<CaptureOutcome>> {
  const reader = new CaptureReader(name, answers);
  const pieces = file.stream().getReader();
  let doneBytes = 0;
  for (let piece = await pieces.read(); !piece.done; piece = await pieces.read()) {
    doneBytes += piece.value.length;
    if (!reader.push(piece.value)) break;
    tell(doneBytes / file.size);
  }
  const outcome = reader.finish();
  if (outcome.kind === 'refused') return failAll([...outcome.problems]);
  return ok({ reading: outcome.value, questions: outcome.questions, notes: outcome.notes });
}
