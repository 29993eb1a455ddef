/** Lines, and pixels within a line, that one code can stand for (PWG 5102.4, 4.4). */
const MOST_LINES = 256;
const MOST_REPEATED = 128;
const MOST_PLAIN = 128;

/** At most so much of what is packed is larger than it was: a code a pixel, and one a line. */
const mostPacked = (bytesPerLine: number, height: number): number => (bytesPerLine * 2 + 2) * height;

/**
 * Packs a page (PWG 5102.4, 4.4): of each line how often it comes, then pixels that repeat, or stand for themselves.
 *
 * @param unit bytes of a pixel
 */
export function pack(lines: Uint8Array, bytesPerLine: number, unit: number): Uint8Array {
  const height = lines.length / bytesPerLine;
  const out = new Uint8Array(mostPacked(bytesPerLine, height));
  let put = 0;
  for (let line = 0; line < height;) {
    const start = line * bytesPerLine;
    let times = 1;
    while (
      times < MOST_LINES &&
      line + times < height &&
      isSame(lines, start, start + times * bytesPerLine, bytesPerLine)
    )
      times += 1;
    out[put++] = times - 1;
    put = packLine(lines.subarray(start, start + bytesPerLine), unit, out, put);
    line += times;
  }
  return out.subarray(0, put);
}

function packLine(line: Uint8Array, unit: number, out: Uint8Array, from: number): number {
  let put = from;
  for (let at = 0; at < line.length;) {
    const run = repeatedFrom(line, at, unit);
    if (run > 1 || at + unit >= line.length) {
      out[put++] = run - 1;
      out.set(line.subarray(at, at + unit), put);
      put += unit;
      at += run * unit;
      continue;
    }
    let plain = 1;
    while (
      plain < MOST_PLAIN &&
      at + plain * unit < line.length &&
      repeatedFrom(line, at + plain * unit, unit, 2) === 1
    )
      plain += 1;
    // A single one is a run of one: the codes for what stands for itself begin at two.
    out[put++] = plain === 1 ? 0 : 257 - plain;
    out.set(line.subarray(at, at + plain * unit), put);
    put += plain * unit;
    at += plain * unit;
  }
  return put;
}

/** How often a pixel stands there in a row. */
function repeatedFrom(line: Uint8Array, at: number, unit: number, most = MOST_REPEATED): number {
  let run = 1;
  while (run < most && at + (run + 1) * unit <= line.length && isSame(line, at, at + run * unit, unit)) run += 1;
  return run;
}

function isSame(bytes: Uint8Array, one: number, other: number, length: number): boolean {
  for (let at = 0; at < length; at += 1) if (bytes[one + at] !== bytes[other + at]) return false;
  return true;
}
