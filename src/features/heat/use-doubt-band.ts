import { useEffect, useState } from 'react';
import { stationsInDoubt } from '@/core/heat';
import { runSideBySide } from '@/workers/heat/side-by-side';
import type { HeatAnswerOf } from './use-heat-run';

/** The coldest joint of the worked part over the stations that this one may be, one standard deviation either way. */
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
      const side = runSideBySide([station, ...stationsInDoubt(station)].map((on) => ({ ...request, station: on })));
      cancel = side.cancel;
      void side.answers.then((answers) => {
        if (!answers) return;
        const coldest = ({ parts }: HeatAnswerOf['run']): Float32Array =>
          parts.find((p) => p.ref === plan.partRef)!.jointMinC;
        const [middle, ...others] = answers.map((a) => coldest(a.run));
        const full = coldest(run.run);
        // The coarse mesh only says how far the stations are apart.
        const apart = (pick: (...list: number[]) => number): Float32Array =>
          full.map((t, i) => t + pick(...others.map((o) => o[i] - middle[i])));
        setBand({ of: run, lowC: apart(Math.min), highC: apart(Math.max) });
      });
    }, IDLE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [run]);
  return band?.of === run ? band : undefined;
}
