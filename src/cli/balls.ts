import type { Command } from 'commander';
import { encode, Image } from 'image-js';
import { writeFileSync } from 'node:fs';
import { landsOf, padsOf, partNamed, type Board, type Part } from '../core/board';
import { planClearing } from '../core/clearing';
import { NOMINAL_STATION, UNDERFILLS, nozzleFor, startingPlan, stationSchema, type UnderfillKind } from '../core/heat';
import { greyOf, inspectBalls, inspectPads, type GreyPicture } from '../core/inspect';
import { balledPart, sitePads, sitesOf, type BalledPart } from '../core/site';
import {
  DEFAULT_SITE_PRACTICE,
  cleaningPlan,
  judgeLifted,
  judgePadLook,
  judgeReuse,
  mixSolders,
  planSite,
  solderByName,
  SOLDERS,
  type ArrayLands,
} from '../core/joints';
import { SPECIMENS, coloured, takePadPicture, takePicture, type Specimen } from '../devices/microscope';
import { InputProblem, print, printRows, readBoard, readJson, readPixels } from './input';

/** From a lifted chip to one that can go down. */
export function addBallsCommands(root: Command): void {
  const balls = root.command('balls').description('underfill, sites, balls and what is seen of them');
  balls
    .command('clear <board.json> <part>')
    .description('guards, the order of clearing and the windows of clearing and lifting, with the station’s doubt')
    .option('--underfill <kind>', `${Object.keys(UNDERFILLS).join(', ')}; none when left out`)
    .option('--station <station.json>', 'a station; the nominal one when left out')
    .action((file: string, ref: string, { underfill, station }: { underfill?: string; station?: string }) => {
      if (underfill !== undefined && !(underfill in UNDERFILLS))
        throw new InputProblem(`Expected ${Object.keys(UNDERFILLS).join(', ')}; got ${underfill}.`);
      const board = readBoard(file);
      const part = partOf(board, ref);
      const on = station ? readJson(station, stationSchema) : NOMINAL_STATION;
      const { bodyMm } = board.packages[part.package];
      const plan = {
        ...startingPlan(part.ref, board.alloy, nozzleFor(on.nozzlesMm, bodyMm)),
        purpose: 'place' as const,
      };
      print(planClearing({ board, station: on, plan, underfill: (underfill as UnderfillKind) ?? null }));
    });
  balls
    .command('site <board.json> <part>')
    .description('what the site needs: paste or spheres, foil, centre pad, cleaning; lifted pads and what follows')
    .option('--lifted <pads>', 'pads that are off the board, as 12,13')
    .action((file: string, ref: string, { lifted = '' }: { lifted?: string }) => {
      const board = readBoard(file);
      const part = partOf(board, ref);
      const site = planSite(board, part, board.alloy);
      print({
        ...site,
        cleaning: cleaningPlan({ pitchMm: site.pitchMm, alloy: board.alloy, plasticNear: [] }, DEFAULT_SITE_PRACTICE),
        lifted: judgeLifted(board, part, liftedPads(board, part, lifted)),
      });
    });
  balls
    .command('inspect <board.json> <part> <picture>')
    .description('balls in a PNG or JPEG picture: missing, bridged, sizes, and whether the part can go down')
    .option('--rows', 'one JSON row per site and nothing else')
    .action((file: string, ref: string, picture: string, { rows }: { rows?: boolean }) =>
      inspect(readBoard(file), ref, picture, rows),
    );
  balls
    .command('pads <board.json> <part> <picture>')
    .description('pads of a cleaned site in a PNG or JPEG picture: gone, uneven, joined by solder')
    .option('--rows', 'one JSON row per pad and nothing else')
    .action((file: string, ref: string, picture: string, { rows }: { rows?: boolean }) =>
      lookAtPads(readBoard(file), ref, picture, rows),
    );
  balls
    .command('picture <board.json> <part> <out.png>')
    .description('a picture from the simulated microscope')
    .option('--specimen <kind>', SPECIMENS.join(', '), 'worn')
    .option('--seed <number>', 'the same seed gives the same picture', '1')
    .option('--site', 'the cleaned site instead of the part with its balls')
    .action((file: string, ref: string, out: string, options: { specimen: string; seed: string; site?: true }) => {
      const taken = specimenPicture(readBoard(file), ref, options);
      const image = new Image(taken.width, taken.height, { data: coloured(taken), colorModel: 'RGBA' });
      writeFileSync(out, encode(image, { format: 'png' }));
    });
  balls
    .command('mix <portions...>')
    .description('what solders melted together become, as SAC305=1 Sn63Pb37=0.5 in mm³')
    .action((portions: string[]) => print(mixSolders(portions.map(portionOf))));
}

function partOf(board: Board, ref: string): Part {
  const part = partNamed(board, ref);
  if (!part) throw new InputProblem(`Expected a part of ${board.id}; got ${ref}.`);
  return part;
}

function balledOf(board: Board, ref: string): { part: Part; balled: BalledPart; lands: ArrayLands } {
  const part = partOf(board, ref);
  const pkg = board.packages[part.package];
  const balled = balledPart(pkg);
  if (!balled || pkg.lands.kind !== 'array')
    throw new InputProblem(`Expected a part with balls; ${part.ref} is a ${part.package}.`);
  return { part, balled, lands: pkg.lands };
}

function specimenPicture(
  board: Board,
  ref: string,
  { specimen, seed, site }: { specimen: string; seed: string; site?: true },
): GreyPicture {
  if (!SPECIMENS.includes(specimen as Specimen))
    throw new InputProblem(`Expected ${SPECIMENS.join(', ')}; got ${specimen}.`);
  if (site)
    return takePadPicture(specimen as Specimen, sitePads(board.packages[partOf(board, ref).package]), Number(seed));
  const { balled } = balledOf(board, ref);
  const sizes = { ball: balled.ballMm / balled.pitchMm, pad: balled.padMm / balled.pitchMm };
  return takePicture(specimen as Specimen, balled.pattern, sizes, Number(seed));
}

function liftedPads(board: Board, part: Part, text: string): string[] {
  const known = new Set(padsOf(board, part).map((p) => p.pin));
  const pins = text
    .split(',')
    .map((p) => p.trim().toUpperCase())
    .filter(Boolean);
  const strange = pins.find((p) => !known.has(p));
  if (strange !== undefined)
    throw new InputProblem(
      `Expected pads of ${part.ref} such as ${landsOf(board.packages[part.package])[0].pin}; got ${strange}.`,
    );
  return pins;
}

function inspect(board: Board, ref: string, file: string, rows = false): void {
  const { part, balled, lands } = balledOf(board, ref);
  const seen = inspectBalls(readPicture(file), balled.pattern, balled);
  if (!seen) {
    const { columns, rows } = balled.pattern;
    throw new InputProblem(
      `Expected a picture of ${columns} × ${rows} balls seen from above; the pattern was not found in ${file}.`,
    );
  }
  const places = sitesOf(balled.pattern);
  if (rows) {
    const bridged = new Set(seen.bridges.flat());
    return printRows(
      seen.balls.map(({ verdict: state, diameterMm, diameterSdMm, unclear }, i) => ({
        ...{ pin: balled.pins[i], column: places[i].x, row: places[i].y },
        ...{ state, bridged: bridged.has(i), diameterMm, diameterSdMm, unclear },
      })),
    );
  }
  const verdict = judgeReuse(
    seen.balls.map((b, i) => ({
      xMm: places[i].x * balled.pitchMm,
      yMm: places[i].y * balled.pitchMm,
      diameterMm: b.diameterMm,
      state: b.verdict,
    })),
    seen.bridges.length,
    lands,
    DEFAULT_SITE_PRACTICE,
  );
  print({
    part: part.ref,
    ...verdict,
    uniformity: verdict.uniformity && { ...verdict.uniformity, gapsMm: undefined },
    balls: seen.balls.map(({ verdict: state, diameterMm, diameterSdMm, unclear }, i) => ({
      ...{ pin: balled.pins[i], state, diameterMm, diameterSdMm, unclear },
    })),
    bridges: seen.bridges.map((pair) => pair.map((i) => balled.pins[i])),
    crumbs: seen.solderDebris.length,
    ...{ usualMm: seen.usualMm, sizeInDoubt: seen.sizeInDoubt },
  });
}

function lookAtPads(board: Board, ref: string, file: string, rows = false): void {
  const part = partOf(board, ref);
  const pads = sitePads(board.packages[part.package]);
  const seen = inspectPads(readPicture(file), pads);
  if (!seen)
    throw new InputProblem(
      `Expected a picture of the ${pads.length} pads of ${part.ref} seen from above, pin 1 at the top left; they were not found in ${file}.`,
    );
  const bridges = seen.bridges.map(([a, b]) => [pads[a].pin, pads[b].pin] as const);
  const looked = seen.pads.map(({ pin, verdict, unclear }) => ({ pin, state: verdict, unclear }));
  if (rows) {
    const bridged = new Set(bridges.flat());
    return printRows(looked.map((pad) => ({ ...pad, bridged: bridged.has(pad.pin) })));
  }
  print({ part: part.ref, ...judgePadLook(looked, bridges), pads: looked, bridges });
}

function readPicture(file: string): GreyPicture {
  const { data, width, height } = readPixels(file);
  return greyOf(data, width, height);
}

function portionOf(text: string): { alloy: NonNullable<ReturnType<typeof solderByName>>; volumeMm3: number } {
  const [name, volume] = text.split('=');
  const alloy = solderByName(name);
  const volumeMm3 = Number(volume);
  if (!alloy || !(volumeMm3 > 0))
    throw new InputProblem(
      `Expected an alloy and mm³ such as SAC305=1, of ${SOLDERS.map((s) => s.name).join(', ')}; got ${text}.`,
    );
  return { alloy, volumeMm3 };
}
