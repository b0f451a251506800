'use client';

import { useRef, useState, useTransition, type PointerEvent } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { maskPixels, type Mask } from '@/core/picture';
import { FilePick, MainButton, Named, PlainButton, ProblemNote, TextInput } from '@/ui';
import { keepPicture } from './actions';

/** Pictures are kept no larger: a sheet shows no more. */
const MOST_SIDE_PX = 1600;
const QUALITY = 0.85;
/** A press without a drag is no mask. */
const LEAST_PX = 4;

interface Opened {
  /** As it came, scaled down: it never leaves the browser. */
  readonly pixels: ImageData;
  readonly name: string;
}

/** Pictures for the report: what is private is covered here, and only the covered picture is sent and kept. */
export function PicturePart({ job }: { job: JobView }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const from = useRef<{ x: number; y: number } | undefined>(undefined);
  const [opened, setOpened] = useState<Opened>();
  const [masks, setMasks] = useState<readonly Mask[]>([]);
  const [words, setWords] = useState('');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();

  function draw(pixels: ImageData, covered: readonly Mask[]): void {
    const shown = new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height);
    maskPixels(shown.data, pixels.width, covered);
    canvas.current!.getContext('2d')!.putImageData(shown, 0, 0);
  }
  function cover(next: readonly Mask[]): void {
    setMasks(next);
    if (opened) draw(opened.pixels, next);
  }
  async function open(file: File): Promise<void> {
    try {
      const bitmap = await createImageBitmap(file);
      const scale = Math.min(1, MOST_SIDE_PX / Math.max(bitmap.width, bitmap.height));
      const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
      const sheet = new OffscreenCanvas(width, height).getContext('2d')!;
      sheet.drawImage(bitmap, 0, 0, width, height);
      const pixels = sheet.getImageData(0, 0, width, height);
      setOpened({ pixels, name: file.name });
      setMasks([]);
      setProblem(undefined);
      Object.assign(canvas.current!, { width, height });
      draw(pixels, []);
    } catch {
      setProblem(`${file.name}: expected a picture that this browser can show; got something else.`);
    }
  }
  const placeOf = (e: PointerEvent<HTMLCanvasElement>): { x: number; y: number } => {
    const box = e.currentTarget.getBoundingClientRect();
    const scale = e.currentTarget.width / box.width;
    return { x: Math.round((e.clientX - box.left) * scale), y: Math.round((e.clientY - box.top) * scale) };
  };
  function release(e: PointerEvent<HTMLCanvasElement>): void {
    if (!from.current) return;
    const [a, b] = [from.current, placeOf(e)];
    from.current = undefined;
    const mask = {
      ...{ x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) },
      ...{ width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) },
    };
    if (mask.width >= LEAST_PX && mask.height >= LEAST_PX) cover([...masks, mask]);
  }
  const keep = (): void =>
    start(async () => {
      const blob = await new Promise<Blob | null>((resolve) => canvas.current!.toBlob(resolve, 'image/jpeg', QUALITY));
      const form = new FormData();
      form.set('picture', new File([blob!], 'masked.jpg', { type: 'image/jpeg' }));
      form.set('words', words);
      form.set('masks', String(masks.length));
      const answer = await keepPicture(job.number, form, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
      if (!answer.saved) return;
      setOpened(undefined);
      setWords('');
    });
  return (
    <Box as="section" aria-label="Pictures for the report" mt="6" maxW="680px">
      <Flex gap="4" align="baseline" fontSize="14px">
        <Text as="h2" fontSize="13px" fontWeight="700" color="quiet">
          Pictures for the report
        </Text>
        <FilePick
          label="Add a picture for the report"
          text="add a picture"
          accept="image/*"
          onFile={(f) => void open(f)}
        />
        <Text color="quiet">It stays in this browser until what is private is covered.</Text>
      </Flex>
      {job.state.pictures.map((p) => (
        <Text key={p.sha256} fontSize="14px">
          <chakra.a href={`/pictures/${p.sha256}`} color="copperText" textDecoration="underline">
            {p.words}
          </chakra.a>
          , {p.masks === 0 ? 'nothing covered' : `${p.masks} ${p.masks === 1 ? 'area' : 'areas'} covered`}
        </Text>
      ))}
      {problem && <ProblemNote text={problem} />}
      <chakra.canvas
        ref={canvas}
        display={opened ? 'block' : 'none'}
        w="100%"
        mt="2"
        cursor="crosshair"
        aria-label="The picture; drag over what is private"
        css={{ touchAction: 'none' }}
        onPointerDown={(e) => (from.current = placeOf(e))}
        onPointerUp={release}
      />
      {opened && (
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
            <PlainButton
              type="button"
              onClick={() =>
                cover([
                  ...masks,
                  {
                    x: 0,
                    y: 0,
                    width: Math.round(opened.pixels.width / 4),
                    height: Math.round(opened.pixels.height / 4),
                  },
                ])
              }
            >
              Cover another area
            </PlainButton>
            <Named name="what it shows">
              <TextInput
                aria-label="What the picture shows"
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
