import { runBundled } from './bundled';
runBundled('inspect/balls.ts');
