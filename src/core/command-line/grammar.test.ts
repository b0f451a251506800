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
  expect(completeLine(grammar, world, 'feed ')).toEqual(['Rex', 'Reba'].filter((n) => n.startsWith('')));
  expect(completeLine(grammar, world, 'feed rex 1')).toEqual([]);
  expect(completeLine(grammar, world, 'reba c')).toEqual(['come']);
  expect(completeLine(grammar, world, 'nobody ')).toEqual([]);
  expect(applyCompletion('feed re', 'rex')).toBe('feed rex ');
});

test('at most six are offered', () => {
  const many = { pets: Array.from({ length: 20 }, (_, i) => `p${i}`) };
  expect(completeLine(grammar, many, 'feed p')).toHaveLength(6);
});

test('help and heads come from the definitions', () => {
  expect(grammarForms(grammar).map((f) => f.example)).toEqual(['feed rex 2', 'rex come']);
  expect(headWords(grammar)).toEqual(['feed', 'give']);
});

test('lists read as sentences do', () => {
  expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map(orList)).toEqual(['', 'a', 'a or b', 'a, b or c']);
  expect(expected(['a', 'b'], undefined)).toBe('Expected a or b; got "".');
});
