'use client';

import { useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { signsOf, type ImageFamily } from '@/core/image';
import type { JobView } from '@/core/job';
import { firmwareImage } from '@/core/import';
import { flatten, type LoadedImage } from '@/core/records';
import { FilePick, ReadingAsk, useFileReading } from '@/ui';
import { keepDump, takeKept } from './actions';
import type { ImageBench, RoleView } from './queries';

interface ImageSlotProps {
  readonly job: JobView;
  readonly role: 'patient' | 'donor';
  readonly title: string;
  readonly family: ImageFamily;
  readonly view?: RoleView;
  readonly families: ImageBench['families'];
  readonly library: ImageBench['library'];
  readonly onAnswer: (answer: ActionResult) => void;
}

/** One image in its role: load a raw dump, or take one that is kept here; its verdict below. */
export function ImageSlot({ job, role, title, family, families, view, library, onAnswer }: ImageSlotProps) {
  const [busy, start] = useTransition();

  function keep(image: LoadedImage, name: string): void {
    const { bytes } = flatten(image.chunks);
    if (bytes.length !== family.sizeBytes) {
      const signs = signsOf(family, families, bytes).map((s) => ` ${s.words}`);
      return refuse(
        `${name}: expected a dump of ${family.sizeBytes.toLocaleString('en')} bytes for ${family.name}; got ${bytes.length.toLocaleString('en')}.${signs.join('')}`,
      );
    }
    const form = new FormData();
    form.set('dump', new File([Uint8Array.from(bytes)], name));
    start(async () => onAnswer(await keepDump(job.number, role, form)));
  }
  const refuse = (sentence: string): void =>
    onAnswer({ saved: false, message: `${sentence} Nothing was sent or kept.` });
  const reading = useFileReading<LoadedImage>({
    reader: firmwareImage,
    onProblem: (sentence) => sentence !== undefined && refuse(sentence),
    onRead: (image, { name }) => keep(image, name),
  });

  return (
    <Box borderTop="1px solid" borderColor="rule" pt="2">
      <Flex justify="space-between" align="baseline" gap="3">
        <Text fontWeight="700">{title}</Text>
        <Flex gap="3" fontSize="14px" whiteSpace="nowrap">
          <FilePick
            label={`Load a dump for the ${role}`}
            text={busy ? 'keeping …' : 'load a dump'}
            onFile={(file) => void reading.take(file)}
          />
          <chakra.select
            aria-label={`Take a kept image for the ${role}`}
            value=""
            w="8em"
            bg="transparent"
            color="copperText"
            onChange={(e) => {
              const kept = library.find((i) => i.sha256 === e.target.value);
              if (kept) start(async () => onAnswer(await takeKept(job.number, role, kept.sha256, kept.name)));
            }}
          >
            <option value="">take a kept one</option>
            {library.map((i) => (
              <option key={i.sha256} value={i.sha256}>
                {i.name}
              </option>
            ))}
          </chakra.select>
        </Flex>
      </Flex>
      <ReadingAsk reading={reading} title={firmwareImage.title} />
      {view ? (
        <>
          <Text fontSize="14px" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            {view.name} · <span style={{ fontFamily: 'var(--u-fonts-mono)' }}>{view.sha256.slice(0, 12)}…</span>
          </Text>
          {view.verdict.sound ? (
            <Text color="leaf" fontSize="14px">
              sound: {view.verdict.checksums.length} checksums hold
              {view.verdict.position === undefined ? '' : `, position ${view.verdict.position}`}
            </Text>
          ) : (
            view.verdict.troubles.map((t) => (
              <Text key={t} color="rust" fontSize="14px">
                {t}
              </Text>
            ))
          )}
          {view.signs.map((sign) => (
            <Text key={sign} fontSize="14px" color="rust">
              {sign}
            </Text>
          ))}
        </>
      ) : (
        <Text color="quiet" fontSize="14px">
          none yet
        </Text>
      )}
    </Box>
  );
}
