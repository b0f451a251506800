'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import type { Mask } from '@/core/picture';
import { FilePick, MainButton, Named, PlainButton, ProblemNote, TextInput } from '@/ui';
import { keepPicture } from './actions';
import { useCoveredPicture } from './use-covered-picture';

/** What pictures are for where they are taken; all of them go with the report. */
const TAKEN = {
  arrive: {
    title: 'Photographs as it came',
    add: 'Add a photograph of the device',
    link: 'add a photograph',
    shows: 'scratched frame, port side',
  },
  close: {
    title: 'Pictures for the report',
    add: 'Add a picture for the report',
    link: 'add a picture',
    shows: 'the new controller under the lens',
  },
} as const;

export interface PicturePartProps {
  readonly job: JobView;
  readonly taken: keyof typeof TAKEN;
}

/** Pictures of a job: what is private is covered here, and only the covered picture is sent and kept. */
export function PicturePart({ job, taken }: PicturePartProps) {
  const { title, add, link, shows } = TAKEN[taken];
  const { canvas, isOpen, masks, open, close, cover, coverAnother, covered, press, release } = useCoveredPicture();
  const [words, setWords] = useState('');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();

  const keep = (): void =>
    start(async () => {
      const form = new FormData();
      form.set('picture', await covered());
      form.set('words', words);
      form.set('masks', String(masks.length));
      const answer = await keepPicture(job.number, form, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
      if (!answer.saved) return;
      close();
      setWords('');
    });
  return (
    <Box as="section" aria-label={title} mt="6" maxW="680px">
      <Flex gap="4" align="baseline" fontSize="14px">
        <Text as="h2" fontSize="13px" fontWeight="700" color="quiet">
          {title}
        </Text>
        <FilePick label={add} text={link} accept="image/*" onFile={(f) => void open(f).then(setProblem)} />
        <Text color="quiet">It stays in this browser until what is private is covered.</Text>
      </Flex>
      <KeptPictures pictures={job.state.pictures} />
      {problem && <ProblemNote text={problem} />}
      <chakra.canvas
        ref={canvas}
        display={isOpen ? 'block' : 'none'}
        w="100%"
        mt="2"
        cursor="crosshair"
        aria-label="The picture; drag over what is private"
        css={{ touchAction: 'none' }}
        onPointerDown={press}
        onPointerUp={release}
      />
      {isOpen && (
        <>
          {masks.map((mask, k) => (
            <MaskLine
              key={k}
              number={k + 1}
              mask={mask}
              onChange={(next) => cover(masks.flatMap((m, i) => (i === k ? (next ? [next] : []) : [m])))}
            />
          ))}
          <Flex gap="3" mt="2" align="end" wrap="wrap">
            <PlainButton type="button" onClick={coverAnother}>
              Cover another area
            </PlainButton>
            <Named name="what it shows">
              <TextInput
                aria-label="What the picture shows"
                placeholder={shows}
                w="20em"
                maxLength={400}
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
            </Named>
            <MainButton type="button" disabled={busy || words.trim() === ''} onClick={keep}>
              Keep the covered picture
            </MainButton>
          </Flex>
        </>
      )}
    </Box>
  );
}

/** Kept pictures, small, each a link to the whole. */
const KeptPictures = ({ pictures }: { pictures: JobView['state']['pictures'] }) => (
  <Flex gap="4" mt="2" wrap="wrap">
    {pictures.map(({ sha256, words, masks }) => (
      <chakra.figure key={sha256} w="132px" fontSize="13px" lineHeight="1.3">
        <chakra.a href={`/pictures/${sha256}`} color="copperText" textDecoration="underline">
          <chakra.img src={`/pictures/${sha256}`} alt="" w="132px" h="88px" objectFit="cover" bg="mat" />
          {words}
        </chakra.a>
        <chakra.figcaption color="quiet">
          {masks === 0 ? 'nothing covered' : `${masks} ${masks === 1 ? 'area' : 'areas'} covered`}
        </chakra.figcaption>
      </chakra.figure>
    ))}
  </Flex>
);

const SIDES = ['x', 'y', 'width', 'height'] as const;

/** A mask in figures, for the keyboard. */
function MaskLine({ number, mask, onChange }: { number: number; mask: Mask; onChange: (mask?: Mask) => void }) {
  return (
    <Flex gap="2" mt="1" align="baseline" fontSize="14px">
      <Text>Area {number}</Text>
      {SIDES.map((side) => (
        <TextInput
          key={side}
          aria-label={`${side} of area ${number}, pixels`}
          w="5em"
          fontFamily="mono"
          inputMode="numeric"
          value={mask[side]}
          onChange={(e) => onChange({ ...mask, [side]: Number(e.target.value.replace(/\D/g, '')) })}
        />
      ))}
      <PlainButton type="button" px="2" py="0" aria-label={`Uncover area ${number}`} onClick={() => onChange()}>
        uncover
      </PlainButton>
    </Flex>
  );
}
