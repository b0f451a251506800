import { findPlace } from '@/core/board';
import type { JobView, StageId } from '@/core/job';

/** What Enter fills in while the line is empty: the test asked for, or the next rail to prove. */
export function suggestionOf(job: JobView, stage: StageId, stem: string | undefined): string | undefined {
  if (stage === 'probe' || stage === 'outside') return stem;
  if (stage !== 'prove') return undefined;
  const short = job.proof.shorts.find((s) => s.gone !== true);
  const place = (net: string): string => (findPlace(job.board, net)?.name ?? net).toLowerCase();
  if (short) return `${place(short.net)} ohm `;
  const rail = job.board.rails.find((r) => r.id === job.proof.rails.next);
  if (rail) return `${place(rail.net)} `;
  const plug = job.proof.plugs.find((p) => p.healthy === undefined);
  if (plug) return `usb ${job.board.ports.length > 1 ? `${plug.port.toLowerCase()} ` : ''}${plug.side.toLowerCase()} `;
  const [fn] = job.proofOrder.tests;
  return fn && `try ${fn.id} `;
}
