import { draftFromFile } from '@/core/import';
import type { DraftReply, DraftRequest } from './protocol';

self.onmessage = ({ data }: MessageEvent<DraftRequest>): void => {
  let reply: DraftReply;
  try {
    reply = { kind: 'done', outcome: draftFromFile(data) };
  } catch (error) {
    reply = { kind: 'problem', message: `Reading ${data.file.name} stopped: ${(error as Error).message}` };
  }
  self.postMessage(reply);
};
