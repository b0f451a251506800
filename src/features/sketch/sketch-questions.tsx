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
import { problemText } from '@/core/result';
import { parseSizeMm } from '@/core/units';
import { Headline, MainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { beginSketch } from './actions';

const CHIP_PATTERNS = LAND_PATTERNS.filter((p) => /^(QFN|BGA)/.test(p.name)).map((p) => [p.name, p.label] as const);
const archetypes = Object.entries(ARCHETYPES) as [ArchetypeId, (typeof ARCHETYPES)[ArchetypeId]][];

/** What can be answered by looking, before anything is drawn: the first board of a device that nobody has a file of. */
export function SketchQuestions({ job }: { job?: number }) {
  const router = useRouter();
  const [answers, setAnswers] = useState<Answers>(FIRST_ANSWERS);
  const [size, setSize] = useState('60 40');
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const key = useRef<string>(crypto.randomUUID());
  const say: Say = (more) => setAnswers((before) => ({ ...before, ...more }));

  function begin(): void {
    const read = parseSizeMm(size);
    if (!read.ok) return setProblem(problemText(read.problems));
    const [width, height] = read.value;
    start(async () => {
      const full = {
        ...answers,
        sizeMm: [width, height] as [number, number],
        designV: answers.archetype === 'fiveVolts' ? (5 as const) : answers.designV,
      };
      const answer = await beginSketch(full, key.current, job).catch(() => undefined);
      if (!answer) return setProblem('No answer came. Press again: the same board is not begun twice.');
      key.current = crypto.randomUUID();
      if (answer.board === undefined) setProblem(answer.message);
      else router.push(`/library/${answer.board}/edit`);
    });
  }

  const asked: readonly Asked[] = [
    deviceAsked(answers, say),
    archetypeAsked(answers, say),
    ...circuitAsked(answers, say),
    ...packagesAsked(answers, say),
    {
      words: 'How large is the board, and how thick does it look?',
      field: <SizeField size={size} onSize={setSize} answers={answers} say={say} />,
    },
  ];
  return (
    <>
      <Headline title="What do you see round the port?" aside="a board without a file">
        Answer by looking; nothing has to be known. Every value starts as a range and narrows with what you read.
      </Headline>
      <Box maxW="760px">
        {asked.map(({ words, field }, i) => (
          <Question key={words} number={i + 1} words={words}>
            {field}
          </Question>
        ))}
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

/** A question and where it is answered. */
interface Asked {
  readonly words: string;
  readonly field: ReactNode;
}
type Say = (more: Partial<Answers>) => void;

const deviceAsked = ({ device }: Answers, say: Say): Asked => ({
  words: 'What is the device called?',
  field: (
    <TextInput
      aria-label="What is the device called?"
      autoFocus
      value={device}
      placeholder="Tern 1"
      w="260px"
      fontSize="17px"
      onChange={(e) => say({ device: e.target.value })}
    />
  ),
});

const archetypeAsked = ({ archetype }: Answers, say: Say): Asked => ({
  words: 'Which of these is it?',
  field: (
    <Box role="radiogroup" aria-label="Which of these is it?">
      {archetypes.map(([id, { words, look }]) => (
        <chakra.label key={id} display="flex" gap="2.5" py="1" cursor="pointer" alignItems="baseline">
          <input type="radio" name="archetype" checked={archetype === id} onChange={() => say({ archetype: id })} />
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
  ),
});

/** What the circuit round the port leaves open. */
function circuitAsked({ archetype, ports, designV, memory }: Answers, say: Say): Asked[] {
  const howMany: Asked = {
    words: 'How many ports?',
    field: (
      <SelectBox
        label="How many ports?"
        value={String(ports)}
        options={counts}
        onChange={(v) => say({ ports: Number(v) })}
      />
    ),
  };
  const level: Asked = {
    words: 'For which level is the port made? The charger’s label or the connector’s surroundings tell',
    field: (
      <SelectBox
        label="For which level is the port made?"
        value={String(designV)}
        options={DESIGN_LEVELS_V.map((v) => [String(v), `${v} V`] as const)}
        onChange={(v) => say({ designV: Number(v) as Answers['designV'] })}
      />
    ),
  };
  const memoryBeside: Asked = {
    words: 'Is there an eight-legged memory beside the controller?',
    field: (
      <SelectBox
        label="Is there a memory?"
        value={memory ? 'yes' : 'no'}
        options={YES_NO}
        onChange={(v) => say({ memory: v === 'yes' })}
      />
    ),
  };
  return [
    ...(archetype === 'sharedMemory' ? [howMany] : []),
    ...(archetype === 'fiveVolts' ? [] : [level, memoryBeside]),
  ];
}

/** The packages of the chips that the archetype has. */
function packagesAsked({ archetype, controllerPackage, chargerPackage }: Answers, say: Say): Asked[] {
  const controller: Asked = {
    words: 'In what package is the chip at the port?',
    field: (
      <SelectBox
        label="Package of the controller"
        value={controllerPackage}
        options={CHIP_PATTERNS}
        onChange={(v) => say({ controllerPackage: v })}
      />
    ),
  };
  const charger: Asked = {
    words: 'And the chip beside the coil?',
    field: (
      <SelectBox
        label="Package of the charger"
        value={chargerPackage}
        options={CHIP_PATTERNS}
        onChange={(v) => say({ chargerPackage: v })}
      />
    ),
  };
  return archetype === 'oneChip' ? [controller] : [controller, charger];
}

interface SizeFieldProps {
  readonly size: string;
  readonly onSize: (size: string) => void;
  readonly answers: Answers;
  readonly say: Say;
}

const SizeField = ({ size, onSize, answers, say }: SizeFieldProps) => (
  <Flex gap="3" align="center">
    <TextInput
      aria-label="Width and height, mm"
      value={size}
      w="90px"
      fontFamily="mono"
      onChange={(e) => onSize(e.target.value)}
    />
    <Text as="span" color="quiet">
      mm
    </Text>
    <SelectBox
      label="How thick does it look?"
      value={answers.stack}
      options={Object.entries(STACKS).map(([id, { words }]) => [id, words] as const)}
      onChange={(v) => say({ stack: v as Answers['stack'] })}
    />
  </Flex>
);

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
