'use client';

import { useState, useTransition } from 'react';
import { Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { memoriesOf } from '@/core/board';
import type { ImageFamily, ImageVerdict, Transplant } from '@/core/image';
import type { ImageRole, JobView } from '@/core/job';
import { formatBytes } from '@/core/units';
import { ImageStrip } from '@/drawings/image-strip';
import { Headline, MainButton, ProblemNote, ViewLinks } from '@/ui';
import { buildMerged, markWritten } from './actions';
import { CompareWork } from './compare-work';
import { ImageSlot } from './image-slot';
import { MapWork } from './map-work';
import { ProgrammerPart } from './programmer-part';
import type { ImageBench } from './queries';
import { TransplantTable } from './transplant-table';
import type { ImageSource } from './use-seen';
import { IMAGE_VIEWS, type ImageView } from './view';

/** The configuration image of a job: read and judged, compared, understood, made anew, written. */
export function ImageWork({ job, bench, view }: { job: JobView; bench: ImageBench; view: ImageView }) {
  const { family } = bench;
  if (!family) {
    return (
      <Headline title="This board names no image family" aside="nothing to do here">
        Its board file has no “imageFamily”: what its flash holds cannot be judged by regions.
      </Headline>
    );
  }
  if (memoriesOf(job.board).length === 0) {
    return (
      <Headline title="The controller keeps its image itself" aside="nothing to do here">
        The board names no memory that could be read, compared and written.
      </Headline>
    );
  }
  return (
    <>
      <ViewLinks label="Views of the image" views={IMAGE_VIEWS} current={view} />
      {view === 'make' && <ImageSheet job={job} bench={bench} family={family} />}
      {view === 'compare' && <CompareWork family={family} library={bench.library} initial={sourcesOf(bench)} />}
      {view === 'map' && <MapWork family={family} library={bench.library} initial={sourcesOf(bench).slice(0, 1)} />}
    </>
  );
}

const ROLE_ORDER: readonly ImageRole[] = ['patient', 'donor', 'merged'];
const ROLE_NAMES: Readonly<Record<ImageRole, string>> = {
  patient: 'Patient',
  donor: 'Donor',
  merged: 'New image',
  before: 'Before the write',
};

/** The images of the job; without any the kept ones of the family. */
function sourcesOf({ roles, library }: ImageBench): ImageSource[] {
  const own = ROLE_ORDER.flatMap((role) => {
    const view = roles[role];
    return view ? [{ name: `${ROLE_NAMES[role]}, ${view.name}`, from: view.sha256 }] : [];
  });
  return own.length > 0 ? own : library.slice(0, 2).map(({ name, sha256 }) => ({ name, from: sha256 }));
}

function ImageSheet({ job, bench, family }: { job: JobView; bench: ImageBench; family: ImageFamily }) {
  const { patient, donor, merged } = bench.roles;
  const [changed, setChanged] = useState<{ readonly of: string; readonly plan: Transplant }>();
  const [answer, setAnswer] = useState<ActionResult>();
  const [made, setMade] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const [imagePart] = memoriesOf(job.board);
  const written = merged !== undefined && job.state.written?.sha256 === merged.sha256;
  // Rules that were changed by hand are about these two images; with others the proposal counts again.
  const about = `${patient?.sha256} ${donor?.sha256}`;
  const plan = changed?.of === about ? changed.plan : bench.proposed?.plan;
  return (
    <>
      <ImageHeadline bench={bench} family={family} written={written} />
      {job.simulators && (
        <ProgrammerPart job={job} part={imagePart} bench={bench} family={family} onAnswer={setAnswer} />
      )}
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="5" mb="3">
        {(['patient', 'donor'] as const).map((role) => (
          <ImageSlot
            key={role}
            {...{ job, role, family }}
            title={ROLE_NAMES[role]}
            view={bench.roles[role]}
            families={bench.families}
            library={bench.library}
            onAnswer={setAnswer}
          />
        ))}
      </Grid>
      {answer && !answer.saved && <ProblemNote text={answer.message} />}
      {bench.overviews.length > 0 && (
        <ImageStrip
          family={family}
          rows={bench.overviews.map((overview, k) => ({ name: ROLE_NAMES[ROLE_ORDER[k]], overview }))}
          sizeBytes={family.sizeBytes}
        />
      )}
      {patient && plan && (
        <>
          <TransplantTable
            bench={bench}
            family={family}
            plan={plan}
            onPlan={(next) => setChanged({ of: about, plan: next })}
          />
          <Flex mt="4" gap="4" align="center" wrap="wrap">
            <MainButton
              type="button"
              disabled={busy}
              onClick={() =>
                start(async () => setMade(await buildMerged(job.number, patient.sha256, donor?.sha256, plan)))
              }
            >
              Make the new image
            </MainButton>
            {merged && (
              <>
                <Link
                  href={`/images/${merged.sha256}`}
                  color="copperText"
                  textDecoration="underline"
                  fontFamily="mono"
                  fontSize="14px"
                >
                  {merged.sha256.slice(0, 16)}….bin
                </Link>
                {written ? (
                  <Text color="leaf" fontWeight="700">
                    written to {imagePart}
                  </Text>
                ) : (
                  <MainButton
                    type="button"
                    disabled={busy || !merged.verdict.sound}
                    onClick={() => start(async () => setMade(await markWritten(job.number, imagePart, merged.sha256)))}
                  >
                    Written to {imagePart} and read back the same
                  </MainButton>
                )}
              </>
            )}
          </Flex>
          {made && !made.saved && <ProblemNote text={made.message} />}
          {made?.saved && (
            <Text fontSize="14px" color="quiet" mt="2">
              {made.message}
            </Text>
          )}
        </>
      )}
    </>
  );
}

function ImageHeadline({ bench, family, written }: { bench: ImageBench; family: ImageFamily; written: boolean }) {
  const { patient, donor, merged } = bench.roles;
  const aside = `${family.name}, ${formatBytes(family.sizeBytes)}`;
  if (merged) {
    return (
      <Headline title={written ? 'New image written, checks hold' : 'New image made, checks hold'} aside={aside}>
        {merged.verdict.checksums.length} checksums computed and verified. Every byte’s origin follows from the rules
        below; the patient’s own dump is kept as it was.
      </Headline>
    );
  }
  if (!patient) {
    return (
      <Headline title="Load the patient’s dump" aside={aside}>
        Read the flash twice and compare before loading it here; then choose a donor or a known-good image.
      </Headline>
    );
  }
  const isHere = bench.position === undefined || patient.verdict.position === bench.position;
  if (patient.verdict.sound && !donor && isHere) {
    return (
      <Headline title="The patient’s image is sound: it stays" aside={aside}>
        {bench.proposed?.advice}. A donor is needed only when the family is marked paired or the position changes.
      </Headline>
    );
  }
  const differing = bench.differences.filter((d) => d.differingBytes > 0).length;
  const against = donor ? ` ${differing} of ${bench.differences.length} regions differ from the donor’s.` : '';
  return (
    <Headline
      title={isHere && patient.verdict.sound ? 'Both are sound: the patient’s stays' : bench.proposed!.advice}
      aside={aside}
    >
      {patient.verdict.sound ? '' : `${damageWords(patient.verdict)}.`}
      {against}
    </Headline>
  );
}

/** The headline of a damaged image; its figures stand with the image itself. */
function damageWords(verdict: ImageVerdict): string {
  const failed = verdict.checksums.filter((c) => !c.holds).map((c) => c.region);
  return failed.length > 0 ? `Damaged: the ${failed.join(' and the ')} fails` : verdict.troubles[0];
}
