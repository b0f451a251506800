import type { Command } from 'commander';
import { FORMATS, jsonSchemaOf } from './formats';
import { InputProblem, print } from './input';

export function addSchemaCommand(root: Command): void {
  root
    .command('schema <name>')
    .description(`the JSON Schema of a format: ${Object.keys(FORMATS).join(', ')}`)
    .action((name: string) => {
      if (!Object.hasOwn(FORMATS, name))
        throw new InputProblem(`Expected one of ${Object.keys(FORMATS).join(', ')}; got "${name}".`);
      print(jsonSchemaOf(name as keyof typeof FORMATS));
    });
}
