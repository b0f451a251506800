import { demoBoard } from '../../../../demo/files';
import { allFacts } from './facts';
import { dueFacts, memorySchema, recalled, type Memory } from './schedule';

const NOW = '2026-11-24T08:00:00.000Z';
const DAY_MS = 86_400_000;
const daysTo = (memory: Memory, from: string): number => (Date.parse(memory.due) - Date.parse(from)) / DAY_MS;

describe('when a fact is asked again', () => {
  test('the better it was known the later, and never on the same day', () => {
    const days = (['forgotten', 'withEffort', 'known'] as const).map((r) => daysTo(recalled(undefined, r, NOW), NOW));
    expect(days).toEqual(days.toSorted((a, b) => a - b));
    expect(days[0]).toBeGreaterThanOrEqual(1);
    expect(days[2]).toBeGreaterThan(days[0]);
  });

  test('known again when it is due, the pauses grow; forgotten, they shrink', () => {
    let memory = recalled(undefined, 'known', NOW);
    const pauses: number[] = [];
    for (let k = 0; k < 5; k++) {
      const then = memory.due;
      memory = recalled(memory, 'known', then);
      pauses.push(daysTo(memory, then));
    }
    expect(pauses).toEqual(pauses.toSorted((a, b) => a - b));
    expect(pauses.at(-1)!).toBeGreaterThan(30);
    const lapse = recalled(memory, 'forgotten', memory.due);
    expect(daysTo(lapse, memory.due)).toBeLessThan(pauses.at(-1)! / 3);
    expect(lapse.lapses).toBe(1);
  });

  test('what is stored is read back, and the same answers give the same days', () => {
    const twice = (): Memory => recalled(recalled(undefined, 'withEffort', NOW), 'known', '2026-11-27T08:00:00.000Z');
    expect(memorySchema.parse(JSON.parse(JSON.stringify(twice())))).toEqual(twice());
  });
});

describe('what is asked now', () => {
  const facts = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id }));
  const due = (id: string, day: string): [string, Memory] => [
    id,
    { ...recalled(undefined, 'known', NOW), due: `${day}T08:00:00.000Z` },
  ];
  const memories = new Map([due('a', '2026-11-30'), due('b', '2026-11-20'), due('c', '2026-11-18')]);

  test('what is due, the longest waiting first, then a few new ones; nothing that is not due', () => {
    expect(dueFacts(facts, memories, NOW, 1).map((f) => f.id)).toEqual(['c', 'b', 'd']);
    expect(dueFacts(facts, memories, NOW, 0).map((f) => f.id)).toEqual(['c', 'b']);
    expect(dueFacts(facts, memories, '2027-01-01T00:00:00.000Z', 5)).toHaveLength(5);
  });
});

describe('the facts', () => {
  const facts = allFacts([demoBoard('heronlog-4-c'), demoBoard('marshdesk-2-b')]);

  test('each has its own name, a question, an answer and a source', () => {
    expect(new Set(facts.map((f) => f.id)).size).toBe(facts.length);
    for (const { question, answer, source } of facts) {
      expect(question).toMatch(/\?$/);
      expect(answer.length).toBeGreaterThan(1);
      expect(source.length).toBeGreaterThan(5);
    }
  });

  test('boards give their rails with windows, and where images lie', () => {
    const rail = facts.find((f) => f.id === 'heronlog-4-c rail AON33')!;
    expect(rail.answer).toMatch(/^3\.30 V \(3\.1[34] V to 3\.4[67] V\)$/);
    expect(facts.find((f) => f.id === 'heronlog-4-c image U4')?.answer).toBe('In U9');
  });

  test('values that a standard gives stand as it gives them', () => {
    // USB Type-C: Rd 5.1 kΩ; J-STD-033: level 3, 168 h (both from memory).
    expect(facts.find((f) => f.id === 'rd')?.answer).toContain('5.1 kΩ');
    expect(facts.find((f) => f.id === 'msl3')?.answer).toContain('168 h');
  });
});
