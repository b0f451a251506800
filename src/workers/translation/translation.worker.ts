import { translatePlan } from '@/core/heat';
import type { TranslationReply, TranslationRequest } from './protocol';

const post = (reply: TranslationReply): void => self.postMessage(reply);

self.onmessage = ({ data: { board, theirs, ours, plan } }: MessageEvent<TranslationRequest>): void => {
  const start = performance.now();
  try {
    const translation = translatePlan(board, theirs, ours, plan);
    post({ kind: 'done', translation, tookMs: performance.now() - start });
  } catch (error) {
    post({ kind: 'problem', message: `The translation stopped: ${(error as Error).message}` });
  }
};
