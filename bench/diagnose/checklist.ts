import { fixedChecklist, OUTSIDE, rankRepairs, suspects, workNames, type Predictor } from '../../src/core/diagnose';
import type { Choose } from './play';

/** A bench with a checklist works once a repair has this chance of being the cure. Engineering estimate. */
const SURE = 0.9;

/** A sensible fixed checklist: every test in its order, work as soon as the cause is as good as sure. */
export function checklistChoice(predictor: Predictor): Choose {
  const { board } = predictor;
  const next = fixedChecklist(board);
  return (belief, { access, replaced, swapped, taken }) => {
    const [top] = suspects(belief);
    if (top.ref === OUTSIDE && top.p >= SURE && !swapped?.some((what) => top.fault.id.endsWith(what)))
      return { needs: [top.fault.mendedBy] };
    const [best] = [...rankRepairs(belief, access, new Set(workNames(replaced)))].sort(
      (a, b) => b.cureChance - a.cureChance,
    );
    const needs = best?.targets;
    if (needs && best.cureChance >= SURE) return { needs };
    const test = next(belief, taken);
    return test ? { test } : needs && { needs };
  };
}
