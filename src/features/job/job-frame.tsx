import type { ReactNode } from 'react';
import { Box, Text } from '@chakra-ui/react';
import type { EntryMode, JobView, StageId } from '@/core/job';
import { formatChance } from '@/core/units';
import { CautionNote, EntryOfferProvider, Frame, PageLink, SidebarPart, Strip } from '@/ui';
import { HandPart, InstrumentsPart } from './instruments-later';
import { JobEntry } from './job-entry';
import { LiveJob } from './live-job';
import { Path } from './path';

export interface JobFrameProps {
  readonly job: JobView;
  readonly stage: StageId;
  readonly work: ReactNode;
  readonly sidebar: ReactNode;
  /** Which of the proposed tests is asked for. */
  readonly testIndex?: number;
  readonly mode?: EntryMode;
  /** Put before a value that stands alone, in a walk from contact to contact. */
  readonly bareStem?: string;
  /** Another entry line, where a stage types something else than readings. */
  readonly entry?: ReactNode;
}

/** What the chosen chip asks of this stage. */
const PlanLine = ({ text }: { text: string }) => (
  <Box borderLeft="3px solid" borderColor="copper" pl="3" mb="3" fontSize="15px">
    {text}
  </Box>
);

/** Rows of the record that this program cannot read: said on every stage, the rest of the job is shown. */
const UnreadableNote = ({ rows }: { rows: JobView['state']['unreadable'] }) =>
  rows.length === 0 ? null : (
    <Box role="alert" borderLeft="3px solid" borderColor="rust" pl="3" mb="3" fontSize="14px">
      <Text fontWeight="700">
        {rows.length === 1 ? 'One entry of this job' : `${rows.length} entries of this job`} cannot be read and does not
        count.
      </Text>
      {rows.map((r) => (
        <Text key={r.seq}>{r.problem}</Text>
      ))}
    </Box>
  );

/** In every stage of a job that came back: what was mended last time, and the odds that it is that again. */
const PastNote = ({ job, past }: { job: JobView; past: JobView['priorClosures'][number] }) => (
  <SidebarPart title={`Came back after ${past.daysGood} ${past.daysGood === 1 ? 'day' : 'days'}`}>
    <Text fontSize="14px">
      {past.mended.join(', ') || 'Nothing was changed then'}.{' '}
      {past.mended.length > 0 && `The same again: ${formatChance(past.againChance)}. `}
      {past.changes.filter((c) => c.hasTurned).length} of {past.changes.length} readings of the last proof have turned.{' '}
      <PageLink href={`/jobs/${job.number}/arrive`} style={{ textDecoration: 'underline' }}>
        Then and now
      </PageLink>
    </Text>
  </SidebarPart>
);

const TrainingNote = () => (
  <Text borderTop="2px dashed" borderBottom="2px dashed" borderColor="amber" py="1" mb="3" fontSize="14px">
    A training job: its instruments may be simulated, and nothing of it counts in records, references, stock or lessons.
  </Text>
);

/** On every page of a job to learn on: nothing that is seen here was measured on a real device. */
const TrainingMark = () => (
  <Box as="strong" bg="amberText" color="ground" px="2" mr="2" borderRadius="2px">
    Training
  </Box>
);

/** Where readings are due that a meter takes. */
const READING_STAGES: ReadonlySet<StageId> = new Set(['outside', 'probe', 'prove']);

export const jobNumber = (number: number): string => String(number).padStart(4, '0');

/** A job's page: the strip names it, the path tells its story, the sidebar ends with the stage's caution. */
export function JobFrame({ job, stage, work, sidebar, testIndex = 0, mode = 'ohm', bareStem, entry }: JobFrameProps) {
  const { board } = job;
  const caution = job.cautions[stage];
  const where = (
    <>
      {job.training && <TrainingMark />}
      Job {jobNumber(job.number)} ·{' '}
      <Box as="strong" color="ink">
        {board.device}
      </Box>{' '}
      · {board.name}, revision {board.revision}
    </>
  );
  return (
    <EntryOfferProvider>
      <Frame
        strip={<Strip where={where} />}
        path={<Path number={job.number} stage={stage} findings={job.findings} next={job.next.stage} />}
        work={
          <>
            <LiveJob number={job.number} version={job.version} />
            <UnreadableNote rows={job.state.unreadable} />
            {job.training && <TrainingNote />}
            {job.plan[stage] && <PlanLine text={job.plan[stage]} />}
            {work}
          </>
        }
        sidebar={
          <>
            {READING_STAGES.has(stage) && (
              <HandPart job={job} stage={stage} mode={mode} testIndex={testIndex} bareStem={bareStem} />
            )}
            {job.priorClosures[0] && <PastNote job={job} past={job.priorClosures[0]} />}
            {sidebar}
            {READING_STAGES.has(stage) && <InstrumentsPart />}
          </>
        }
        caution={<CautionNote title={caution.title} text={caution.text} />}
        entry={entry ?? <JobEntry job={job} stage={stage} mode={mode} testIndex={testIndex} bareStem={bareStem} />}
      />
    </EntryOfferProvider>
  );
}
