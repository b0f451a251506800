import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import { Predictor, sampleReading, type Fault, type Practice } from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { note, ratio, section } from '../print';
import { together } from '../../src/core/drill';
import { ownChoice, playJob } from './play';

const PLAYED = 60;
/** So many parts share a net before it is worth asking which of them gets warm. */
const SHARERS = 3;

/** Shorts to ground on nets that three parts or more could hold. */
function sharedShorts({ faults }: Predictor): Fault[] {
  const netOf = ({ effects }: Fault): string | undefined => {
    const [first] = effects;
    return first?.kind === 'shunt' && !effects.some((e) => e.kind === 'leak') ? first.net : undefined;
  };
  const holders = new Map<string, Set<string>>();
  for (const f of faults) {
    const net = netOf(f);
    if (net !== undefined) holders.set(net, (holders.get(net) ?? new Set<string>()).add(f.ref));
  }
  return faults.filter((f) => (holders.get(netOf(f) ?? '')?.size ?? 0) >= SHARERS);
}

/** Mean minutes to a proven cure where several parts share a shorted net: with a supply for the warm spot, and without. */
export function benchWarmSpot(): void {
  section('Warm spot: boards with a short that three parts or more could hold, noisy readings, work, proof');
  for (const id of DEMO_BOARDS) {
    const predictor = Predictor.of(demoBoard(id));
    const shorts = sharedShorts(predictor);
    const minutes = (practice: Practice): number => {
      let sum = 0;
      for (let k = 0; k < PLAYED; k++) {
        const random = seededRandom(1000 + k);
        const fault = shorts[Math.floor(random() * shorts.length)];
        const played = playJob(
          predictor,
          [fault],
          ownChoice,
          (m, left, state) => sampleReading(predictor, m, together(left), random, { ...state, practice }),
          practice,
        );
        sum += played.minutes;
      }
      return sum / PLAYED;
    };
    const [own, without] = [minutes({}), minutes({ without: ['warmSpot'] })];
    note(`${id}: ${shorts.length} such shorts; mean minutes ${own.toFixed(1)} with it, ${without.toFixed(1)} without`);
    ratio('minutes, with / without the warm spot', own / without, '< 1');
  }
}
