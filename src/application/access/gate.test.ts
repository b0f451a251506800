import { passage, type Asked } from './gate';
import type { Person, Role } from './person';

const OWN: Asked = {
  ...{ method: 'GET', path: '/jobs', host: '127.0.0.1:3000', origin: null, fetchSite: null, contentLength: null },
  wantsPage: true,
};
const shop = { hosts: ['bench.local'], accounts: true };
const open = { ...shop, accounts: false };
const person = (role: Role): Person => ({ name: 'Mira', role, bench: 'Bench 1', sessionId: 's' });
const answered = (asked: Partial<Asked>, of = shop, who?: Person): string => {
  const found = passage({ ...OWN, ...asked }, of, who);
  return found.kind === 'refuse' ? String(found.status) : found.kind;
};

test('without accounts whoever sits at the machine is let in, by any of its own names, and nobody by another name', () => {
  for (const host of ['127.0.0.1:3000', 'localhost', '[::1]:3000', 'bench.local:8443'])
    expect(answered({ host }, open)).toBe('pass');
  for (const host of ['evil.example', '127.0.0.1.evil.example:3000', '192.168.1.9'])
    expect(answered({ host }, open)).toBe('403');
  expect(answered({ host: null }, open)).toBe('400');
});

test('pages of other origins are turned away, whatever they ask; a browser that says "cross-site" or nothing it can be held to as well', () => {
  expect(answered({ origin: 'http://127.0.0.1:3000', method: 'POST' }, open)).toBe('pass');
  for (const origin of ['http://evil.example', 'http://127.0.0.1:4000', 'https://127.0.0.1', 'no address'])
    for (const method of ['GET', 'POST', 'DELETE']) expect(answered({ origin, method }, open)).toBe('403');
  expect(answered({ origin: 'null', method: 'POST' }, open)).toBe('403');
  expect(answered({ fetchSite: 'cross-site', method: 'POST' }, open)).toBe('403');
  expect(answered({ fetchSite: 'same-origin', method: 'POST' }, open)).toBe('pass');
});

test('what is too large is refused by what it says of itself, before it is read', () => {
  expect(answered({ method: 'POST', contentLength: String(200 * 2 ** 20) }, open)).toBe('413');
  expect(answered({ method: 'POST', contentLength: String(20 * 2 ** 20) }, open)).toBe('pass');
});

test('with accounts strangers get the sign-in and nothing else; the shop’s affairs are for leads', () => {
  expect(answered({})).toBe('signIn');
  expect(answered({ wantsPage: false })).toBe('401');
  expect(answered({ method: 'POST' })).toBe('401');
  expect(answered({ path: '/sign-in' })).toBe('pass');
  expect(answered({ path: '/sign-in/elsewhere' })).toBe('signIn');
  for (const role of ['technician', 'apprentice'] as const) {
    expect(answered({}, shop, person(role))).toBe('pass');
    for (const path of ['/shop', '/shop/archive']) expect(answered({ path }, shop, person(role))).toBe('403');
  }
  expect(answered({ path: '/shop' }, shop, person('lead'))).toBe('pass');
});
