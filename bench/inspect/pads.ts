import { performance } from 'node:perf_hooks';
import { demoBoard } from '../../demo/files';
import { HARD, NO_PAD_TALLY, drawPadScene, inspectPads, renderPadScene, talliedPads } from '../../src/core/inspect';
import { sitePads } from '../../src/core/site';
import { seededRandom } from '../../src/core/math';
import { note, section } from '../print';

const LEAST_PADS = 6;

/** Cleaned sites drawn with known truth, every package of a demo board in turn. */
function benchPads(pictures: number): void {
  section(`Pad inspection: ${pictures} drawn sites, tilt, blur, noise, glare, one pad in ten spoiled`);
  const sites = Object.values(demoBoard('heronlog-4-c').packages)
    .map(sitePads)
    .filter((pads) => pads.length >= LEAST_PADS);
  for (const [words, hairs] of [
    ['without a hair', 0],
    ['with up to two hairs', 2],
  ] as const) {
    let [tally, tookMs, lost] = [NO_PAD_TALLY, 0, 0];
    for (let k = 0; k < pictures; k++) {
      const random = seededRandom(k);
      const pads = sites[k % sites.length];
      const narrow = Math.min(...pads.map((p) => Math.min(p.wMm, p.hMm)));
      const scene = drawPadScene(pads, (16 + 14 * random()) / narrow, random, { ...HARD, hairs });
      const picture = renderPadScene(scene, random);
      const start = performance.now();
      const seen = inspectPads(picture, pads);
      tookMs += performance.now() - start;
      if (!seen) lost += 1;
      tally = talliedPads(tally, scene, seen);
    }
    const kinds = (['lifted', 'bridged', 'uneven'] as const).map((kind) => {
      const { there, found, false: wrong } = tally[kind];
      return `${kind} ${found} of ${there}, ${wrong} falsely`;
    });
    note(
      `${words}: ${kinds.join('; ')}, of ${tally.pads} pads; site not found in ${lost}; ${(tookMs / pictures).toFixed(0)} ms a picture`,
    );
  }
}

benchPads(Number(process.argv[2] ?? 100));
