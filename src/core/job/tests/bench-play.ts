import type { PartRef } from '../../identities';
import { problemText } from '../../result';
import type { Board } from '../../board';
import { parseEntry } from '../entry/grammar';
import type { BodyOf, EventBody, JobEvent, JobState } from '../log';
import { foldJob } from '../log';
import type { BenchKnowledge } from '../assessment/snapshot';
import { viewJob, type JobView } from '../assessment/view';

const AT = '2026-11-24T08:00:00.000Z';

/** A job played by typed lines, as a bench would enter them; each line is read by the entry grammar. */
export class BenchPlay {
  private readonly events: JobEvent[] = [];

  constructor(
    private readonly board: Board,
    story: Partial<BodyOf<'story'>> = {},
    private readonly knowledge: BenchKnowledge = {},
  ) {
    this.push({
      kind: 'story',
      symptom: 'does not charge',
      history: [],
      dataMatters: false,
      locked: false,
      consent: true,
      pack: 'sound',
      ...story,
    });
  }

  private push(body: EventBody, replaces?: number): void {
    this.events.push({ seq: this.events.length + 1, at: AT, bench: 'Bench 1', actor: 'Bench 2', body, replaces });
  }

  /** Enters lines; a line that the grammar refuses is a mistake of the test. */
  type(...lines: string[]): this {
    for (const line of lines) {
      const entry = parseEntry(this.board, this.state, line, 'ohm');
      if (!entry.ok) throw new Error(`${line}: ${problemText(entry.problems)}`);
      const { command } = entry.value;
      if (command.do === 'record') this.push(command.body, command.replaces);
    }
    return this;
  }

  keep(body: EventBody): this {
    this.push(body);
    return this;
  }

  /** What has happened, without what follows from it: that is reckoned over the whole board. */
  get state(): JobState {
    return foldJob(this.events);
  }

  get view(): JobView {
    return viewJob(77, AT, this.board, this.events, this.knowledge);
  }

  /** Chance of a part, alone or with another. */
  chance(ref: PartRef): number {
    return this.view.suspects.find((s) => s.ref === ref)?.p ?? 0;
  }
}
