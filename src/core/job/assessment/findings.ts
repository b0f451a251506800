import { partByRef, type Board } from '../../board';
import { METER_WORDS, isOutsideTest, readMeter, type HistoryFlag } from '../../diagnose';
import { heatFinding } from '../../heat';
import { DEFAULT_SITE_PRACTICE, judgeLifted, judgePadLook, type SitePractice } from '../../joints';
import { formatAmp, formatChance, formatVolt } from '../../units';
import { supplyLabel } from '../../stock';
import type { JobAnalysis } from './analysis';
import { decisionLabel, type JobState, type TakenReading } from '../log';
import type { JobProof } from '../proof/proof';
import { judgeSeat, judgeSeenBalls } from '../proof/site-verdicts';
import type { StageId } from './stages';

/** What was found at each stage, in a few words: the path tells the job's story. */
export type Findings = Readonly<Record<StageId, string>>;

export const HISTORY_WORDS: Record<HistoryFlag, string> = {
  unknownCharger: 'unknown charger',
  liquid: 'liquid',
  fall: 'fall',
  bend: 'bent',
  earlierRepair: 'repaired before',
};

export function findingsOf(
  board: Board,
  state: JobState,
  analysis: JobAnalysis,
  proof: JobProof,
  sitePractice: SitePractice = DEFAULT_SITE_PRACTICE,
): Findings {
  return {
    arrive: arriveFinding(state),
    outside: outsideFinding(board, state),
    probe: probeFinding(state, analysis),
    decide: decideFinding(board, state),
    heat: state.heatPlan ? heatFinding(state.heatPlan.plan, state.heatPlan.shown) : '',
    balls: ballsFinding(board, state, sitePractice),
    image: imageFinding(state),
    prove: proveFinding(state, proof),
    close: closeFinding(state),
  };
}

function decideFinding(board: Board, { decision, route }: JobState): string {
  if (!decision) return '';
  const label = decisionLabel(board, decision);
  return route ? `${label}: ${route.typeId}, ${supplyLabel(route.supply)}` : label;
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function arriveFinding({ story }: JobState): string {
  if (!story) return '';
  const history = story.history.map((flag) => HISTORY_WORDS[flag]).join(', ') || 'no history known';
  const pack = { sound: 'Pack sound.', swollen: 'Pack swollen: out first.', none: 'No pack.' }[story.pack];
  return `${sentence(history)}. ${story.dataMatters ? 'Data matters.' : 'Data kept elsewhere.'} ${pack}`;
}

function outsideFinding(board: Board, state: JobState): string {
  const first = new Map<string, TakenReading>();
  for (const r of state.readings) {
    if (r.measurement.kind === 'usbMeter' && r.replaced.length === 0)
      first.set(`${r.measurement.port} ${r.measurement.side}`, r);
  }
  const lines = [...first.values()].flatMap((r) => {
    if (r.measurement.kind !== 'usbMeter' || r.value.kind !== 'pair') return [];
    const { port, side } = r.measurement;
    const figures = `${formatVolt(r.value.volts)} and ${formatAmp(r.value.amps)}`;
    return [
      {
        side: board.ports.length > 1 ? `${port} ${side}` : side,
        figures,
        meter: readMeter(board, port, r.value.volts, r.value.amps),
      },
    ];
  });
  if (lines.length === 0) return '';
  if (lines.length > 1 && lines.every((l) => l.meter === lines[0].meter)) {
    return `${lines[0].figures} ${lines.length === 2 ? 'both ways' : 'every way'}: ${METER_WORDS[lines[0].meter]}`;
  }
  return lines.map((l) => `${l.side} way: ${METER_WORDS[l.meter]}`).join('; ');
}

function probeFinding(state: JobState, analysis: JobAnalysis): string {
  const taken = state.readings.filter((r) => !isOutsideTest(r.measurement)).length;
  if (taken === 0) return '';
  const [top] = analysis.suspects;
  return top.p >= 0.5
    ? `${shortWords(top.label)}, ${formatChance(top.p)}`
    : `${taken} ${taken === 1 ? 'reading' : 'readings'}; ${shortWords(top.label)} at ${formatChance(top.p)}`;
}

/** `U4 port controller, AON33 shorted inside` as `U4: AON33 shorted inside`. */
export function shortWords(words: string): string {
  const [ref] = words.split(' ');
  const comma = words.indexOf(', ');
  return /^(?=.*\d)[A-Za-z][\w.+-]{0,31}$/.test(ref) && comma > 0 ? `${ref}: ${words.slice(comma + 2)}` : words;
}

/** Part by part what was found of pads, balls and how flat it lies; named where it is about more than one part. */
function ballsFinding(
  board: Board,
  { site, lifted, inspections, padLooks, flatness }: JobState,
  practice: SitePractice,
): string {
  const refs = [
    ...new Set([site?.ref ?? [], ...[lifted, padLooks, inspections, flatness].map((kept) => Object.keys(kept))].flat()),
  ];
  const found = refs.map((ref) => {
    const part = partByRef(board, ref);
    const gone = lifted[ref] ?? [];
    const [pads, balls, seat] = [padLooks[ref], inspections[ref], flatness[ref]];
    const lines = [
      gone.length > 0 && part && judgeLifted(board, part, gone).headline,
      pads && judgePadLook(pads.pads, pads.bridges).headline,
      balls && judgeSeenBalls(board, balls, practice)?.headline,
      site?.ref === ref && site.words,
      seat && judgeSeat(board, seat)?.summary,
    ].filter(Boolean);
    return { ref, words: lines.join('. ') };
  });
  const told = found.filter(({ words }) => words !== '');
  return told.map(({ ref, words }) => (told.length > 1 ? `${ref}: ${words}` : words)).join('; ');
}

function imageFinding({ images, written }: JobState): string {
  if (written) return 'New image written, checks hold';
  if (images.merged) return `New image kept, checks ${images.merged.sound ? 'hold' : 'fail'}`;
  if (images.patient) return images.patient.sound ? 'Patient image sound: it stays' : 'Patient image damaged';
  return '';
}

function proveFinding(state: JobState, proof: JobProof): string {
  const measured = proof.rails.rails.filter((r) => r.state !== 'untested');
  if (measured.length === 0 || (state.replaced.length === 0 && !state.closed)) return '';
  if (proof.rails.failures.length > 0) {
    const [first] = proof.rails.failures;
    return `${first.rail} fails: ${first.suspects.slice(0, 3).join(', ')}`;
  }
  const plugs = proof.plugs.filter((p) => p.healthy).length;
  return `${measured.length} of ${proof.rails.rails.length} rails, ${plugs} of ${proof.plugs.length} plug ways`;
}

function closeFinding({ closed }: JobState): string {
  if (!closed) return '';
  return closed.reason ? `${sentence(closed.outcome)}, with a reason` : sentence(closed.outcome);
}
