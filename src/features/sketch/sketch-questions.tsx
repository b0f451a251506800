'use client';

import { useRef, useState, useTransition, type ReactNode } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import {
  ARCHETYPES,
  DESIGN_LEVELS_V,
  FIRST_ANSWERS,
  LAND_PATTERNS,
  MOST_PORTS,
  STACKS,
  type Answers,
  type ArchetypeId,
} from '@/core/sketch';
import { parseFigure } from '@/core/units';
import { Headline, MainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { beginSketch } from './actions';

const CHIP_PATTERNS = LAND_PATTERNS.filter((p) => /^(QFN|BGA)/.test(p.name)).map((p) => [p.name, p.words] as const);
const archetypes = Object.entries(ARCHETYPES) as [ArchetypeId, (typeof ARCHETYPES)[ArchetypeId]][];

/** What can be answered by looking, before anything is drawn: the first board of a device that nobody has a file of. */
export function SketchQuestions() {
  const router = useRouter();
  const [answers, setAnswers] = useState<Answers>(FIRST_ANSWERS);
  const [size, setSize] = useState('60 40');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const key = useRef<string>(crypto.randomUUID());
  const say = (more: Partial<Answers>): void => setAnswers((before) => ({ ...before, ...more }));
  const { archetype } = answers;
  const talks = archetype !== 'fiveVolts';

  function begin(): void {
    const [width, height, ...rest] = size
      .split(/[\s,;×x]+/)
      .filter(Boolean)
      .map((t) => parseFigure(t));
    if (!width?.ok || !height?.ok || rest.length > 0)
      return setProblem(`Expected width and height in mm, as in 60 40; got "${size}".`);
    start(async () => {
      const full = {
        ...answers,
        sizeMm: [width.value, height.value] as [number, number],
        designV: talks ? answers.designV : (5 as const),
      };
      const answer = await beginSketch(full, key.current).catch(() => undefined);
      if (!answer) return setProblem('No answer came. Press again: the same board is not begun twice.');
      key.current = crypto.randomUUID();
      if (answer.board === undefined) setProblem(answer.message);
      else router.push(`/library/${answer.board}/edit`);
    });
  }

  let asked = 0;
  const question = (words: string, field: ReactNode): ReactNode => (
    <Question key={words} number={++asked} words={words}>
      {field}
    </Question>
  );
  return (
    <>
      <Headline title="What do you see round the port?" aside="a board without a file">
        Answer by looking; nothing has to be known. Every value starts as a range and narrows with what you read.
      </Headline>
      <Box maxW="760px">
        {question(
          'What is the device called?',
          <TextInput
            aria-label="What is the device called?"
            autoFocus
            value={answers.device}
            placeholder="Tern 1"
            w="260px"
            fontSize="17px"
            onChange={(e) => say({ device: e.target.value })}
          />,
        )}
        <Question number={++asked} words="Which of these is it?">
          <Box role="radiogroup" aria-label="Which of these is it?">
            {archetypes.map(([id, { words, look }]) => (
              <chakra.label key={id} display="flex" gap="2.5" py="1" cursor="pointer" alignItems="baseline">
                <input
                  type="radio"
                  name="archetype"
                  checked={archetype === id}
                  onChange={() => say({ archetype: id })}
                />
                <span>
                  <Text as="span" fontWeight="600">
                    {words}
                  </Text>
                  <Text as="span" color="quiet" fontSize="14px" display="block">
                    {look}
                  </Text>
                </span>
              </chakra.label>
            ))}
          </Box>
        </Question>
        {archetype === 'sharedMemory' &&
          question(
            'How many ports?',
            <SelectBox
              label="How many ports?"
              value={String(answers.ports)}
              options={counts}
              onChange={(v) => say({ ports: Number(v) })}
            />,
          )}
        {talks &&
          question(
            'For which level is the port made? The charger’s label or the connector’s surroundings tell',
            <SelectBox
              label="For which level is the port made?"
              value={String(answers.designV)}
              options={DESIGN_LEVELS_V.map((v) => [String(v), `${v} V`] as const)}
              onChange={(v) => say({ designV: Number(v) as Answers['designV'] })}
            />,
          )}
        {talks &&
          question(
            'Is there an eight-legged memory beside the controller?',
            <SelectBox
              label="Is there a memory?"
              value={answers.memory ? 'yes' : 'no'}
              options={YES_NO}
              onChange={(v) => say({ memory: v === 'yes' })}
            />,
          )}
        {question(
          'In what package is the chip at the port?',
          <SelectBox
            label="Package of the controller"
            value={answers.controllerPackage}
            options={CHIP_PATTERNS}
            onChange={(v) => say({ controllerPackage: v })}
          />,
        )}
        {archetype !== 'oneChip' &&
          question(
            'And the chip beside the coil?',
            <SelectBox
              label="Package of the charger"
              value={answers.chargerPackage}
              options={CHIP_PATTERNS}
              onChange={(v) => say({ chargerPackage: v })}
            />,
          )}
        {question(
          'How large is the board, and how thick does it look?',
          <Flex gap="3" align="center">
            <TextInput
              aria-label="Width and height, mm"
              value={size}
              w="90px"
              fontFamily="mono"
              onChange={(e) => setSize(e.target.value)}
            />
            <Text as="span" color="quiet">
              mm
            </Text>
            <SelectBox
              label="How thick does it look?"
              value={answers.stack}
              options={Object.entries(STACKS).map(([id, s]) => [id, s.words] as const)}
              onChange={(v) => say({ stack: v as Answers['stack'] })}
            />
          </Flex>,
        )}
        {problem && <ProblemNote text={problem} />}
        <Box mt="5">
          <MainButton type="button" disabled={busy} onClick={begin}>
            Begin the board
          </MainButton>
        </Box>
      </Box>
    </>
  );
}

const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no, or inside the chip'],
] as const;
const counts = Array.from({ length: MOST_PORTS - 1 }, (_, i) => [String(i + 2), String(i + 2)] as const);

function Question({ number, words, children }: { number: number; words: string; children: ReactNode }) {
  return (
    <Flex gap="3" py="2.5" borderBottom="1px solid" borderColor="rule" align="baseline">
      <Text as="span" fontFamily="mono" color="copperText" fontWeight="700" w="1.4em" flexShrink="0">
        {number}
      </Text>
      <Box>
        <Text fontWeight="600" mb="1.5">
          {words}
        </Text>
        {children}
      </Box>
    </Flex>
  );
}
