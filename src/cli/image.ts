import type { Command } from 'commander';
import { compareImages, judgeImage, parseImageFamily, sha256Hex } from '../core/image';
import { z } from 'zod';
import { complain, InputProblem, print, readBytes, readJson } from './input';

export function addImageCommands(root: Command): void {
  const image = root.command('image').description('configuration images');
  image
    .command('compare <family.json> <a.bin> <b.bin>')
    .description('judges two raw dumps and compares them region by region')
    .action((familyFile: string, fileA: string, fileB: string) => {
      const parsed = parseImageFamily(readJson(familyFile, z.unknown()));
      const family = parsed.ok ? parsed.value : complain(parsed.problems);
      const [a, b] = [fileA, fileB].map((file) => {
        const bytes = readBytes(file);
        if (bytes.length !== family.sizeBytes)
          throw new InputProblem(
            `${file}: expected ${family.sizeBytes} bytes for ${family.name}; got ${bytes.length}.`,
          );
        return bytes;
      });
      const about = (file: string, bytes: Uint8Array): object => ({
        file,
        sha256: sha256Hex(bytes),
        ...judgeImage(family, bytes),
      });
      const regions = compareImages(family, a, b).map(({ region, differingBytes, words, runs }) => ({
        region: region.name,
        differingBytes,
        words,
        runs,
      }));
      print({ a: about(fileA, a), b: about(fileB, b), regions });
    });
}
