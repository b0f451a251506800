import { proposeMap, compareAll, sha256Hex } from '@/core/image';
import { firmwareImage } from '@/core/import';
import { flatten } from '@/core/records';
import { fail, ok, problemText, type Result } from '@/core/result';
import { serveTask } from '../serve';
import type { CompareProgress, CompareRequest, OpenedImage, SeenImages, compareTask } from './task';

serveTask<typeof compareTask>({
  stopped: 'The comparison stopped',
  compute: compareFiles,
  moved: ({ images }) => images.map((i) => i.bytes.buffer),
});

async function compareFiles(
  { files, family, stretches, propose }: CompareRequest,
  tell: (progress: CompareProgress) => void,
): Promise<Result<SeenImages>> {
  const images: OpenedImage[] = [];
  for (const [k, { name, content }] of files.entries()) {
    tell({ done: k / files.length / 2, message: `opening ${name}` });
    const opened = await openImage(name, content);
    if (!opened.ok) return opened;
    images.push(opened.value);
  }
  const seen = compareAll(
    images.map((i) => i.bytes),
    stretches,
    family,
    (done) => tell({ done: 0.5 + done / 2, message: 'comparing' }),
  );
  const proposed = propose && proposeMap(images[0].bytes, propose);
  return ok({ images, seen, ...(proposed && { proposed }) });
}

async function openImage(name: string, content: Blob): Promise<Result<OpenedImage>> {
  const outcome = firmwareImage.read({ name, bytes: new Uint8Array(await content.arrayBuffer()) }, {});
  if (outcome.kind === 'refused') return fail(`${name}: ${problemText(outcome.problems)}`);
  if (!outcome.value) return fail(`${name}: ${outcome.questions.map((q) => q.why).join(' ')}`);
  const bytes = Uint8Array.from(flatten(outcome.value.chunks).bytes);
  if (bytes.length === 0) return fail(`${name}: Expected an image; it is empty.`);
  return ok({ format: outcome.value.format, sha256: await hashOf(bytes), bytes });
}

/** The browser's own digest is several times quicker; it is there only where the page came by a secure way. */
async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  if (!self.crypto?.subtle) return sha256Hex(bytes);
  const digest = new Uint8Array(await self.crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (b) => b.toString(16).padStart(2, '0')).join('');
}
