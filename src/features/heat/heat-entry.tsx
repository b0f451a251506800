'use client';

import { applyCompletion } from '@/core/command-line';
import { problemText } from '@/core/result';
import { EntryBar, inBrowser, useLater, type Echo, type EntryAnswer, type EntryCommand, type EntryFate } from '@/ui';
import { useHeatDesk } from './desk';

/** Parts come off and go on from here too: these lines belong to the job, not to the plan. */
const JOB_LINES = /^(off|on|pack|note)\b/;

/** A plan is kept; one that breaks a limit with the reason. */
const KEEP_LINE = /^keep(?:\s+because\s+(\S.*))?$/;

const aimWords = (overK: number): string => `Sets the dial so that the coldest joint peaks ${overK} °C above liquidus.`;

/** The grammar comes after the page; a line that is entered waits for it. */
const loadGrammar = inBrowser(() => import('./plan-grammar'));

export interface HeatEntryProps {
  /** The job's own lines and commands, given by the page. */
  readonly enterJobLine: (number: number, text: string, mode: 'ohm', key: string) => Promise<EntryAnswer>;
  readonly settle: (key: string) => Promise<EntryFate>;
  readonly commands: readonly EntryCommand[];
}

/** The entry line of the Heat stage: changes to the plan, and the parts that come off. */
export function HeatEntry({ enterJobLine, settle, commands }: HeatEntryProps) {
  const { job, station, plan, goals, setPlan, aim, keep, status, kept } = useHeatDesk();
  const grammar = useLater(loadGrammar);

  function echo(text: string): Echo | undefined {
    if (JOB_LINES.test(text)) return { message: 'Enter keeps it with the job.', state: 'plain' };
    if (KEEP_LINE.test(text.trim())) return { message: `Keeps this plan for ${plan.partRef}.`, state: 'plain' };
    if (text.trim() === 'aim') return { message: aimWords(goals.coldestOverLiquidusK), state: 'plain' };
    const edit = grammar?.parsePlanEntry(job.board, station, plan, text);
    if (!edit) return undefined;
    return edit.ok
      ? { message: edit.value.echo, state: 'plain' }
      : { message: problemText(edit.problems), state: 'problem' };
  }

  async function submit(text: string, key: string): Promise<EntryAnswer> {
    if (JOB_LINES.test(text)) return enterJobLine(job.number, text, 'ohm', key);
    const asKept = KEEP_LINE.exec(text.trim());
    if (asKept) return keep(key, asKept[1]);
    if (text === 'aim') {
      aim();
      return { saved: true, message: aimWords(goals.coldestOverLiquidusK) };
    }
    const { parsePlanEntry } = grammar ?? (await loadGrammar());
    const edit = parsePlanEntry(job.board, station, plan, text);
    if (!edit.ok) return { saved: false, message: problemText(edit.problems) };
    setPlan(edit.value.plan);
    return { saved: true, message: `${edit.value.echo} Computing.` };
  }

  return (
    <EntryBar
      name={`${job.number} heat`}
      placeholder="step 3 380"
      echo={echo}
      complete={(text) => grammar?.completePlanEntry(job.board, station, plan, text)}
      applyCompletion={applyCompletion}
      submit={submit}
      settle={settle}
      version={job.version}
      suggestion={
        status.kind === 'done' && !kept
          ? 'keep'
          : job.state.absent.includes(plan.partRef)
            ? undefined
            : `off ${plan.partRef.toLowerCase()}`
      }
      forms={grammar?.FORMS}
      commands={commands}
    />
  );
}
