import { COARSE_MESH, aimPlan, judgeHeat, simulateHeat } from '@/core/heat';
import type { HeatReply, HeatRequest } from './protocol';

const COARSE = { ...COARSE_MESH, frames: false };

/** Progress is told at most this often, ms. */
const TELL_EVERY_MS = 60;

const post = (reply: HeatReply, transfer: Transferable[] = []): void => self.postMessage(reply, { transfer });

self.onmessage = ({ data }: MessageEvent<HeatRequest>): void => {
  const { board, station } = data;
  const start = performance.now();
  let told = start;
  try {
    const plan = data.aim ? aimPlan(board, station, data.plan, data.goals).plan : data.plan;
    const run = simulateHeat(board, station, plan, {
      ...(data.coarse ? COARSE : {}),
      onProgress: (doneS, totalS) => {
        const now = performance.now();
        if (now - told < TELL_EVERY_MS) return;
        told = now;
        post({ kind: 'progress', doneS, totalS });
      },
    });
    if (!run) return;
    const verdict = judgeHeat(board, plan, run, data.goals);
    post(
      { kind: 'done', plan, run, verdict, tookMs: performance.now() - start },
      run.frames.map((f) => f.buffer as ArrayBuffer),
    );
  } catch (error) {
    post({ kind: 'problem', message: `The simulation stopped: ${(error as Error).message}` });
  }
};
