import { correctRun } from '@/core/run';
import type { CorrectReply, CorrectRequest } from './protocol';

const post = (reply: CorrectReply): void => self.postMessage(reply);

self.onmessage = ({ data: { now, sight } }: MessageEvent<CorrectRequest>): void => {
  try {
    post({ kind: 'done', correction: correctRun(now, sight) });
  } catch (error) {
    post({ kind: 'problem', message: `The correction stopped: ${(error as Error).message}` });
  }
};
