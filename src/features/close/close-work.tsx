'use client';

import { useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Link, Text, chakra } from '@chakra-ui/react';
import {
  benchMinutes,
  closeoutRecordOf,
  OUTCOMES,
  partsUsed,
  suggestedPrice,
  type JobView,
  type Outcome,
} from '@/core/job';
import { parseFigure } from '@/core/units';
import { Headline, MainButton, Named, PlainButton, ProblemNote, TextInput, usePlace } from '@/ui';
import { PicturePart } from './picture-part';
import { closeJob, dropLesson, keepLesson, makeDrill, reopenJob } from './actions';

const OUTCOME_WORDS: Record<Outcome, string> = {
  repaired: 'Repaired',
  stopped: 'Stopped',
  returned: 'Returned as it came',
};

/** The outcome, what the owner is told, and the report. A job closes as repaired only with its gates, or with a reason. */
export function CloseWork({ job, isLessonKept }: { job: JobView; isLessonKept: boolean }) {
  const { day } = usePlace();
  const { closed } = job.state;
  const open = job.proof.gates.filter((g) => !g.holds);
  if (closed) {
    return (
      <>
        <Headline title={`Closed: ${OUTCOME_WORDS[closed.outcome].toLowerCase()}`} aside={day(closed.at)}>
          {closed.cause || 'No cause stated.'} {closed.reason && `Closed with gates not met: ${closed.reason}`}
        </Headline>
        <ReportLinks number={job.number} />
        <LessonPart job={job} isKept={isLessonKept} />
        {closed.outcome === 'repaired' && <DrillPart number={job.number} />}
        <ReopenPart job={job} />
      </>
    );
  }
  return (
    <>
      <Headline
        title={
          open.length === 0
            ? 'All gates hold: close it as repaired'
            : `${open.length} of ${job.proof.gates.length} gates are not yet met`
        }
        aside={`job ${job.number}`}
      >
        {open.length === 0
          ? 'Tell the owner the cause, or the repair comes back.'
          : `Not yet: ${open.map((g) => g.label.toLowerCase()).join(', ')}. It can be closed as repaired only with a reason that the report prints.`}
      </Headline>
      <CloseForm job={job} gatesMissing={open.length > 0} />
      <PicturePart job={job} taken="close" />
      <Box mt="6">
        <ReportLinks number={job.number} />
      </Box>
    </>
  );
}

/** What the job taught, written back with one press, and taken back with another. */
/** What was hard here once can be learned on: the same faults, without a word of the owner. */
function DrillPart({ number }: { number: number }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const make = (): void =>
    start(async () => {
      const { saved, seq, message } = await makeDrill(number, crypto.randomUUID());
      if (saved) router.push(`/drills/${seq}`);
      else setProblem(message);
    });
  return (
    <Box mt="6">
      <PlainButton type="button" disabled={busy} onClick={make}>
        {busy ? 'Making it: the program plays it first' : 'Make a drill of it'}
      </PlainButton>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

function LessonPart({ job, isKept }: { job: JobView; isKept: boolean }) {
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const [busy, start] = useTransition();
  const { lines } = closeoutRecordOf(job);
  if (lines.length === 0) return null;
  const work = isKept ? dropLesson : keepLesson;
  return (
    <Box as="section" aria-label="What the job taught" mt="5">
      <Text as="h2" fontSize="13px" fontWeight="700" color="quiet">
        What the job taught
      </Text>
      {lines.map((line) => (
        <Text key={line} mb="1">
          {line}
        </Text>
      ))}
      <PlainButton type="button" disabled={busy} onClick={() => start(async () => setAnswer(await work(job.number)))}>
        {isKept ? 'Take it back' : 'Write it back'}
      </PlainButton>
      {answer &&
        (answer.saved ? (
          <Text as="span" role="status" color="leaf" ml="4">
            {answer.message}
          </Text>
        ) : (
          <ProblemNote text={answer.message} />
        ))}
    </Box>
  );
}

/** A job that comes back keeps its number and its past; a slip of the finger is undone instead. */
function ReopenPart({ job }: { job: JobView }) {
  const [symptom, setSymptom] = useState('');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const reopen = (): void =>
    start(async () => {
      const answer = await reopenJob(job.number, symptom, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <Box as="section" aria-label="It came back" mt="6" maxW="680px">
      <Lines label="It came back: with what, in the owner’s words" value={symptom} onChange={setSymptom} />
      <Flex gap="4" align="baseline">
        <PlainButton type="button" disabled={busy} onClick={reopen}>
          Open it again
        </PlainButton>
        <Text color="quiet" fontSize="14px">
          Closed by mistake? Undo takes the closing back; the record keeps both.
        </Text>
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

function CloseForm({ job, gatesMissing }: { job: JobView; gatesMissing: boolean }) {
  const stopped = job.state.decision?.action === 'stop';
  const [outcome, setOutcome] = useState<Outcome>(stopped ? 'stopped' : 'repaired');
  const [cause, setCause] = useState('');
  const [reason, setReason] = useState('');
  const [minutes, setMinutes] = useState(String(benchMinutes(job.state.live)));
  const [price, setPrice] = useState('');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const parts = partsUsed(job.board, job.state, job.practice);
  const worked = parseFigure(minutes.trim());
  const suggested = suggestedPrice(parts, worked.ok ? worked.value : 0, job.practice);
  const needsReason = outcome === 'repaired' && gatesMissing;
  const close = (): void =>
    start(async () => {
      const [stated, problems] = billOf(minutes, price);
      if (problems) return setProblem(problems);
      const closing = { outcome, cause, ...(needsReason && { reason }), ...stated };
      const answer = await closeJob(job.number, closing, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <Box maxW="680px">
      <Flex as="fieldset" gap="5" mb="4">
        <Text as="legend" fontSize="13px" fontWeight="700" color="quiet" mb="1.5">
          Outcome
        </Text>
        {OUTCOMES.map((o) => (
          <chakra.label key={o} display="flex" gap="2" alignItems="center" cursor="pointer" fontSize="17px">
            <input type="radio" name="outcome" checked={outcome === o} onChange={() => setOutcome(o)} />
            {OUTCOME_WORDS[o]}
          </chakra.label>
        ))}
      </Flex>
      <Lines label="Cause, as the owner is told" value={cause} onChange={setCause} />
      {needsReason && (
        <Lines
          label="Reason for closing with gates not met; the report prints it"
          value={reason}
          onChange={setReason}
        />
      )}
      <Flex gap="5" mb="4">
        <Named name="Bench minutes, by the times of the entries">
          <TextInput
            w="8em"
            fontFamily="mono"
            inputMode="decimal"
            value={minutes}
            onChange={(e) => setMinutes(e.target.value)}
          />
        </Named>
        <Named name="Price, where it is to be printed">
          <TextInput
            w="8em"
            fontFamily="mono"
            inputMode="decimal"
            value={price}
            onChange={(e) => setPrice(e.target.value)}
          />
        </Named>
      </Flex>
      <Flex gap="4" mb="4" align="baseline" fontSize="14px" color="quiet">
        <Text>
          {parts.length > 0
            ? `Parts used: ${parts.map((p) => `${p.ref} ${[p.typeId, p.offer].filter(Boolean).join(' ')}`.trim()).join(', ')}. `
            : 'No parts used. '}
          By the bench’s list and hour that comes to {suggested.toFixed(2)}.
        </Text>
        <PlainButton type="button" onClick={() => setPrice(suggested.toFixed(2))}>
          Take {suggested.toFixed(2)}
        </PlainButton>
      </Flex>
      {problem && <ProblemNote text={problem} />}
      <Box mt="4">
        <MainButton type="button" disabled={busy} onClick={close}>
          Close the job
        </MainButton>
      </Box>
    </Box>
  );
}

/** Minutes and price as typed; what is left empty is not stated. */
function billOf(minutes: string, price: string): [{ minutes?: number; price?: number }, string?] {
  const bill: { minutes?: number; price?: number } = {};
  for (const [name, text] of [
    ['minutes', minutes],
    ['price', price],
  ] as const) {
    if (text.trim() === '') continue;
    const value = parseFigure(text.trim());
    if (!value.ok || value.value < 0) return [bill, `Expected a figure from 0 for the ${name}; got “${text}”.`];
    bill[name] = value.value;
  }
  return [bill];
}

function Lines({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <chakra.label display="block" mb="4">
      <Text as="span" display="block" fontSize="13px" fontWeight="700" color="quiet" mb="1.5">
        {label}
      </Text>
      <chakra.textarea
        value={value}
        maxLength={400}
        rows={2}
        w="100%"
        bg="ground"
        border="1px solid"
        borderColor="quiet"
        borderRadius="2px"
        px="3"
        py="2"
        onChange={(e) => onChange(e.target.value)}
      />
    </chakra.label>
  );
}

function ReportLinks({ number }: { number: number }) {
  return (
    <Flex gap="5" fontSize="16px">
      <Link href={`/jobs/${number}/report`} color="copperText" textDecoration="underline">
        Report to print
      </Link>
      <Link href={`/jobs/${number}/report.pdf`} color="copperText" textDecoration="underline">
        Report as PDF
      </Link>
      <Link href={`/jobs/${number}/report.json`} color="copperText" textDecoration="underline">
        as JSON
      </Link>
      <Link href={`/jobs/${number}/report?private=1`} color="copperText" textDecoration="underline">
        with the bench’s notes
      </Link>
    </Flex>
  );
}
