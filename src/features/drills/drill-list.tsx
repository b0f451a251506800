'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Grid, Link, Text } from '@chakra-ui/react';
import {
  ColumnHeads,
  FigureLine,
  Headline,
  MainButton,
  PageLink,
  PlainButton,
  ProblemNote,
  SidebarPart,
  usePlace,
  LIST_WIDTH,
} from '@/ui';
import { beginDrill } from './actions';
import type { DrillList } from './queries';

const COLUMNS = '60px minmax(0, 1.4fr) minmax(0, 1.2fr) 90px 150px';

const HIDDEN_WORDS = {
  1: 'one fault',
  2: 'two faults',
  3: 'three faults',
  unlisted: 'a fault that no list holds',
} as const;

/** Ten graded drills, how each went last, and the one that teaches most now. */
export function DrillCourse({ list }: { list: DrillList }) {
  const router = useRouter();
  const [busy, setBusy] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const { course, next, skill } = list;
  const advised = course.find((d) => d.grade === next);
  async function begin(drill: DrillList['course'][number]): Promise<void> {
    const { format, name, boardId, seed, faults, misleading, grade } = drill;
    const spec = { format, name, boardId, seed, faults, misleading, grade };
    setBusy(drill.name);
    setProblem(undefined);
    const answer = await beginDrill(spec, crypto.randomUUID());
    if (answer.saved) return router.push(`/drills/${answer.seq}`);
    setBusy(undefined);
    setProblem(answer.message);
  }
  if (!advised)
    return (
      <Headline title="No board to practise on" aside="0 drills">
        A drill is played on a board of the library: take one in first.
      </Headline>
    );
  return (
    <>
      <Headline
        title={skill.drills === 0 ? 'Find the fault before the owner’s board pays for it' : `Next: ${advised.name}`}
        aside={`${skill.drills} drills done`}
      >
        The program knows what is wrong, the instruments are noisy, and every step is held against the best one of its
        moment. Nothing of it counts in any record.
      </Headline>
      <MainButton type="button" disabled={busy !== undefined} onClick={() => void begin(advised)}>
        {busy === advised.name ? 'Draws the fault…' : `Begin ${advised.name}`}
      </MainButton>
      {problem && <ProblemNote text={problem} />}
      <ColumnHeads columns={COLUMNS} names={['Grade', 'Drill', 'What is hidden', 'Score', '']} lastRight mt="5" />
      {course.map((d) => (
        <Grid
          key={d.name}
          templateColumns={COLUMNS}
          minW={LIST_WIDTH}
          columnGap="4"
          alignItems="center"
          py="1.5"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text fontFamily="mono" fontWeight="700">
            {d.grade}
          </Text>
          <Text fontWeight={d === advised ? '700' : '400'}>{d.name}</Text>
          <Text color="quiet" fontSize="14px">
            {HIDDEN_WORDS[d.faults]}
            {d.misleading && ', and a story that leads astray'}
          </Text>
          <Text fontFamily="mono">{d.last?.score === undefined ? '–' : `${Math.round(100 * d.last.score)}`}</Text>
          <Box textAlign="right">
            {d.last && d.last.end === undefined ? (
              <Link asChild color="copperText" fontWeight="700">
                <PageLink href={`/drills/${d.last.id}`}>go on</PageLink>
              </Link>
            ) : (
              <PlainButton type="button" disabled={busy !== undefined} onClick={() => void begin(d)}>
                {busy === d.name ? 'Draws…' : d.last ? 'Again' : 'Begin'}
              </PlainButton>
            )}
          </Box>
        </Grid>
      ))}
    </>
  );
}

/** Skill with its uncertainty, what was done, and everybody's for the lead. */
export function DrillSidebar({ list: { skill, mine, people } }: { list: DrillList }) {
  const { day } = usePlace();
  return (
    <>
      <SidebarPart title="Skill">
        <Text fontFamily="mono" fontWeight="700" fontSize="34px" lineHeight="1.1">
          {Math.round(skill.rating)}
        </Text>
        <Text fontSize="14px" color="quiet">
          ± {Math.round(2 * skill.deviation)} after {skill.drills} drills. 1500 is where everybody begins; each grade is
          80.
        </Text>
      </SidebarPart>
      {mine.length > 0 && (
        <SidebarPart title="Your last drills">
          {mine.slice(0, 8).map((l) => (
            <FigureLine
              key={l.id}
              name={<PageLink href={`/drills/${l.id}`}>{`${day(l.at)}, ${l.name}`}</PageLink>}
              value={l.score === undefined ? '…' : Math.round(100 * l.score)}
              colour={l.score === 0 ? 'rust' : 'ink'}
            />
          ))}
        </SidebarPart>
      )}
      {people.length > 1 && (
        <SidebarPart title="Everybody">
          {people.map((p) => (
            <FigureLine
              key={p.person}
              name={`${p.person}, ${p.skill.drills} drills`}
              value={`${Math.round(p.skill.rating)} ± ${Math.round(2 * p.skill.deviation)}`}
            />
          ))}
        </SidebarPart>
      )}
    </>
  );
}
