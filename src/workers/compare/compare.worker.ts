import { proposeMap, compareAll, sha256Hex } from '@/core/image';
import { firmwareImage } from '@/core/import';
import { flatten } from '@/core/records';
import { problemText } from '@/core/result';
import type { CompareReply, CompareRequest, OpenedImage } from './protocol';

const post = (reply: CompareReply, moved: Transferable[] = []): void => self.postMessage(reply, { transfer: moved });

self.onmessage = async ({ data }: MessageEvent<CompareRequest>): Promise<void> => {
  const { files, family, stretches, propose } = data;
  const start = performance.now();
  try {
    const images: OpenedImage[] = [];
    for (const [k, { name, content }] of files.entries()) {
      post({ kind: 'progress', done: k / files.length / 2, message: `opening ${name}` });
      const opened = await openImage(name, content);
      if (typeof opened === 'string') return post({ kind: 'problem', message: opened });
      images.push(opened);
    }
    const seen = compareAll(
      images.map((i) => i.bytes),
      stretches,
      family,
      (done) => post({ kind: 'progress', done: 0.5 + done / 2, message: 'comparing' }),
    );
    const proposed = propose && proposeMap(images[0].bytes, propose);
    post(
      { kind: 'seen', images, seen, ...(proposed && { proposed }), tookMs: performance.now() - start },
      images.map((i) => i.bytes.buffer),
    );
  } catch (error) {
    post({ kind: 'problem', message: `The comparison stopped: ${(error as Error).message}` });
  }
};

async function openImage(name: string, content: Blob): Promise<OpenedImage | string> {
  const outcome = firmwareImage.read({ name, bytes: new Uint8Array(await content.arrayBuffer()) }, {});
  if (outcome.kind === 'refused') return `${name}: ${problemText(outcome.problems)}`;
  if (!outcome.value) return `${name}: ${outcome.questions.map((q) => q.why).join(' ')}`;
  const bytes = Uint8Array.from(flatten(outcome.value.chunks).bytes);
  if (bytes.length === 0) return `${name}: Expected an image; it is empty.`;
  return { format: outcome.value.format, sha256: await hashOf(bytes), bytes };
}

/** The browser's own digest is several times quicker; it is there only where the page came by a secure way. */
async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  if (!self.crypto?.subtle) return sha256Hex(bytes);
  const digest = new Uint8Array(await self.crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (b) => b.toString(16).padStart(2, '0')).join('');
}
