'use client';

import { useMemo, useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { nextDifference, type ImageFamily, type RegionDifference } from '@/core/image';
import { formatBytes } from '@/core/units';
import { ImageScore, SCORE_BYTES } from '@/drawings/image-score';
import { ImageStrip } from '@/drawings/image-strip';
import { FilePick, Headline, PlainButton, ProblemNote } from '@/ui';
import { GoTo } from './go-to';
import type { KeptImage } from './queries';
import type { SeenImages } from '@/workers/compare/task';
import { useSeen, type ImageSource } from './use-seen';

const MOST_IMAGES = 8;
const SYSTEMS = 14;

export interface CompareProps {
  readonly family?: ImageFamily;
  readonly library: readonly KeptImage[];
  /** What is laid side by side at first; the first is what the others are compared with. */
  readonly initial: readonly ImageSource[];
}

/** Two to eight images side by side: first what differs by its meaning, then every byte as a score. */
export function CompareWork({ family, library, initial }: CompareProps) {
  const [sources, setSources] = useState(initial);
  const { seen, tookMs, of, progress, problem } = useSeen(sources, family);
  const names = useMemo(() => of.map((s) => s.name), [of]);
  return (
    <>
      <CompareHeadline seen={seen} tookMs={tookMs} names={names} family={family} />
      <SourceList sources={sources} library={library} onChange={setSources} />
      {progress && (
        <Text color="quiet" fontSize="14px" aria-live="polite">
          {Math.round(100 * progress.done)} %, {progress.message}
        </Text>
      )}
      {problem && <ProblemNote text={problem} />}
      {seen && <Seen key={seen.images[0].sha256} seen={seen} names={names} family={family} />}
    </>
  );
}

function CompareHeadline({
  seen,
  tookMs = 0,
  names,
  family,
}: {
  seen?: SeenImages;
  tookMs?: number;
  names: readonly string[];
  family?: ImageFamily;
}) {
  const aside = seen ? `${formatBytes(seen.images[0].bytes.length)} in ${(tookMs / 1000).toFixed(2)} s` : 'compare';
  if (!seen || seen.images.length < 2) {
    return (
      <Headline title={seen ? `One image: ${names[0]}` : 'Choose images to compare'} aside={aside}>
        Add up to {MOST_IMAGES}: reads of the patient, a donor, known-good ones. The first is what the others are laid
        against.
      </Headline>
    );
  }
  const alike = seen.seen.against.filter((a) => a.differingBytes === 0 && a.movedBytes === 0).length;
  const others = seen.images.length - 1;
  const regions = new Set(
    seen.seen.against.flatMap((a) => a.regions.filter((r) => r.differingBytes > 0).map((r) => r.region.name)),
  );
  const title =
    alike === others
      ? others === 1
        ? 'Both are the same, byte for byte'
        : `All ${seen.images.length} are the same, byte for byte`
      : family && regions.size > 0
        ? `${regions.size} of ${family.regions.length} regions differ`
        : `${(others - alike).toLocaleString('en')} of ${others} ${others === 1 ? 'image differs' : 'images differ'} from the first`;
  return (
    <Headline title={title} aside={aside}>
      Laid against {names[0]}; content that only moved is laid where it went.
    </Headline>
  );
}

function SourceList({
  sources,
  library,
  onChange,
}: {
  sources: readonly ImageSource[];
  library: readonly KeptImage[];
  onChange: (sources: readonly ImageSource[]) => void;
}) {
  const add = (source: ImageSource): void => onChange([...sources, source]);
  const isFull = sources.length >= MOST_IMAGES;
  return (
    <Flex
      as="ul"
      gap="4"
      wrap="wrap"
      align="baseline"
      fontSize="14px"
      mb="1"
      listStyleType="none"
      p="0"
      aria-label="Images that are compared"
    >
      {sources.map((source, k) => (
        <Flex as="li" key={k} gap="2" align="baseline" maxW="320px">
          <Text
            as="span"
            fontWeight={k === 0 ? 700 : 400}
            overflow="hidden"
            textOverflow="ellipsis"
            whiteSpace="nowrap"
          >
            {k + 1}. {source.name}
          </Text>
          {k > 0 && (
            <PlainButton
              type="button"
              aria-label={`Lay the others against ${source.name}`}
              onClick={() => onChange([source, ...sources.filter((s) => s !== source)])}
            >
              first
            </PlainButton>
          )}
          {sources.length > 1 && (
            <PlainButton
              type="button"
              aria-label={`Leave ${source.name} out`}
              onClick={() => onChange(sources.filter((s) => s !== source))}
            >
              out
            </PlainButton>
          )}
        </Flex>
      ))}
      {!isFull && (
        <Flex as="li" gap="4" align="baseline">
          <chakra.select
            aria-label="Add a kept image"
            value=""
            w="9em"
            bg="transparent"
            color="copperText"
            onChange={(e) => {
              const kept = library.find((i) => i.sha256 === e.target.value);
              if (kept) add({ name: kept.name, from: kept.sha256 });
            }}
          >
            <option value="">add a kept one</option>
            {library
              .filter((i) => !sources.some((s) => s.from === i.sha256))
              .map((i) => (
                <option key={i.sha256} value={i.sha256}>
                  {i.name}
                </option>
              ))}
          </chakra.select>
          <FilePick label="Add a file" text="add a file" onFile={(file) => add({ name: file.name, from: file })} />
        </Flex>
      )}
    </Flex>
  );
}

function Seen({ seen, names, family }: { seen: SeenImages; names: readonly string[]; family?: ImageFamily }) {
  const [at, setAt] = useState(0);
  const { images, seen: together } = seen;
  const [first] = images;
  const against = useMemo(() => together.against.map((a) => a.aligned), [together]);
  const voices = useMemo(
    () => images.map(({ bytes }, k) => ({ name: names[k], bytes, aligned: k > 0 ? against[k - 1] : undefined })),
    [images, names, against],
  );
  const jump = (step: 1 | -1): number | undefined =>
    nextDifference(against, step > 0 ? at + SCORE_BYTES - 1 : at, step);
  const go = (offset: number): void => setAt(offset - (offset % SCORE_BYTES));
  const window = { offset: at, length: SYSTEMS * SCORE_BYTES };
  return (
    <>
      <ImageStrip
        family={first.bytes.length === family?.sizeBytes ? family : undefined}
        rows={together.overviews.map((overview, k) => ({ name: `${k + 1}. ${names[k]}`, overview }))}
        sizeBytes={first.bytes.length}
        window={window}
        onGo={go}
      />
      {together.against.some((a) => a.regions.length > 0) && (
        <ByMeaning rows={together.against.map((a) => a.regions)} onGo={go} />
      )}
      <Flex gap="4" align="center" mt="3" mb="1" fontSize="14px" wrap="wrap">
        <Text fontWeight="700">Byte by byte</Text>
        {images.length > 1 && (
          <>
            <PlainButton type="button" disabled={jump(-1) === undefined} onClick={() => go(jump(-1)!)}>
              Difference before
            </PlainButton>
            <PlainButton type="button" disabled={jump(1) === undefined} onClick={() => go(jump(1)!)}>
              Next difference
            </PlainButton>
          </>
        )}
        <GoTo sizeBytes={first.bytes.length} onGo={go} />
        <Text color="quiet">
          {images.length > 1
            ? 'The first in full, the others only where they differ.'
            : `SHA-256 ${first.sha256.slice(0, 16)}…`}
        </Text>
      </Flex>
      <ImageScore voices={voices} family={family} at={at} systems={SYSTEMS} onGo={setAt} />
    </>
  );
}

function ByMeaning({ rows, onGo }: { rows: readonly (readonly RegionDifference[])[]; onGo: (offset: number) => void }) {
  const [shown] = rows.filter((r) => r.length > 0);
  const isPlain = (k: number): boolean => rows.every((r) => r.length === 0 || r[k].words === 'the same');
  const same = shown.filter((_, k) => isPlain(k)).map((r) => r.region.name);
  return (
    <Box mt="2">
      <chakra.table w="100%" fontSize="14px" css={{ borderCollapse: 'collapse' }}>
        <chakra.thead>
          <chakra.tr color="quiet" fontSize="13px" textAlign="left">
            <Head>Region</Head>
            {rows.map((_, k) => (
              <Head key={k}>{rows.length === 1 ? 'Against the first' : `Image ${k + 2}`}</Head>
            ))}
          </chakra.tr>
        </chakra.thead>
        <chakra.tbody>
          {shown.map(({ region }, k) =>
            isPlain(k) ? null : (
              <chakra.tr key={region.name} borderBottom="1px solid" borderColor="rule">
                <chakra.td py="1" fontWeight="700" whiteSpace="nowrap">
                  <chakra.button
                    type="button"
                    textDecoration="underline dotted"
                    onClick={() => onGo(rows.find((r) => r[k]?.runs[0])?.[k].runs[0].offset ?? region.offset)}
                  >
                    {region.name}
                  </chakra.button>
                </chakra.td>
                {rows.map((r, i) => (
                  <chakra.td key={i} pr="3" color={colourOf(r[k])}>
                    {r.length === 0 ? 'another length' : cellWords(r[k])}
                  </chakra.td>
                ))}
              </chakra.tr>
            ),
          )}
        </chakra.tbody>
      </chakra.table>
      {same.length > 0 && (
        <Text fontSize="14px" color="quiet" mt="1">
          The same in all: {same.join(', ')}.
        </Text>
      )}
    </Box>
  );
}

const Head = ({ children }: { children: string }) => (
  <chakra.th fontWeight="700" pb="1" pr="3" borderBottom="1px solid" borderColor="rule">
    {children}
  </chakra.th>
);

const colourOf = (row: RegionDifference | undefined): string => {
  if (!row || row.words === 'the same') return 'quiet';
  return row.region.meaning === 'code' && row.differingBytes > row.movedBytes ? 'rust' : 'ink';
};

/** The meaning first, the figure behind it. */
const cellWords = ({ words, differingBytes }: RegionDifference): string =>
  differingBytes === 0
    ? words
    : `${words} (${differingBytes.toLocaleString('en')} ${differingBytes === 1 ? 'byte' : 'bytes'})`;
