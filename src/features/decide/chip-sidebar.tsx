import { Link, Text } from '@chakra-ui/react';
import type { JobView } from '@/core/job';
import { FigureLine, PageLink, SidebarPart } from '@/ui';
import type { ChoiceView } from '@/core/choice';

/** What the place is, which school counts, and whether the job is worth it. */
export function ChipSidebar({ job, choice }: { job: JobView; choice: ChoiceView }) {
  const best = choice.routes.find((r) => r.goes);
  return (
    <>
      <SidebarPart title="The place">
        <Text fontSize="15px">
          <strong>{choice.ref}</strong>, {choice.what}
          {choice.position && `, ${choice.position}`}. Built with {choice.builtId}.
        </Text>
        {choice.image && (
          <Text fontSize="14px" mt="1">
            Its image is in {choice.image}: {imageWords(choice.imageSound)}.
          </Text>
        )}
      </SidebarPart>
      {choice.image && (
        <SidebarPart title="Memory with the controller">
          <Text fontSize="14px">
            {sentence(choice.school)}: {choice.schoolWhy}. A paired family moves both, whatever the school.{' '}
            <Link asChild color="copperText" textDecoration="underline">
              <PageLink href="/library/parts">Change it</PageLink>
            </Link>
          </Text>
        </SidebarPart>
      )}
      {best && (
        <SidebarPart title="Or stop here">
          <FigureLine name="Cost with this chip" value={best.cost.toFixed(0)} />
          <FigureLine name="Pays if the device is worth" value={best.breakEven.toFixed(0)} />
          {best.gain !== undefined && (
            <FigureLine
              name={best.gain >= 0 ? 'Expected gain' : 'Expected loss'}
              value={Math.abs(best.gain).toFixed(0)}
              colour={best.gain >= 0 ? 'leaf' : 'rust'}
            />
          )}
          <Text fontSize="14px" color="quiet">
            {best.gain === undefined ? 'The story names no worth. ' : ''}Stopping costs nothing more.
          </Text>
        </SidebarPart>
      )}
      <WalkAway job={job} />
    </>
  );
}

/** Reasons to stop, where there are any. */
export function WalkAway({ job }: { job: JobView }) {
  if (job.walkAway.length === 0) return null;
  return (
    <SidebarPart title="Walk away?">
      {job.walkAway.map((reason) => (
        <Text key={reason} fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3" mb="1">
          {reason}
        </Text>
      ))}
    </SidebarPart>
  );
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const imageWords = (sound: boolean | undefined): string =>
  sound === undefined ? 'not read yet' : sound ? 'sound' : 'damaged';
