'use client';

import { usePathname, useRouter } from 'next/navigation';
import { applyCompletion } from '@/core/command-line';
import { isBareValue, type EntryMode, type JobView, type Origin, type StageId } from '@/core/job';
import { EntryBar, inBrowser, useLater, usePlace, type EntryCommand } from '@/ui';
import { enterLine, settleEntry } from './actions';
import { useJobCommands } from './job-commands';
import { suggestionOf } from './suggestion';

const PLACEHOLDER: Partial<Record<StageId, string>> = {
  outside: 'usb a 14.8 0.49',
  probe: 'tp7 1.8 ohm',
  prove: 'tp7 3.31',
};

/** The views of a stage and their keys. */
const VIEW_KEYS: Partial<Record<StageId, readonly (readonly [key: string, view: string, label: string])[]>> = {
  outside: [
    ['L', 'look', 'look into the port'],
    ['M', 'meter', 'the meter'],
    ['T', 'trace', 'traces'],
    ['C', 'talk', 'conversation'],
    ['W', 'walk', 'port walk'],
  ],
  prove: [
    ['J', 'unpowered', 'joints, before power'],
    ['R', 'rails', 'rails'],
    ['P', 'plugs', 'plug ways'],
    ['F', 'functions', 'functions, soak'],
  ],
};

/** The grammar comes beside the page; without it lines go to the server all the same. */
const loadGrammar = inBrowser(() =>
  import('./grammar').then(({ FORMS, completionsOf, echoOf, isQuestion }) => ({
    FORMS,
    completionsOf,
    echoOf,
    isQuestion,
  })),
);

export interface JobEntryProps {
  readonly job: JobView;
  readonly stage: StageId;
  readonly mode: EntryMode;
  readonly testIndex: number;
  /** Put before a value that stands alone. */
  readonly bareStem?: string;
}

/** The entry line of a job: readings in the short grammar, with their meaning before Enter keeps them. */
export function JobEntry({ job, stage, mode, testIndex, bareStem }: JobEntryProps) {
  const grammar = useLater(loadGrammar);
  const commands = useJobCommands(job);
  const { place } = usePlace();
  const router = useRouter();
  const pathname = usePathname();
  const test = job.tests[testIndex] ?? job.tests[0];

  const whole = (text: string): string => (bareStem && isBareValue(text) ? bareStem + text.trim() : text);

  const other: EntryCommand = {
    key: 'N',
    label: 'other test',
    run: () => router.replace(`${pathname}?test=${(testIndex + 1) % Math.max(1, job.tests.length)}`, { scroll: false }),
  };
  const views = (VIEW_KEYS[stage] ?? []).map(([key, view, label]): EntryCommand => ({
    ...{ key, label, quiet: true },
    run: () => router.push(`${pathname}?view=${view}`),
  }));
  const asksTests = stage === 'probe' || stage === 'outside';
  return (
    <EntryBar
      name={String(job.number)}
      placeholder={bareStem ? '0.262' : (PLACEHOLDER[stage] ?? 'note, or a reading')}
      echo={(text) => grammar?.echoOf(job, whole(text), mode, place)}
      complete={(text) => grammar?.completionsOf(job, text)}
      applyCompletion={applyCompletion}
      settle={settleEntry}
      submit={async (text, key, origin) => {
        const answer = await enterLine(job.number, whole(text), mode, key, origin as Origin | undefined);
        if (answer.saved && testIndex > 0) router.replace(pathname, { scroll: false });
        return answer;
      }}
      version={job.version}
      suggestion={bareStem ?? suggestionOf(job, stage, test?.stem)}
      forms={grammar?.FORMS}
      asks={grammar?.isQuestion}
      commands={[...(asksTests ? [other] : []), ...views, ...commands]}
    />
  );
}
