import { demoBoard, demoFamily } from '../../../demo/files';
import { slotPosition } from './slot-position';

const heron = demoBoard('heronlog-4-c');
const family = demoFamily('heron-pd');

test('the position of the slot whose memory it is, as the family’s byte', () => {
  expect(slotPosition(heron, family)).toBe(1);
  const side = heron.slots.map((s) => (s.ref === 'U4' ? { ...s, position: 'side' } : s));
  expect(slotPosition({ ...heron, slots: side }, family)).toBe(2);
});

test('nobody knows it where the family has no byte for it, or several slots share the memory', () => {
  const odd = heron.slots.map((s) => (s.ref === 'U4' ? { ...s, position: 'attic' } : s));
  expect(slotPosition({ ...heron, slots: odd }, family)).toBeUndefined();
  expect(slotPosition(demoBoard('marshdesk-2-b'), demoFamily('marsh-pd3'))).toBeUndefined();
});
