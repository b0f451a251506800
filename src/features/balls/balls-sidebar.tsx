'use client';

import { useState, useTransition } from 'react';
import { useRouter } from 'next/navigation';
import { Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import type { JobView } from '@/core/job';
import { ALLOYS, type SitePractice } from '@/core/joints';
import { AnswerNote, FigureLine, SidebarPart, Named, SelectBox, TextInput } from '@/ui';
import { keepSiteRule } from './actions';
import type { SiteBench } from './queries';
import { partsWithSites, sitePart } from './site-part';
import type { BallsView } from './view';

/** What the arithmetic rests on, and the house rules it follows. */
export function BallsSidebar({
  job,
  bench,
  view,
  asked,
}: {
  job: JobView;
  bench: SiteBench;
  view: BallsView;
  asked?: string;
}) {
  const part = sitePart(job, asked);
  const router = useRouter();
  const choose = (
    <SelectBox
      label="Part whose site is shown"
      value={part?.ref ?? ''}
      options={[
        ...(part ? [] : [['', 'choose a part'] as const]),
        ...partsWithSites(job).map((p) => [p.ref, `${p.ref} ${p.what}`] as const),
      ]}
      onChange={(ref) => router.replace(`?view=${view}&part=${ref}`, { scroll: false })}
    />
  );
  if (!part) return <SidebarPart title="Part">{choose}</SidebarPart>;
  const { alloy } = job.board;
  const pkg = job.board.packages[part.package];
  return (
    <>
      <SidebarPart title="Part">
        {choose}
        <FigureLine name="Package" value={part.package} />
        <FigureLine name="Body" value={`${pkg.bodyMm[0]} × ${pkg.bodyMm[1]} mm`} />
        <FigureLine name="Alloy as built" value={alloy} />
        <FigureLine name="Liquidus" value={`${ALLOYS[alloy].liquidusC} °C`} />
      </SidebarPart>
      <HouseRules practice={bench.practice} />
      <SidebarPart title="Rests on">
        <Text fontSize="14px">
          Deposit from aperture, foil and transfer; area ratio at least 0.66 (IPC-7525). Collapse as a sphere between
          two pads. Coplanarity limits by pitch, iron settings and the share of paste on a centre pad are common
          practice.
        </Text>
      </SidebarPart>
    </>
  );
}

function HouseRules({ practice }: { practice: SitePractice }) {
  const [answer, setAnswer] = useState<ActionResult>();
  const [pitch, setPitch] = useState(String(practice.braidFromPitchMm));
  const [, start] = useTransition();
  const keep = (rule: Partial<SitePractice>): void => start(async () => setAnswer(await keepSiteRule(rule)));
  return (
    <SidebarPart title="House rules">
      <Flex direction="column" gap="2">
        <Named name="Braid">
          <SelectBox
            value={practice.braid}
            options={[
              ['above', 'from a pitch on'],
              ['never', 'never'],
            ]}
            onChange={(braid) => keep({ braid: braid as SitePractice['braid'] })}
          />
        </Named>
        {practice.braid === 'above' && (
          <Named name="from a pitch of, mm">
            <TextInput
              inputMode="decimal"
              value={pitch}
              onChange={(e) => setPitch(e.target.value)}
              onBlur={() => Number(pitch) !== practice.braidFromPitchMm && keep({ braidFromPitchMm: Number(pitch) })}
            />
          </Named>
        )}
        <Named name="New balls">
          <SelectBox
            value={practice.balls}
            options={[
              ['auto', 'paste if coarse and even enough'],
              ['paste', 'paste'],
              ['spheres', 'spheres'],
            ]}
            onChange={(balls) => keep({ balls: balls as SitePractice['balls'] })}
          />
        </Named>
        <Named name="Flux">
          <SelectBox
            value={practice.flux}
            options={[
              ['sparing', 'sparing'],
              ['generous', 'generous'],
            ]}
            onChange={(flux) => keep({ flux: flux as SitePractice['flux'] })}
          />
        </Named>
        {answer && !answer.saved && <AnswerNote answer={answer} />}
      </Flex>
    </SidebarPart>
  );
}
