import { done, refused, type Result } from '../basics';
import { LONGEST } from './length-parser';

const NUMBER = String.raw`([-+]?\d*[.,]?\d+)`;
const DEGREES = new RegExp(String.raw`^${NUMBER}\s*(?:°|deg|degrees?)?$`);
const RADIANS = new RegExp(String.raw`^${NUMBER}\s*rad$`);
const PERCENT = new RegExp(String.raw`^${NUMBER}\s*%$`);
const RISE = new RegExp(String.raw`^${NUMBER}\s*(?:in|:)\s*${NUMBER}$`);

const toNumber = (text: string | undefined) => Number((text ?? '').replace(',', '.'));

/** Reads an angle or a slope: `45`, `45°`, `12.5 deg`, `0.5 rad`, `8 %`, `3 in 12`, `1:4`. Radians, counter-clockwise. */
export function parseAngle(text: string): Result<number> {
  const source = text.trim().toLowerCase().replace(/−/g, '-');
  if (source === '') return refused('angle-empty');
  const angle = source.length > LONGEST ? undefined : readAngle(source);
  return angle !== undefined && Math.abs(angle) <= MOST_TURNS * 2 * Math.PI
    ? done(angle)
    : refused('angle-not-understood', { text: text.slice(0, LONGEST) });
}

/** More turns than this nobody means. */
const MOST_TURNS = 1000;

function readAngle(source: string): number | undefined {
  const degrees = DEGREES.exec(source);
  if (degrees) return (toNumber(degrees[1]) * Math.PI) / 180;
  const radians = RADIANS.exec(source);
  if (radians) return toNumber(radians[1]);
  const percent = PERCENT.exec(source);
  if (percent) return Math.atan(toNumber(percent[1]) / 100);
  const rise = RISE.exec(source);
  return rise && toNumber(rise[2]) !== 0 ? Math.atan2(toNumber(rise[1]), toNumber(rise[2])) : undefined;
}
