/** Sizes of files for people, in powers of ten as file managers have them. */
import { printNumber } from './units.ts'

export const bytesText = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.max(1, Math.round(bytes / 1000))} kB`
    : bytes < 1e9
      ? `${printNumber(bytes / 1e6, 1)} MB`
      : `${printNumber(bytes / 1e9, 1)} GB`
