import { carryOf } from '@/core/sketch';
import type { CarryReply, CarryRequest } from './protocol';

self.onmessage = ({ data }: MessageEvent<CarryRequest>): void => {
  let reply: CarryReply;
  try {
    reply = { kind: 'carry', carry: carryOf(data.board) };
  } catch (error) {
    reply = { kind: 'problem', message: `Weighing what is known stopped: ${(error as Error).message}` };
  }
  self.postMessage(reply);
};
