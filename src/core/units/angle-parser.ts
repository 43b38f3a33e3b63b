import { done, refused, type Result } from '../basics';

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
  const degrees = DEGREES.exec(source);
  if (degrees) return done((toNumber(degrees[1]) * Math.PI) / 180);
  const radians = RADIANS.exec(source);
  if (radians) return done(toNumber(radians[1]));
  const percent = PERCENT.exec(source);
  if (percent) return done(Math.atan(toNumber(percent[1]) / 100));
  const rise = RISE.exec(source);
  if (rise && toNumber(rise[2]) !== 0) return done(Math.atan2(toNumber(rise[1]), toNumber(rise[2])));
  return refused('angle-not-understood', { text });
}
