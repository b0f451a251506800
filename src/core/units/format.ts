/** Figures as a bench person reads them: three significant digits, the unit set with the figure. */

/** Above this a hand meter shows "OL"; common practice, no source. */
export const OPEN_OHM = 1e6;

function threeDigits(value: number): string {
  const magnitude = Math.abs(value);
  if (magnitude >= 100) return value.toFixed(0);
  if (magnitude >= 10) return value.toFixed(1);
  return value.toFixed(2);
}

/** Resistance in ohms: `0.40 Ω`, `4.70 kΩ`, `open` from {@link OPEN_OHM} up. */
export function formatOhm(ohm: number): string {
  if (ohm >= OPEN_OHM) return 'open';
  if (ohm >= 1000) return `${threeDigits(ohm / 1000)} kΩ`;
  return `${threeDigits(ohm)} Ω`;
}

/** A resistor's printed value, without figures it does not have: `33 kΩ`, `4.7 kΩ`. */
export const formatNominalOhm = (ohm: number): string => (ohm >= 1000 ? `${ohm / 1000} kΩ` : `${ohm} Ω`);

/** Volts to 10 mV: `5.02 V`. */
export const formatVolt = (volts: number): string => `${volts.toFixed(2)} V`;

/** Diode-mode drop to 1 mV: `0.262 V`. */
export const formatDrop = (volts: number): string => `${volts.toFixed(3)} V`;

/** Amps to 10 mA: `0.49 A`. */
export const formatAmp = (amps: number): string => `${amps.toFixed(2)} A`;

/** Whole degrees Celsius: `224 °C`. */
export const formatTempC = (tempC: number): string => `${Math.round(tempC)} °C`;

/** Seconds: `41 s`, from two minutes up `2:05 min`. */
export function formatSeconds(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 120) return `${whole} s`;
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')} min`;
}

/** Minutes of bench work: `40 s` below one minute, else whole minutes. */
export function formatMinutes(minutes: number): string {
  return minutes < 1 ? `${Math.round(minutes * 60)} s` : `${Math.round(minutes)} min`;
}

/** A probability as whole per cent; the ends are never claimed exactly. */
export function formatChance(p: number): string {
  if (p > 0.995) return '> 99 %';
  if (p < 0.005) return '< 1 %';
  return `${Math.round(p * 100)} %`;
}

/** A chance as a count, for sentences: `cures 76 in 100`; the ends are never claimed exactly. */
export const formatInHundred = (p: number): string => `${Math.min(99, Math.max(1, Math.round(p * 100)))} in 100`;

/** Bytes as `256 KiB`, `1.5 MiB`, or `300 bytes`. */
export function formatBytes(bytes: number): string {
  if (bytes >= 1 << 20) return `${trimZeros((bytes / (1 << 20)).toFixed(1))} MiB`;
  if (bytes >= 1024) return `${trimZeros((bytes / 1024).toFixed(1))} KiB`;
  return `${bytes} bytes`;
}

const trimZeros = (text: string): string => text.replace(/\.0$/, '');

/** A flash offset as `0x01F000`. */
export const formatOffset = (offset: number): string => `0x${formatHex(offset, 6)}`;

/** Capital hexadecimal digits, at least so many. */
export const formatHex = (value: number, digits: number): string =>
  value.toString(16).toUpperCase().padStart(digits, '0');
