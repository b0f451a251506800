import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encode, Image } from 'image-js';
import { mapPoint, type Homography } from '../core/site';
import { photographed, strewnScene } from '../core/photo/tests/board-scene';
import { FIRST_ANSWERS } from '../core/sketch';
import { cli } from './tests/run-cli';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-sketch-'));
function file(name: string, content: string | Uint8Array): string {
  const at = path.join(folder, name);
  writeFileSync(at, content);
  return at;
}
const json = async (...args: string[]) => {
  const { out, err, code } = await cli(...args);
  expect(`${code} ${err}`).toBe('0 ');
  return JSON.parse(out);
};
const refused = async (...args: string[]): Promise<string> => {
  const { err, code, out } = await cli(...args);
  expect([code, out]).toEqual([2, '']);
  return err;
};

test('a board is begun, edited line by line, and asked how far it carries', async () => {
  const answers = file('answers.json', JSON.stringify({ ...FIRST_ANSWERS, device: 'Tern 1' }));
  const begun = await json('board', 'sketch', answers, '--id', 'tern-1');
  expect(begun).toMatchObject({ id: 'tern-1', device: 'Tern 1', assumed: ['outline', 'stack', 'parts'] });
  const edited = await json(
    'board',
    'edit',
    file('a.json', JSON.stringify(begun)),
    'u4 is the controller',
    'add c14 on vin',
    'good vin ohm 41k',
  );
  expect(edited.ports[0].controller).toBe('U4');
  const { stages, worth } = await json('board', 'carry', file('b.json', JSON.stringify(edited)));
  expect(stages.map((s: { stage: string }) => s.stage)).toEqual(['outside', 'probe', 'image', 'heat', 'prove']);
  expect(worth[0].savesMinutes).toBeGreaterThanOrEqual(worth.at(-1).savesMinutes);
});

test('a line or an answer that is none is refused with its place', async () => {
  const answers = file('bad.json', JSON.stringify({ ...FIRST_ANSWERS, device: 'Tern', designV: 7 }));
  expect(await refused('board', 'sketch', answers)).toContain('designV');
  const board = file(
    'c.json',
    JSON.stringify(
      await json('board', 'sketch', file('ok.json', JSON.stringify({ ...FIRST_ANSWERS, device: 'Tern' }))),
    ),
  );
  expect(await refused('board', 'edit', board, 'u9 is the teapot')).toContain('got "teapot"');
});

test('parts are seen in a photograph by its corners', async () => {
  const scene = strewnScene(101);
  const [w, h] = scene.sizeMm;
  const scale = 1000 / w;
  const camera: Homography = [scale, 1, 40, -0.8, scale, 40, 0.0006, -0.0005];
  const { width, height, data } = photographed(scene, camera, 1150, Math.round(h * scale + 110));
  const picture = new Image(width, height, { data: new Uint8Array(data.buffer), colorModel: 'RGBA' }).convertColor(
    'RGB',
  );
  const at = file('front.png', encode(picture, { format: 'png' }));
  const corners = [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ].flatMap(([x, y]) => {
    const p = mapPoint(camera, { x, y });
    return [p.x.toFixed(1), p.y.toFixed(1)];
  });
  const { doubtMm, bodies } = await json('board', 'seen', at, '--size', `${w},${h}`, '--corners', corners.join(','));
  expect(doubtMm).toBeLessThan(0.15);
  const found = scene.parts.filter((p) =>
    bodies.some((b: { xMm: number; yMm: number }) => Math.hypot(b.xMm - p.xMm, b.yMm - p.yMm) < 0.35),
  );
  expect(found.length / scene.parts.length).toBeGreaterThan(0.85);
  expect(await refused('board', 'seen', at, '--size', '58', '--corners', '1,2')).toContain('Expected 2 figures');
  expect(
    await refused('board', 'seen', file('no.png', 'no picture'), '--size', '58,36', '--corners', '0,0,9,0,9,9,0,9'),
  ).toContain('Expected a PNG or JPEG picture');
});
