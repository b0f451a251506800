export { fullPattern, neighbourPairs, patternWithout, sitesOf, type Site, type SitePattern } from './pattern';
export { balledPart, type BalledPart } from './part';
export { fitHomography, inverse, mapPoint, scaled, type Homography, type Point } from './homography';
export { extentOf, gapsOf, sitePads, type PadGap, type SitePad } from './pads';
