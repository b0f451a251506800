/** Prints figures as ratios between things measured in this one run. */
import { benchDiagnosis } from './diagnose/policy';
import { benchHeatVersusC } from './heat/versus-c';
import { benchCaptureInBrowser } from './usb/browser';
import { benchCapture } from './usb/capture';

benchHeatVersusC();
benchCapture();
benchDiagnosis();
await benchCaptureInBrowser();
