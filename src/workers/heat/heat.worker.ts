import { COARSE_MESH, aimPlan, judgeHeat, simulateHeat } from '@/core/heat';
import { fail, ok, type Result } from '@/core/result';
import { atMostEvery, serveTask } from '../serve';
import type { HeatAnswer, HeatProgress, HeatRequest, heatTask } from './task';

const COARSE = { ...COARSE_MESH, frames: false };

/** Progress is told at most this often, ms. */
const TELL_EVERY_MS = 60;

serveTask<typeof heatTask>({
  stopped: 'The simulation stopped',
  compute: (request, tell) => heatAnswer(request, atMostEvery(TELL_EVERY_MS, tell)),
  moved: ({ run }) => run.frames.map((f) => f.buffer as ArrayBuffer),
});

function heatAnswer(request: HeatRequest, tell: (progress: HeatProgress) => void): Result<HeatAnswer> {
  const { board, station, goals } = request;
  const plan = request.aim ? aimPlan(board, station, request.plan, goals).plan : request.plan;
  const run = simulateHeat(board, station, plan, {
    ...(request.coarse ? COARSE : {}),
    onProgress: (doneS, totalS) => tell({ doneS, totalS }),
  });
  return run ? ok({ plan, run, verdict: judgeHeat(board, plan, run, goals) }) : fail('The simulation was given up.');
}
