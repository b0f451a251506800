/** Prints figures as ratios between things measured in this one run. */
import { benchNetlist } from './board/netlist';
import { benchBelief, benchJobs, benchPairs } from './diagnose/belief';
import { benchDiagnosis } from './diagnose/policy';
import { benchHeatVersusC } from './heat/versus-c';
import { benchCaptureInBrowser } from './usb/browser';
import { benchCapture } from './usb/capture';

benchHeatVersusC();
benchCapture();
benchDiagnosis();
benchNetlist();
benchBelief();
benchJobs();
await benchPairs();
await benchCaptureInBrowser();
