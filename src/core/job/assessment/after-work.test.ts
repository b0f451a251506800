/** What is suspected, asked and advised once something was worked on. */
import { demoBoard } from '../../../../demo/files';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const silent = ['look j1 good', 'usb a 5.02 0.06', 'usb b 5.02 0.06', 'pack out', 'out'];
const swapped = [...silent, 'tp7 1.6', 'tp8 1.7', 'off u4', 'on u4 new', 'tp7 6.6k', 'tp8 1.3k'];

describe('after a swap', () => {
  test('what was cured stands by itself, and only what is wrong now is suspected', () => {
    const { cured, suspects } = new BenchPlay(heron).type(...swapped).view;
    expect(cured[0].label).toMatch(/^U4 .*AON33 and PD18/);
    expect(suspects.filter((s) => s.ref === 'U4').every((s) => s.label.startsWith('New U4'))).toBe(true);
  });

  test('one plug way dead: the new part’s joint of that line comes first, and is told by its own readings', () => {
    const job = new BenchPlay(heron).type(...swapped, 'usb a 15 0.6', 'usb b 5.02 0.01').view;
    expect(job.tests[0].title).toBe('U4 joint 2, CC2, diode mode');
    expect(job.next.title).toBe('U4 joint 2, CC2, diode mode');
    const [first] = job.suspects;
    expect(first.label).toBe('New U4, joint 2 CC2 open');
    // The shorts of the old chip do not speak of the new one's joint, and neither does the story.
    expect(first.reasons.join(' ')).not.toMatch(/story makes U4/);
    expect(job.pairs.flatMap((p) => p.labels).every((words) => !words.includes('AON33'))).toBe(true);
  });

  test('an open joint is touched up, and is no suspect after it', () => {
    const job = new BenchPlay(heron).type(...swapped, 'usb a 15 0.6', 'usb b 5.02 0.01', 'joint u4 2 ol', 'b5 0.262');
    const work = job.view.repairs[0];
    expect(work.label).toBe('Touch up the joints of U4');
    job.type('touched u4');
    expect(job.view.suspects.every((s) => !s.label.includes('New U4, joint 2'))).toBe(true);
    expect(job.view.readings.at(-1)!.current).toBe(false);
  });

  test('a second new part is another one than the first', () => {
    const job = new BenchPlay(heron).type(...swapped, 'usb a 15 0.6', 'usb b 5.02 0.01', 'off u4', 'on u4 new');
    expect(job.state.replaced.filter((ref) => ref === 'U4')).toHaveLength(2);
    const own = job.view.suspects.filter((s) => s.ref === 'U4');
    expect(own.every((s) => s.label.startsWith('New U4, second one'))).toBe(true);
  });

  test('the same part back on is no new part', () => {
    const job = new BenchPlay(heron).type(...silent, 'tp7 1.6', 'off u4', 'on u4 same');
    expect(job.state.replaced).toEqual([]);
  });
});

describe('small work', () => {
  test('joints, contacts and software are worked on as often as it takes', () => {
    const job = new BenchPlay(heron).type(
      ...silent,
      'touched u4',
      'touched u4',
      'cleaned j1',
      'restored',
      'mended vin',
    );
    expect(job.state.replaced).toEqual(['U4/joints', 'U4/joints', 'J1/contacts', 'software', 'VIN']);
  });

  test.each([
    ['touched u99', /Expected a part of this board after "touched"/],
    ['cleaned u4', /Expected a connector of this board after "cleaned"/],
    ['restored now', /Expected "restored" alone/],
  ])('%s is refused with what was expected', (line, problem) => {
    expect(() => new BenchPlay(heron).type(line)).toThrow(problem);
  });

  test('a decision on it asks for it until it is done', () => {
    const job = new BenchPlay(heron).type(...silent);
    job.keep({ kind: 'decision', action: 'touchUp', ref: 'U4' });
    expect(job.view.next).toEqual({ stage: 'prove', title: 'Touch up the joints of U4, then enter "touched u4"' });
    job.type('touched u4');
    expect(job.view.next.title).not.toContain('Touch up');
    job.keep({ kind: 'decision', action: 'clean', ref: 'J1' });
    expect(job.view.next.title).toBe('Clean the contacts of J1, then enter "cleaned j1"');
  });
});

describe('what nothing listed explains', () => {
  // Everything at the port is as it should be, and two rails read what no short, leak or part of theirs would.
  const sound = ['look j1 good', 'usb a 15 0.6', 'usb b 15 0.6', 'pack out', 'out', 'tp7 6.6k'];
  const odd = [...sound, 'v5 14 ohm', 'v33 14 ohm'];

  test('a reading that fits nothing is asked for again before anything is replaced', () => {
    const { tests, next, unexplained } = new BenchPlay(heron).type(...odd).view;
    expect(tests[0].again).toBe(true);
    expect(next.title).toMatch(/^Take again before anything is replaced: /);
    expect(unexplained).toBeUndefined();
  });

  test('once it reads the same it is said, with what does not fit', () => {
    const { unexplained } = new BenchPlay(heron).type(...odd, 'v5 14.4 ohm', 'v33 14.3 ohm').view;
    expect(unexplained!.strange.join(' ')).toMatch(/14/);
  });
});
