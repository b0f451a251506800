import type { Board } from '../../board';
import { defineCommand, type CommandDefinition } from '../../command-line';
import type { JobCommand } from '../decide/command';
import type { BenchPlace } from '../../units';
import type { JobState } from '../log';

/** How a bare figure is taken: ohms while probing unpowered, volts while proving. */
export type EntryMode = 'ohm' | 'volt';

/** What a line of the job's grammar reads of its world. */
export interface JobLineContext {
  readonly board: Board;
  readonly state: JobState;
  readonly mode: EntryMode;
  /** Where the bench stands: days and hours are typed by its clocks. */
  readonly place: BenchPlace;
}

/** What a typed line means, before Enter keeps it. */
export interface Entry {
  readonly command: JobCommand;
  /** In words, for the echo beside the line. */
  readonly echo: string;
}

export type JobLine = CommandDefinition<JobLineContext, Entry>;

export const defineJobLine = (definition: JobLine): JobLine => defineCommand<JobLineContext, Entry>(definition);
