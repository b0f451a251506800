export {
  OPEN_OHM,
  formatAmp,
  formatBytes,
  formatChance,
  formatDrop,
  formatInHundred,
  formatMinutes,
  formatOffset,
  formatOhm,
  formatSeconds,
  formatTempC,
  formatVolt,
} from './format';
export { parseFigure } from './parse';
