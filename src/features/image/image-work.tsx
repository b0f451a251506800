'use client';

import { useState, useTransition } from 'react';
import { Flex, Grid, Link, Text, chakra } from '@chakra-ui/react';
import { proposeRules, type ImageFamily, type ImageVerdict, type MergeRules, type Source } from '@/core/image';
import type { JobView } from '@/core/job';
import { formatBytes, formatOffset } from '@/core/units';
import { ImageStrip } from '@/drawings/image-strip';
import { Headline, MainButton, ProblemNote } from '@/ui';
import { buildMerged, markWritten, type ImageAnswer } from './actions';
import { ChecksumPart } from './checksum-part';
import { ImageSlot } from './image-slot';
import { ProgrammerPart } from './programmer-part';
import type { ImageBench } from './queries';

/** Two dumps, compared by what their regions mean, and the image that is built from them. */
export function ImageWork({ job, bench }: { job: JobView; bench: ImageBench }) {
  const { family } = bench;
  if (!family) {
    return (
      <Headline title="This board names no image family" aside="nothing to do here">
        Its board file has no “imageFamily”: what its flash holds cannot be judged by regions.
      </Headline>
    );
  }
  return <ImageSheet job={job} bench={bench} family={family} />;
}

function ImageSheet({ job, bench, family }: { job: JobView; bench: ImageBench; family: ImageFamily }) {
  const { patient, donor, merged } = bench.roles;
  const [rules, setRules] = useState<MergeRules>(() => proposeRules(family));
  const [answer, setAnswer] = useState<ImageAnswer>();
  const [busy, start] = useTransition();
  const act = (work: () => Promise<ImageAnswer>): void => start(async () => setAnswer(await work()));
  const imagePart = job.board.ports[0].imagePart;
  const written = job.state.written?.sha256 === merged?.sha256;
  return (
    <>
      <ImageHeadline bench={bench} family={family} written={written && merged !== undefined} />
      <ProgrammerPart job={job} part={imagePart} bench={bench} family={family} onAnswer={setAnswer} />
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="5" mb="3">
        <ImageSlot
          job={job}
          role="patient"
          title="Patient"
          family={family}
          view={patient}
          library={bench.library}
          onAnswer={setAnswer}
        />
        <ImageSlot
          job={job}
          role="donor"
          title="Donor"
          family={family}
          view={donor}
          library={bench.library}
          onAnswer={setAnswer}
        />
      </Grid>
      {answer && !answer.kept && <ProblemNote text={answer.words} />}
      {bench.overview.length > 0 && (
        <ImageStrip family={family} overview={bench.overview} compared={donor !== undefined} />
      )}
      {bench.differences.length > 0 && <RegionTable bench={bench} rules={rules} onRules={setRules} />}
      {patient && donor && (
        <Flex mt="4" gap="4" align="center" wrap="wrap">
          <MainButton
            type="button"
            disabled={busy}
            onClick={() => act(() => buildMerged(job.number, patient.sha256, donor.sha256, rules))}
          >
            Build the merged image
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
                  onClick={() => act(() => markWritten(job.number, imagePart, merged.sha256))}
                >
                  Written to {imagePart} and read back the same
                </MainButton>
              )}
            </>
          )}
        </Flex>
      )}
      <ChecksumPart bench={bench} />
    </>
  );
}

function ImageHeadline({ bench, family, written }: { bench: ImageBench; family: ImageFamily; written: boolean }) {
  const { patient, donor, merged } = bench.roles;
  const aside = `${family.name}, ${formatBytes(family.sizeBytes)}`;
  if (merged) {
    return (
      <Headline title={written ? 'Merged image written, checks hold' : 'Merged image built, checks hold'} aside={aside}>
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
  if (patient.verdict.sound && !donor) {
    return (
      <Headline title="The patient’s image is sound: it stays" aside={aside}>
        All checksums hold. A donor is needed only when the family is marked paired or the position changes.
      </Headline>
    );
  }
  const differing = bench.differences.filter((d) => d.differingBytes > 0).length;
  return (
    <Headline
      title={donor ? `${differing} of ${bench.differences.length} regions differ` : damageWords(patient.verdict)}
      aside={aside}
    >
      {donor
        ? (patient.verdict.troubles[0] ?? 'Both are sound; they differ where units differ.')
        : 'Choose a donor or a known-good image of the same family.'}
    </Headline>
  );
}

/** The headline of a damaged image; its figures stand with the image itself. */
function damageWords(verdict: ImageVerdict): string {
  const failed = verdict.checksums.filter((c) => !c.holds).map((c) => c.region);
  return failed.length > 0 ? `Damaged: the ${failed.join(' and the ')} fails` : verdict.troubles[0];
}

const SOURCES: readonly Source[] = ['patient', 'donor', 'computed'];

function RegionTable({
  bench,
  rules,
  onRules,
}: {
  bench: ImageBench;
  rules: MergeRules;
  onRules: (rules: MergeRules) => void;
}) {
  return (
    <chakra.table w="100%" mt="3" fontSize="14px" css={{ borderCollapse: 'collapse' }}>
      <chakra.thead>
        <chakra.tr color="quiet" fontSize="13px" textAlign="left">
          {['Region', 'Offset', 'Length', 'Difference', 'New image takes'].map((h) => (
            <chakra.th key={h} fontWeight="700" pb="1" borderBottom="1px solid" borderColor="rule">
              {h}
            </chakra.th>
          ))}
        </chakra.tr>
      </chakra.thead>
      <chakra.tbody>
        {bench.differences.map(({ region, differingBytes, words }) => (
          <chakra.tr key={region.name} borderBottom="1px solid" borderColor="rule">
            <chakra.td py="1.5" fontWeight="700">
              {region.name}
            </chakra.td>
            <chakra.td fontFamily="mono">{formatOffset(region.offset)}</chakra.td>
            <chakra.td fontFamily="mono">{formatBytes(region.length)}</chakra.td>
            <chakra.td color={differingBytes > 0 && region.meaning === 'code' ? 'rust' : 'ink'}>
              {differingBytes > 0 ? `${differingBytes.toLocaleString('en')} bytes: ${words}` : words}
            </chakra.td>
            <chakra.td>
              <chakra.select
                aria-label={`Source of ${region.name}`}
                value={rules[region.name]}
                onChange={(e) => onRules({ ...rules, [region.name]: e.target.value as Source })}
                bg="transparent"
                borderBottom="1px dotted"
                borderColor="quiet"
              >
                {(region.meaning === 'checksum' ? (['computed'] as const) : SOURCES.slice(0, 2)).map((s) => (
                  <option key={s} value={s}>
                    {s === 'computed' ? 'computed' : `the ${s}’s`}
                  </option>
                ))}
              </chakra.select>
            </chakra.td>
          </chakra.tr>
        ))}
      </chakra.tbody>
    </chakra.table>
  );
}
