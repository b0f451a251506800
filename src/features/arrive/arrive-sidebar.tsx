import { Text } from '@chakra-ui/react';
import { storyShift, type JobView } from '@/core/job';
import { formatChance } from '@/core/units';
import { SidebarPart, OddsBar } from '@/ui';

/** The likeliest parts under the story that is kept, each with its odds before and after. */
export function ArriveSidebar({ job }: { job: JobView }) {
  const shifts = storyShift(job.board, job.state.story?.history ?? [], job.practice);
  return (
    <SidebarPart title="Odds before anything is measured">
      {shifts.map((s, i) => (
        <OddsBar
          key={s.ref}
          name={s.ref === 'outside' ? 'Nothing on this board' : s.label.split(',')[0]}
          share={s.p}
          figure={formatChance(s.p)}
          colour={i === 0 ? 'copper' : 'tin'}
        />
      ))}
      <Text fontSize="13px" color="quiet" mt="2">
        Without the story: {shifts.map((s) => `${SHORT_NAMES[s.ref] ?? s.ref} ${formatChance(s.before)}`).join(', ')}.
        Factors are engineering estimates in the direction of common practice; the library has them to see and to set.
      </Text>
    </SidebarPart>
  );
}

/** What is no part, in a list of parts. */
const SHORT_NAMES: Readonly<Record<string, string>> = { outside: 'not this board', unlisted: 'unlisted' };
