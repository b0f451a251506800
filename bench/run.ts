/** Prints figures as ratios between things measured in this one run. */
import { runBundled } from './bundled';
import { benchAllocation } from './allocation/allocation';
import { benchNetlist } from './board/netlist';
import { benchBelief, benchPairs } from './diagnose/belief';
import { benchJobs, benchOptimum } from './diagnose/jobs';
import { benchDiagnosis } from './diagnose/policy';
import { benchWarmSpot } from './diagnose/warm-spot';
import { benchChecksumsInBrowser } from './checksum/browser';
import { benchImagesInBrowser } from './image/browser';
import { benchHeatInBrowser } from './heat/browser';
import { benchBallsInBrowser } from './inspect/browser';
import { benchCaptureInBrowser } from './usb/browser';
import { benchCapture } from './usb/capture';

const asked = process.argv.indexOf('--boards');
const boards = asked > 0 ? Number(process.argv[asked + 1]) : undefined;

runBundled('heat/solver.ts');
runBundled('heat/calibration.ts');
runBundled('heat/planner.ts');
runBundled('inspect/balls.ts');
runBundled('inspect/pads.ts');
runBundled('checksum/find.ts');
runBundled('learned/coverage.ts');
benchCapture();
benchDiagnosis();
benchNetlist();
benchBelief();
benchOptimum();
benchWarmSpot();
await benchAllocation();
await benchJobs(undefined, boards);
await benchPairs();
await benchCaptureInBrowser();
await benchHeatInBrowser();
await benchBallsInBrowser();
await benchChecksumsInBrowser();
await benchImagesInBrowser();
