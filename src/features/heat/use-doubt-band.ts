import { useEffect, useState } from 'react';
import { boardsInDoubt, doubtAxes, spreadOf } from '@/core/heat';
import { runSideBySide } from '@/workers/heat/side-by-side';
import type { HeatAnswerOf } from './use-heat-run';

/**
 * The coldest joint of the worked part over the stations that this one may be, one standard deviation either way; over what the
 * board may be where it was only looked at; and the model's own error. They are independent: their reaches add in squares.
 */
export interface DoubtBand {
  readonly of: HeatAnswerOf;
  readonly lowC: Float32Array;
  readonly highC: Float32Array;
}

/** Editing goes on before the band is computed, ms. */
const IDLE_MS = 500;

/** Computed beside the work when a run has been standing for a while; undefined until it is there. */
export function useDoubtBand(run: HeatAnswerOf | undefined): DoubtBand | undefined {
  const [band, setBand] = useState<DoubtBand>();
  useEffect(() => {
    if (!run) return;
    const { board, station, plan, goals } = run;
    let cancel = (): void => {};
    const timer = setTimeout(() => {
      const request = { board, plan, goals, aim: false, coarse: true };
      const stations = doubtAxes(station, plan);
      const boards = boardsInDoubt(board);
      const side = runSideBySide([
        ...[station, ...stations].map((on) => ({ ...request, station: on })),
        ...boards.map((other) => ({ ...request, station, board: other })),
      ]);
      cancel = side.cancel;
      void side.answers.then((answers) => {
        if (!answers) return;
        const coldest = ({ parts }: HeatAnswerOf['run']): Float32Array =>
          parts.find((p) => p.ref === plan.partRef)!.jointMinC;
        const [middle, ...others] = answers.map((a) => coldest(a.run));
        const full = coldest(run.run);
        // The coarse mesh only says how far the stations are apart.
        const [byStation, byBoard] = [others.slice(0, stations.length), others.slice(stations.length)];
        const ofBoard = (pick: (...list: number[]) => number, i: number): number =>
          pick(0, ...byBoard.map((o) => o[i] - middle[i]));
        const apart = (pick: (...list: number[]) => number, sign: 1 | -1): Float32Array =>
          full.map((t, i) => {
            const offs = byStation.map((o) => o[i] - middle[i]);
            return t + sign * spreadOf([...offs, ofBoard(pick, i)], t - plan.ambientC);
          });
        setBand({ of: run, lowC: apart(Math.min, -1), highC: apart(Math.max, 1) });
      });
    }, IDLE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [run]);
  return band?.of === run ? band : undefined;
}
