import type { Command } from 'commander';
import { writeFileSync } from 'node:fs';
import { z } from 'zod';
import { CHECKSUMS, checksumByName, findChecksums } from '../core/checksum';
import {
  compareImages,
  judgeImage,
  mergeImages,
  positionConflict,
  parseImageFamily,
  proposeMap,
  fieldsOf,
  IDENTITY_REASONS,
  proposeTransplant,
  sha256Hex,
  signsOf,
  alignImages,
  type ImageFamily,
  type IdentityReason,
  type Source,
} from '../core/image';
import { asItWas, flatten, loadImage, saveImage, type ImageFormat, type LoadedImage } from '../core/records';
import { formatHex, formatOffset } from '../core/units';
import { complain, InputProblem, print, readBytes, readJson } from './input';

/** Configuration images: read, judge, compare, understand, transplant. */
export function addImageCommands(root: Command): void {
  const image = root.command('image').description('configuration images');
  image
    .command('info <file>')
    .description('format, addresses, holes and SHA-256; with a family what is wrong with it')
    .option('--family <family.json>', 'the family that it should be of')
    .option('--position <number>', 'the position that the board’s slot needs')
    .action((file: string, { family, position }: { family?: string; position?: string }) =>
      info(file, family, position),
    );
  image
    .command('convert <file> <out>')
    .description('raw, Intel HEX or S-records, told by the content, into another of them')
    .requiredOption('--to <format>', 'raw, intel-hex or s-record')
    .option('--line <bytes>', 'bytes of data in a line', '16')
    .action((file: string, out: string, { to, line }: { to: string; line: string }) => convert(file, out, to, line));
  image
    .command('compare <family.json> <files...>')
    .description('judges two to eight dumps and compares each with the first, region by region, moved content aligned')
    .action((familyFile: string, files: string[]) => compare(familyOf(familyFile), files));
  image
    .command('checksum-find <files...>')
    .description('checksums by their values, in one to eight dumps of units with the same layout')
    .option('--algorithm <name>', `one of ${CHECKSUMS.map((c) => c.name).join('; ')}`)
    .option('--alignment <bytes>', 'ranges begin and end at multiples of this')
    .action((files: string[], options: { algorithm?: string; alignment?: string }) => checksumFind(files, options));
  image
    .command('map <files...>')
    .description('what the parts of an unknown image seem to be, the first of one to eight dumps with the same layout')
    .action((files: string[]) => {
      const images = sameLength(files);
      print(proposeMap(images[0], findChecksums(images).claims));
    });
  image
    .command('transplant <family.json> <patient> <out.bin>')
    .description('a new image by rules, every byte’s origin told; the identity of a unit stays the patient’s')
    .option('--donor <file>', 'an image of the same family')
    .option('--rule <region=source...>', 'patient, donor or copy for a region, against the proposal')
    .option('--set <field=value...>', 'values of fields, such as position=1')
    .option('--position <number>', 'the position that the board’s slot needs')
    .option(
      '--identity-reason <reason>',
      `${Object.keys(IDENTITY_REASONS).join(' or ')}: why the identity comes from the donor`,
    )
    .action((family: string, patient: string, out: string, options: TransplantOptions) =>
      transplant(familyOf(family), patient, out, options),
    );
  image
    .command('verify <expected> <read>')
    .description('whether a read holds what was to be written')
    .action((expected: string, read: string) => verify(expected, read));
}

const MOST_IMAGES = 8;

function compare(family: ImageFamily, files: readonly string[]): void {
  if (files.length < 2 || files.length > MOST_IMAGES)
    throw new InputProblem(`Expected two to ${MOST_IMAGES} dumps; got ${files.length}.`);
  const images = files.map((file) => ({ file, bytes: sizedBytes(file, family) }));
  const [first, ...others] = images;
  print({
    images: images.map(({ file, bytes }) => ({ file, sha256: sha256Hex(bytes), ...judgeImage(family, bytes) })),
    against: others.map(({ file, bytes }) => ({
      file,
      regions: compareImages(family, first.bytes, bytes, alignImages(first.bytes, bytes)).map(
        ({ region, ...difference }) => ({ region: region.name, ...difference }),
      ),
    })),
  });
}

function familyOf(file: string): ImageFamily {
  const parsed = parseImageFamily(readJson(file, z.unknown()));
  return parsed.ok ? parsed.value : complain(parsed.problems);
}

function loaded(file: string): LoadedImage {
  const image = loadImage(readBytes(file));
  return image.ok ? image.value : complain(image.problems.map((p) => ({ ...p, at: p.at ? `${file}, ${p.at}` : file })));
}

const flatBytes = (file: string): Uint8Array => flatten(loaded(file).chunks).bytes;

function sizedBytes(file: string, family: ImageFamily): Uint8Array {
  const bytes = flatBytes(file);
  if (bytes.length !== family.sizeBytes)
    throw new InputProblem(`${file}: expected ${family.sizeBytes} bytes for ${family.name}; got ${bytes.length}.`);
  return bytes;
}

function info(file: string, familyFile: string | undefined, position: string | undefined): void {
  const image = loaded(file);
  const { address, bytes } = flatten(image.chunks);
  const family = familyFile === undefined ? undefined : familyOf(familyFile);
  print({
    ...{ file, format: image.format, address, bytes: bytes.length, sha256: sha256Hex(bytes) },
    startAddress: image.startAddress,
    chunks: image.chunks.map((c) => ({ address: c.address, bytes: c.bytes.length })),
    ...(family && {
      ...judgeImage(family, bytes),
      signs: signsOf(family, [family], bytes, position === undefined ? undefined : Number(position)),
    }),
  });
}

const FORMATS: readonly ImageFormat[] = ['raw', 'intel-hex', 's-record'];
const MOST_LINE_BYTES = 250;

function convert(file: string, out: string, to: string, line: string): void {
  if (!FORMATS.includes(to as ImageFormat)) throw new InputProblem(`Expected raw, intel-hex or s-record; got ${to}.`);
  const lineBytes = Number(line);
  if (!Number.isInteger(lineBytes) || lineBytes < 1 || lineBytes > MOST_LINE_BYTES)
    throw new InputProblem(`Expected 1 to ${MOST_LINE_BYTES} bytes in a line; got ${line}.`);
  const image = loaded(file);
  const { chunks, startAddress } = image;
  if (to === 'raw') writeFileSync(out, flatten(chunks).bytes);
  else if (to === image.format) writeFileSync(out, asItWas(image));
  else writeFileSync(out, saveImage(chunks, to as Exclude<ImageFormat, 'raw'>, { lineBytes, startAddress }));
  const holes = Math.max(0, chunks.length - 1);
  print({
    ...{ file, from: image.format, to, out },
    ...(to === 'raw' && { address: chunks[0]?.address ?? 0, holesFilledWithFF: holes }),
  });
}

function checksumFind(
  files: readonly string[],
  { algorithm, alignment }: { algorithm?: string; alignment?: string },
): void {
  const checksum = algorithm === undefined ? undefined : checksumByName(algorithm);
  if (algorithm !== undefined && !checksum)
    throw new InputProblem(`Expected one of ${CHECKSUMS.map((c) => c.name).join('; ')}; got ${algorithm}.`);
  const step = alignment === undefined ? undefined : Number(alignment);
  if (step !== undefined && (!Number.isInteger(step) || step < 4 || Math.log2(step) % 1 !== 0))
    throw new InputProblem(`Expected an alignment that is a power of two from 4; got ${alignment}.`);
  const images = sameLength(files);
  print(findChecksums(images, { ...(checksum && { algorithms: [checksum] }), alignment: step }));
}

/** Dumps to be looked at together. */
function sameLength(files: readonly string[]): Uint8Array[] {
  if (files.length > MOST_IMAGES) throw new InputProblem(`Expected at most ${MOST_IMAGES} dumps; got ${files.length}.`);
  const images = files.map(flatBytes);
  const odd = images.findIndex((i) => i.length !== images[0].length);
  if (odd > 0)
    throw new InputProblem(
      `Expected dumps of one length, ${images[0].length} bytes; ${files[odd]} has ${images[odd].length}.`,
    );
  return images;
}

interface TransplantOptions {
  readonly donor?: string;
  readonly rule?: readonly string[];
  readonly set?: readonly string[];
  readonly position?: string;
  readonly identityReason?: string;
}

const SOURCES: readonly Source[] = ['patient', 'donor', 'copy'];

function transplant(family: ImageFamily, patientFile: string, out: string, options: TransplantOptions): void {
  const { donor: donorFile, rule = [], set = [], position, identityReason } = options;
  const sources = {
    patient: sizedBytes(patientFile, family),
    ...(donorFile && { donor: sizedBytes(donorFile, family) }),
  };
  const slot = position === undefined ? undefined : Number(position);
  const { plan, why, advice } = proposeTransplant(family, sources, { position: slot });
  if (identityReason !== undefined && !(identityReason in IDENTITY_REASONS))
    throw new InputProblem(`Expected ${Object.keys(IDENTITY_REASONS).join(' or ')}; got ${identityReason}.`);
  const asked = {
    ...plan,
    take: { ...plan.take, ...askedRules(family, rule) },
    set: { ...plan.set, ...askedFields(family, set) },
    ...(identityReason && { reason: identityReason as IdentityReason }),
  };
  const merged = mergeImages(family, sources, asked);
  if (!merged.ok) return void complain(merged.problems);
  const { bytes, audit } = merged.value;
  const misplaced = positionConflict(family, sources.patient, bytes, slot);
  if (misplaced) throw new InputProblem(misplaced);
  writeFileSync(out, bytes);
  print({ out, sha256: sha256Hex(bytes), ...judgeImage(family, bytes), advice, why, audit });
}

function askedRules(family: ImageFamily, rules: readonly string[]): Record<string, Source> {
  return Object.fromEntries(
    rules.map((rule) => {
      const [name, source] = rule.split('=');
      if (!family.regions.some((r) => r.name === name) || !SOURCES.includes(source as Source))
        throw new InputProblem(
          `Expected a region (${family.regions.map((r) => r.name).join(', ')}) and ${SOURCES.join(', ')}, as code=donor; got ${rule}.`,
        );
      return [name, source as Source];
    }),
  );
}

function askedFields(family: ImageFamily, sets: readonly string[]): Record<string, number> {
  return Object.fromEntries(
    sets.map((set) => {
      const [name, value] = set.split('=');
      if (!fieldsOf(family).some((f) => f.name === name) || value === undefined || !Number.isInteger(Number(value)))
        throw new InputProblem(
          `Expected a field (${fieldsOf(family)
            .map((f) => f.name)
            .join(', ')}) and a whole number, as position=1; got ${set}.`,
        );
      return [name, Number(value)];
    }),
  );
}

function verify(expectedFile: string, readFile: string): void {
  const [expected, read] = [flatBytes(expectedFile), flatBytes(readFile)];
  if (expected.length !== read.length)
    throw new InputProblem(`Expected ${expected.length} bytes as in ${expectedFile}; ${readFile} has ${read.length}.`);
  const differing = expected.reduce((sum, b, i) => sum + (b === read[i] ? 0 : 1), 0);
  const first = expected.findIndex((b, i) => b !== read[i]);
  if (differing > 0)
    throw new InputProblem(
      `Expected the same bytes; ${differing} differ, the first at ${formatOffset(first)}: ${expectedFile} has ${formatHex(expected[first], 2)}, ${readFile} ${formatHex(read[first], 2)}.`,
    );
  print({ verified: true, bytes: expected.length, sha256: sha256Hex(expected) });
}
