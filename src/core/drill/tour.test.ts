import { demoBoard } from '../../../demo/files';
import { Predictor } from '../diagnose';
import { courseOn } from './definition';
import { completeDrillLine, readDrillLine } from './line';
import { DrillPlay, type DrillStep } from './play';
import { tourStop } from './tour';

const board = demoBoard('heronlog-4-c');
const step = (line: string): DrillStep => {
  const read = readDrillLine(board, line);
  if (!read.ok) throw new Error(line);
  return read.value;
};

test('a newcomer who types what the tour says comes to its end, stop by stop', () => {
  const [drill] = courseOn([board]);
  const play = new DrillPlay(Predictor.of(board), drill);
  const steps: DrillStep[] = [];
  const seen: number[] = [];
  for (let k = 0; k < 40 && !play.end; k++) {
    const stop = tourStop(board, steps, play.end);
    seen.push(stop.at);
    const proposal = play.proposal();
    const own = stop.line && stop.at < 4 ? step(stop.line) : undefined;
    const next: DrillStep =
      own ??
      (proposal.kind === 'work'
        ? { do: 'work', work: proposal.work }
        : proposal.kind === 'test' || proposal.kind === 'again'
          ? { do: 'measure', measurement: proposal.measurement }
          : { do: 'giveUp' });
    expect(play.take(next).ok).toBe(true);
    steps.push(next);
  }
  expect(play.end).toBe('cured');
  expect(seen.slice(0, 4)).toEqual([1, 2, 3, 4]);
  expect(tourStop(board, steps, play.end)).toMatchObject({ at: 6, of: 6 });
});

test('every line that the tour offers is one that the board takes', () => {
  for (const done of [[], [step('look j1')], [step('look j1'), step('usb a')]]) {
    const { line } = tourStop(board, done, undefined);
    expect(readDrillLine(board, line!).ok).toBe(true);
    expect(completeDrillLine(board, line!)).toContain(line);
  }
});

test('on a board whose port has another name the lines have it', () => {
  const marsh = demoBoard('marshdesk-2-b');
  for (const done of [
    [],
    [{ do: 'measure', measurement: { kind: 'visualInspection', ref: marsh.ports[0].id } }] as DrillStep[],
  ]) {
    const { line } = tourStop(marsh, done, undefined);
    expect(readDrillLine(marsh, line!).ok).toBe(true);
  }
});

test('power before the look is not held up: the tour goes on from there', () => {
  expect(tourStop(board, [step('usb a')], undefined).line).toBe('hint');
});

test('after a part that was not it the tour says so', () => {
  expect(tourStop(board, [step('usb a'), step('hint'), step('replace u4')], undefined).title).toBe(
    'The complaint is still there',
  );
});
