import { reduceFamily } from '@/core/heat';
import type { ReducedReply, ReducedRequest } from './protocol';

const post = (reply: ReducedReply): void => self.postMessage(reply);

self.onmessage = ({ data: { board, station, plan } }: MessageEvent<ReducedRequest>): void => {
  try {
    post({ kind: 'done', model: reduceFamily(board, station, plan) });
  } catch (error) {
    post({ kind: 'problem', message: `The reduced model failed: ${(error as Error).message}` });
  }
};
