import { fail, ok } from '../result';
import {
  applyCompletion,
  completeLine,
  defineCommand,
  expected,
  grammarForms,
  headWords,
  oneOf,
  orList,
  parseLine,
  readLine,
} from '.';

interface World {
  readonly pets: readonly string[];
}

const feed = defineCommand<World, string>({
  name: 'feed',
  aliases: ['give'],
  usage: [{ example: 'feed rex 2', help: 'portions for a pet' }],
  parse({ pets }, { args: [name, portions = '1'] }) {
    const pet = oneOf(pets, name, 'after "feed"');
    return pet.ok ? ok(`${portions} for ${pet.value}`) : pet;
  },
  complete: ({ pets }, words) => (words.length === 2 ? pets : ['1', '2']),
});
const call = defineCommand<World, string>({
  name: 'name',
  matches: ({ pets }, { head }) => pets.some((p) => p.toLowerCase() === head),
  usage: [{ example: 'rex come', help: 'a pet is called' }],
  parse: (_world, { head, rest }) => (rest === '' ? fail('Expected what it is told.') : ok(`${head}: ${rest}`)),
  complete: () => ['come'],
});
const grammar = { emptyLine: 'a pet or a command', commands: [feed, call], names: ({ pets }: World) => pets };
const world: World = { pets: ['Rex', 'Reba'] };
const parse = (text: string) => parseLine(grammar, world, text);
const said = (text: string): string => {
  const result = parse(text);
  return result.ok ? result.value : result.problems[0].message;
};

test('a line is read by the command that it begins with, or by the one that knows its name', () => {
  expect(said('feed rex 2')).toBe('2 for Rex');
  expect(said('  GIVE Reba ')).toBe('1 for Reba');
  expect(said('rex Come Here')).toBe('rex: Come Here');
});

test('what is none is answered with the words that begin one, and nothing with what is wanted', () => {
  expect(said('shout rex')).toBe('Expected feed or give; got "shout".');
  expect(said('   ')).toBe('Expected a pet or a command.');
  expect(said('feed tom')).toBe('Expected Rex or Reba after "feed"; got "tom".');
  expect(said('feed')).toBe('Expected Rex or Reba after "feed"; got "".');
});

test('completion offers heads and names first, then what the command says, shortest first, never the word itself', () => {
  expect(completeLine(grammar, world, 'f')).toEqual(['feed']);
  expect(completeLine(grammar, world, '')).toEqual([]);
  expect(completeLine(grammar, world, 'feed ')).toEqual(['Rex', 'Reba']);
  expect(completeLine(grammar, world, 'feed rex 1')).toEqual([]);
  expect(completeLine(grammar, world, 'reba c')).toEqual(['come']);
  expect(completeLine(grammar, world, 'nobody ')).toEqual([]);
  expect(applyCompletion('feed re', 'rex')).toBe('feed rex ');
});

test('the command that leads the help leads it though lines are matched in another order', () => {
  const led = { ...grammar, helpFirst: 'name' };
  expect(grammarForms(led).map((f) => f.example)).toEqual(['rex come', 'feed rex 2']);
  expect(led.commands).toEqual([feed, call]);
});

test('names of the world stand beside the words of the commands, and a grammar may have none', () => {
  const { names: _, ...nameless } = grammar;
  expect(completeLine(nameless, world, 'f')).toEqual(['feed']);
  expect(completeLine(nameless, world, 'x')).toEqual([]);
  const shouted = parseLine({ ...grammar, nameExamples: ['rex'] }, world, 'shout');
  expect(shouted.ok ? '' : shouted.problems[0].message).toBe('Expected feed, give or rex; got "shout".');
});

test('any space parts the words of a line, and what follows the head stays as typed', () => {
  expect(readLine(' Feed \t REX   2 ')).toEqual({
    text: 'Feed \t REX   2',
    head: 'feed',
    args: ['rex', '2'],
    words: ['feed', 'rex', '2'],
    rest: 'REX   2',
  });
  expect(completeLine(grammar, world, 'feed   rex   ')).toEqual(['1', '2']);
});

test('at most six are offered', () => {
  const many = { pets: Array.from({ length: 20 }, (_, i) => `p${i}`) };
  expect(completeLine(grammar, many, 'feed p')).toEqual(['p0', 'p1', 'p2', 'p3', 'p4', 'p5']);
});

test('help and heads come from the definitions', () => {
  expect(grammarForms(grammar).map((f) => f.example)).toEqual(['feed rex 2', 'rex come']);
  expect(headWords(grammar)).toEqual(['feed', 'give']);
});

test('lists read as sentences do', () => {
  expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map(orList)).toEqual(['', 'a', 'a or b', 'a, b or c']);
  expect(expected(['a', 'b'], undefined)).toBe('Expected a or b; got "".');
});
