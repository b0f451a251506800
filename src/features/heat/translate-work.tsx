'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Text } from '@chakra-ui/react';
import {
  NOMINAL_STATION,
  foreignPlan,
  guessed,
  parseForeign,
  type HeatPlan,
  type Station,
  type Translation,
} from '@/core/heat';
import { ALLOYS } from '@/core/joints';
import { problemText } from '@/core/result';
import { TwoHistories } from '@/drawings/two-histories';
import { BigFigure, Headline, MainButton, Named, PlainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { translationTask } from '@/workers/translation/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { useHeatDesk } from './desk';

type Answer =
  | { readonly kind: 'running' }
  | {
      readonly kind: 'done';
      readonly translation: Translation;
      readonly theirs: Station;
      readonly ours: Station;
      readonly assumed: readonly string[];
    }
  | { readonly kind: 'problem'; readonly message: string };

const UNKNOWN = 'not known';

/** Someone else's settings for this station: the same joint history, with the doubt of both. */
export function TranslateWork() {
  const { job, stations, station, plan, setPlan } = useHeatDesk();
  const router = useRouter();
  const [text, setText] = useState('350 at 80 %, 8 mm, 60 s');
  const [theirId, setTheirId] = useState(UNKNOWN);
  const [answer, setAnswer] = useState<Answer>();
  const { start, cancel } = useWorkerTask(translationTask);
  /** Once translated, the main action is to use it. */
  const Translate = answer?.kind === 'done' ? PlainButton : MainButton;
  const theirs = stations.find((s) => s.id === theirId) ?? guessed(NOMINAL_STATION);

  async function translate(): Promise<void> {
    const settings = parseForeign(text);
    if (!settings.ok) {
      setAnswer({ kind: 'problem', message: problemText(settings.problems) });
      return;
    }
    setAnswer({ kind: 'running' });
    const got = await start({
      board: job.board,
      theirs,
      ours: station,
      plan: foreignPlan(settings.value, theirs, plan),
    });
    if (got.kind === 'done')
      setAnswer({ kind: 'done', translation: got.value, theirs, ours: station, assumed: settings.value.assumed });
    else setAnswer(got.kind === 'problem' ? got : undefined);
  }

  return (
    <>
      {answer?.kind === 'done' ? (
        <Headline title={dialWords(answer.translation.plan)} aside={answer.ours.name}>
          {answer.translation.limits.length > 0
            ? `As near as this station comes: ${answer.translation.limits.join('; ')}.`
            : `The joints of ${plan.partRef} then follow the same history, within ${answer.translation.rmsK.toFixed(1)} K.`}
        </Headline>
      ) : (
        <Headline title="Somebody else’s settings, for this station" aside={station.name}>
          Numbers from another bench do not carry over: nozzle, distance, true flow and copper decide. What their joints
          went through does.
        </Headline>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void translate();
        }}
      >
        <Flex gap="4" align="flex-end" wrap="wrap" mb="3">
          <Named name="What they say">
            <TextInput w="22em" fontFamily="mono" value={text} onChange={(e) => setText(e.target.value)} />
          </Named>
          <Named name="Their station">
            <SelectBox
              value={theirId}
              options={[[UNKNOWN, 'nobody knows: a typical one'], ...stations.map((s) => [s.id, s.name] as const)]}
              onChange={setTheirId}
            />
          </Named>
          <Translate type="submit" disabled={answer?.kind === 'running'}>
            Translate
          </Translate>
          {answer?.kind === 'running' && (
            <PlainButton type="button" onClick={cancel}>
              Cancel
            </PlainButton>
          )}
        </Flex>
      </form>
      {answer?.kind === 'running' && <Text role="status">Both stations are simulated over this board …</Text>}
      {answer?.kind === 'problem' && <ProblemNote text={answer.message} />}
      {answer?.kind === 'done' && (
        <Done
          answer={answer}
          onUse={() => {
            setPlan(answer.translation.plan);
            router.push('?view=plan');
          }}
        />
      )}
    </>
  );
}

function Done({
  answer: { translation, theirs, ours, assumed },
  onUse,
}: {
  answer: Extract<Answer, { kind: 'done' }>;
  onUse: () => void;
}) {
  const { plan, rmsK, doubtK } = translation;
  const hot = plan.steps.filter((s) => s.airSetC !== null);
  return (
    <>
      <Flex gap="6" wrap="wrap" mb="3" align="flex-end">
        <BigFigure size="19px" name="apart, root mean square" value={`${rmsK.toFixed(1)} K`} />
        <BigFigure size="19px" name="in doubt at the hottest, one sigma" value={`± ${doubtK.toFixed(0)} K`} />
        <BigFigure
          name="flow, height, nozzle"
          value={`${hot[0].flowLpm} l/min, ${hot[0].heightMm} mm, ${plan.nozzleMm} mm`}
        />
        <MainButton type="button" onClick={onUse}>
          Use these settings
        </MainButton>
      </Flex>
      {assumed.length > 0 && (
        <Text fontSize="14px" color="amberText" mb="2">
          They did not say, so taken: {assumed.join(', ')}.
        </Text>
      )}
      <Box flex="1" minH="260px" position="relative">
        <TwoHistories
          timesS={translation.timesS}
          theirsC={translation.theirsC}
          oursC={translation.oursC}
          theirs={theirs.name}
          ours={ours.name}
          liquidusC={ALLOYS[plan.alloy].liquidusC}
        />
      </Box>
    </>
  );
}

/** The dials in the order of the steps: `380 °C for 15 s, then 345 °C for 45 s`. */
const dialWords = ({ steps }: HeatPlan): string =>
  steps
    .filter((s) => s.airSetC !== null)
    .map((s) => `${s.airSetC} °C for ${s.durationS} s`)
    .join(', then ');
