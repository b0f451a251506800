export { E_SERIES, E_TOLERANCE, resistorsBetween, type ESeries } from './e-series';
export {
  formatAmp,
  formatBytes,
  formatChance,
  formatDrop,
  formatHex,
  formatInHundred,
  formatMinutes,
  formatNominalOhm,
  formatOffset,
  formatOhm,
  formatSeconds,
  formatTempC,
  formatVolt,
} from './format';
export { parseFigure } from './parse';
export { parseSizeMm } from './size';
export { dayIn, isLocale, isoDayIn, isTimeZone, momentIn, moneyIn, NOWHERE, type BenchPlace } from './place';
