import type { JobView } from '@/core/job';
import { Headline } from '@/ui';
import type { ProvePlace } from './view';

/** The answer or the instruction of a view: what fails first, then what is due there. */
export function ProveHeadline({ job, place }: { job: JobView; place: ProvePlace }) {
  const { proof } = job;
  const [failure] = proof.rails.failures;
  const short = proof.shorts.find((s) => s.gone !== true);
  if (failure) {
    const rail = proof.rails.rails.find((r) => r.rail.id === failure.rail)!;
    return (
      <Headline title={`${failure.rail} fails, ${failure.lastGood} is good`} aside="back to Probe, key 3">
        {failure.rail}: {rail.label}. Between them: {failure.suspects.join(', ')}. Everything measured so far is counted
        there.
      </Headline>
    );
  }
  if (short) {
    return (
      <Headline title={`${short.net} to ground before power: is the short gone?`} aside="unpowered">
        It read as a short before the work. Power comes after this reading.
      </Headline>
    );
  }
  if (proof.allHold) {
    return (
      <Headline title="Everything holds" aside="close it, key 9">
        All rails in their windows, both plug ways healthy, all functions tried.
      </Headline>
    );
  }
  return place.view === 'unpowered' ? <UnpoweredHeadline place={place} /> : <PoweredHeadline job={job} place={place} />;
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function UnpoweredHeadline({ place: { walk } }: { place: ProvePlace }) {
  if (!walk) return <Headline title="Nothing to touch: on to power" aside="unpowered" />;
  const { ref, next, bad, readCount, joints } = walk;
  const aside = `${readCount} of ${joints.length} joints`;
  if (bad.length > 0) {
    return (
      <Headline title={`Joint ${bad[0].pin} of ${ref} reads badly`} aside={aside}>
        {sentence(bad[0].verdict!.label)}. Touch it up with the board cool and unpowered, then read it again.
      </Headline>
    );
  }
  if (!next) {
    return (
      <Headline title={`Every joint of ${ref} reads well`} aside={aside}>
        On to power: set the current limit before connecting.
      </Headline>
    );
  }
  return (
    <Headline title={`Joint ${next.pin} of ${ref}, ${next.net}`} aside={aside}>
      Diode mode, red lead on ground, pack out{next.instead ? `; the probe goes to ${next.instead.name}` : ''}. Good
      boards read {next.expected}. Type the value alone.
    </Headline>
  );
}

function PoweredHeadline({ job, place: { view } }: { job: JobView; place: ProvePlace }) {
  const { rails, plugs, functions } = job.proof;
  const measured = rails.rails.filter((r) => r.state !== 'untested').length;
  const aside = `${measured} of ${rails.rails.length} rails`;
  const due = job.next.stage === 'prove' ? job.next.title : undefined;
  if (view === 'rails') {
    return (
      <Headline title={rails.next ? `Measure ${rails.next}` : 'All rails are in their windows'} aside={aside}>
        In the order in which they come up; Enter names the next point. What comes and goes: “vsys 3.7 swings”, “vin
        14.9 ripple 120m”.
      </Headline>
    );
  }
  if (view === 'plugs') {
    const open = plugs.find((p) => p.healthy === undefined);
    return (
      <Headline
        title={open ? `Plug ${open.port}, ${open.side} way` : 'Both plug ways were tried'}
        aside={`${plugs.filter((p) => p.healthy).length} of ${plugs.length} healthy`}
      >
        With a known-good charger and cable, watched for a minute; then the other way round.
      </Headline>
    );
  }
  const [first] = job.proofOrder.tests;
  const fn = job.board.functions.find((f) => f.id === first?.id);
  const title = fn ? `Try: ${fn.what}` : 'Every function was tried';
  return (
    <Headline title={title} aside={`${functions.filter((f) => f.works).length} of ${functions.length} work`}>
      The likeliest to send it back comes first, for what it costs to open it again.
      {due && due !== title && ` Still due before it: ${due}.`}
    </Headline>
  );
}
