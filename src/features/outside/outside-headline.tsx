import { portGate, walkPort, type JobView } from '@/core/job';
import type { OutsideConclusion } from '@/core/trace';
import { formatMinutes } from '@/core/units';
import { Headline } from '@/ui';
import type { OutsidePlace } from './view';

export interface OutsideHeadlineProps {
  readonly job: JobView;
  readonly place: OutsidePlace;
  readonly asked?: JobView['tests'][number];
  readonly conclusion?: OutsideConclusion;
}

/** The instruction or the answer: the gate first, then the walk, the next test, and at last what the outside says. */
export function OutsideHeadline({ job, place, asked, conclusion }: OutsideHeadlineProps) {
  const { port, view } = place;
  if (view === 'walk') return <WalkHeadline job={job} portId={port.id} />;
  const gate = portGate(job.state, port.id);
  const name = port.id.toLowerCase();
  if (gate.state === 'doubtful') {
    return (
      <Headline title={`Do not power ${port.id}`} aside={gate.message}>
        Make the port good first, then look again: type “look {name} good”. Walking its contacts needs no power.
      </Headline>
    );
  }
  if (gate.state === 'unlooked') {
    return (
      <Headline title={`Look into ${port.id} before any power`} aside="1 min, device closed">
        Under magnification. Mark what you see, or type “look {name} good”, or “look {name} bad pins corrosion”.
      </Headline>
    );
  }
  if (asked) {
    return (
      <Headline title={asked.title} aside={`${formatMinutes(asked.minutes)}, device closed`}>
        {asked.outlook.join(' ')}
      </Headline>
    );
  }
  return (
    <Headline title={conclusion?.words ?? headlineOf(job.findings.outside)} aside="outside is done">
      {conclusion && `${conclusion.reasons.join('. ')}. `}
      {conclusion && conclusion.implicates.length > 0 && `It points to ${conclusion.implicates.join(', ')}. `}
      Next: {job.next.title}.
    </Headline>
  );
}

function WalkHeadline({ job, portId }: { job: JobView; portId: string }) {
  const { next, hint, readCount, pins, bad } = walkPort(job.board, job.state, job.references, portId);
  const aside = `${readCount} of ${pins.length} read`;
  if (!next) {
    return (
      <Headline
        title={
          bad.length === 0 ? `Every contact of ${portId} reads well` : `${bad.map((p) => p.pin).join(', ')} read badly`
        }
        aside={aside}
      >
        Next: {job.next.title}.
      </Headline>
    );
  }
  return (
    <Headline title={`${next.pin}, ${next.net === undefined ? 'not joined' : next.net}`} aside={aside}>
      Diode mode, red lead on the shell. {hint.join(' ')} Type the value alone.
    </Headline>
  );
}

function headlineOf(finding: string): string {
  const text = finding.includes(': ') && !finding.includes(';') ? finding.split(': ').slice(1).join(': ') : finding;
  return text.charAt(0).toUpperCase() + text.slice(1) || 'Nothing read yet';
}
