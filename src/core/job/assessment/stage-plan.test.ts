import { demoBoard } from '../../../../demo/files';
import type { ChosenRoute, EventBody, JobEvent } from '../log';
import { foldJob } from '../log';
import { stagePlan } from './stage-plan';

const marsh = demoBoard('marshdesk-2-b');
const decided = (ref: string): EventBody => ({ kind: 'decision', action: 'replace', ref });
const route: ChosenRoute = {
  kind: 'route',
  ref: 'U12',
  typeId: 'marsh-pd-r4p',
  supply: { kind: 'chip', chip: 'C-7', donor: 'D-5' },
  verdict: 'fitsAfter',
  off: ['U12', 'U19'],
  actions: [
    { kind: 'bake', words: 'Bake 9 h at 125 °C' },
    { kind: 'partner', words: 'Move its partner reed-nor-1 to U19 too' },
    { kind: 'writePosition', words: 'Write port-2 into the image of U19' },
  ],
  prove: ['charge', 'data-2'],
};
const stateOf = (...bodies: EventBody[]) =>
  foldJob(
    bodies.map((body, i): JobEvent => ({
      seq: i + 1,
      at: '2026-11-24T08:00:00.000Z',
      bench: 'Bench 1',
      actor: 'Bench 2',
      body,
    })),
  );

test('each stage is told what the chosen chip asks of it', () => {
  expect(stagePlan(marsh, stateOf(decided('U12'), route))).toEqual({
    heat: 'Comes off for marsh-pd-r4p: U12, U19',
    balls: 'Goes on: marsh-pd-r4p, C-7 from donor D-5. Bake 9 h at 125 °C',
    image: 'Move its partner reed-nor-1 to U19 too. Write port-2 into the image of U19',
    prove: 'Shows whether U12 works: charges its pack, data over port 2',
  });
});

test('a part that is left off goes nowhere, and the record is told to say so', () => {
  const actions: ChosenRoute['actions'] = [{ kind: 'leaveOff', words: 'Leave it off, and say so' }];
  const bare: ChosenRoute = { ...route, typeId: 'none', off: ['U12'], actions };
  expect(stagePlan(marsh, stateOf(decided('U12'), bare))).toMatchObject({
    heat: 'Comes off: U12',
    balls: 'Leave it off, and say so',
  });
});

test('with the new part on, the heat is done and the proof remains', () => {
  const on: EventBody[] = [
    { kind: 'partOff', ref: 'U12' },
    { kind: 'partOn', ref: 'U12', fresh: true },
  ];
  const plan = stagePlan(marsh, stateOf(decided('U12'), route, ...on));
  expect(Object.keys(plan).sort()).toEqual(['image', 'prove']);
});

test('without a choice nothing is planned; a choice for another part, or taken back, is none', () => {
  expect(stagePlan(marsh, stateOf(decided('U12')))).toEqual({});
  expect(stagePlan(marsh, stateOf(decided('U12'), route, decided('U13')))).toEqual({});
  expect(stagePlan(marsh, stateOf(decided('U12'), route, { kind: 'undo', seq: 2 }))).toEqual({});
  expect(stagePlan(marsh, stateOf(decided('U12'), route, decided('U12'))).heat).toBeDefined();
});
