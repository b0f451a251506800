import loadHighs from 'highs';
import type { IntegerSolver } from '@/core/allocation';

/** Gap between the answer and the bound of the search at which it counts as proven best: none but rounding. */
const EXACT = { output_flag: false, mip_rel_gap: 0, mip_abs_gap: 1e-7 } as const;

/** The integer-programming solver HiGHS, compiled to WebAssembly. */
export async function loadSolver(): Promise<IntegerSolver> {
  const highs = await loadHighs();
  return (lp) => {
    const { Status, Columns } = highs.solve(lp, EXACT);
    if (Status !== 'Optimal') return undefined;
    return new Map(Object.values(Columns).map((c) => [c.Name, 'Primal' in c ? (c.Primal ?? 0) : 0]));
  };
}
