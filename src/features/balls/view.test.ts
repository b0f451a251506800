import { ballsView, ballsViews } from './view';

test('views by their address; an unknown one is the site, and another part stays in the links', () => {
  expect(ballsView('picture')).toBe('picture');
  expect([ballsView(undefined), ballsView('odd')]).toEqual(['site', 'site']);
  expect(ballsViews(undefined).map((v) => v.href)).toContain('?view=place');
  expect(ballsViews('U8').every((v) => v.href.endsWith('&part=U8'))).toBe(true);
});
