/** Hidden faults played on sketches against the full files of the same boards. */
import type { Board } from '../../src/core/board';
import { Predictor, type Reading } from '../../src/core/diagnose';
import { seededRandom } from '../../src/core/math';
import { applyBoardEdit, type ArchetypeId } from '../../src/core/sketch';
import { hiddenBoards, NoisyBench as Bench } from '../../src/core/drill';
import { playSession, type Growth, type PlayedSession } from '../diagnose/play-session';
import { note, ratio, section } from '../print';
import { drawnBoard } from './drawn-board';

const PLAYED = 300;
const ARCHETYPES: readonly ArchetypeId[] = ['onePort', 'oneChip', 'dock'];
/** Finding a part on a net and drawing it in. Engineering estimate. */
const MINUTES_A_PART = 1.5;

/** A hand at a board of which only a sketch is known: a part that gets warm and is not on it lies elsewhere. */
class SketchBench extends Bench {
  constructor(
    truth: Predictor,
    seed: number,
    private readonly known: () => Board,
  ) {
    super(truth, seededRandom(seed));
  }

  override read(...asked: Parameters<Bench['read']>): Reading {
    const reading = super.read(...asked);
    const { value } = reading;
    if (reading.measurement.kind !== 'warmSpot' || value.kind !== 'choice' || ANSWERS.has(value.choice)) return reading;
    return this.known().parts.some((p) => p.ref === value.choice)
      ? reading
      : { ...reading, value: { kind: 'choice', choice: 'elsewhere' } };
  }
}
const ANSWERS: ReadonlySet<string> = new Set(['elsewhere', 'none']);

const count = Number(process.argv[2] ?? PLAYED);
section(`${count} hidden faults on sketches, against the full files of the same boards`);
const pairs: { sketch: PlayedSession; full: PlayedSession }[] = [];
for (let k = 0; k < count; k++) {
  const random = seededRandom(7000 + k);
  const { sketch, full, missingAt } = drawnBoard(ARCHETYPES[k % ARCHETYPES.length], random);
  const truth = new Predictor(full);
  const hidden = hiddenBoards(truth)(random);
  let grown = sketch;
  const grow: Growth = (net) => {
    const more = (net === null ? [] : missingAt(net)).filter(
      (e) => e.kind === 'add' && !grown.parts.some((p) => p.ref === e.ref),
    );
    if (more.length === 0) return undefined;
    for (const edit of more) {
      const made = applyBoardEdit(grown, edit);
      if (made.ok) grown = made.value;
    }
    return { predictor: new Predictor(grown), minutes: MINUTES_A_PART * more.length };
  };
  pairs.push({
    sketch: playSession(new Predictor(sketch), hidden.faults, new SketchBench(truth, 90_000 + k, () => grown), grow),
    full: playSession(truth, hidden.faults, new Bench(truth, seededRandom(90_000 + k))),
  });
}
const share = (of: (p: (typeof pairs)[number]) => boolean): number => pairs.filter(of).length / pairs.length;
const mean = (of: (p: (typeof pairs)[number]) => number): number => pairs.reduce((s, p) => s + of(p), 0) / pairs.length;
note(
  `cured: sketch ${(100 * share((p) => p.sketch.cured)).toFixed(1)} %, full file ${(100 * share((p) => p.full.cured)).toFixed(1)} %`,
);
note(
  `mean minutes: sketch ${mean((p) => p.sketch.minutes).toFixed(1)}, full file ${mean((p) => p.full.minutes).toFixed(1)}`,
);
ratio('cures, sketch / full', share((p) => p.sketch.cured) / share((p) => p.full.cured), 'at least 0.90');
ratio('minutes, sketch / full', mean((p) => p.sketch.minutes) / mean((p) => p.full.minutes), 'at most 1.30');
const bins = Array.from({ length: 10 }, () => ({ stated: 0, right: 0 }));
const works = pairs.flatMap((p) => p.sketch.works);
for (const { p, right } of works) {
  const bin = bins[Math.min(9, Math.floor(10 * p))];
  bin.stated += p;
  bin.right += Number(right);
}
ratio(
  'calibration error of works on the sketch',
  bins.reduce((s, b) => s + Math.abs(b.stated - b.right), 0) / Math.max(1, works.length),
  'at most 0.06',
);
