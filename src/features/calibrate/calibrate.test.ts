import { readFileSync } from 'node:fs';
import { createDeriver, pointsOfView } from '@/core/derive';
import type { Job } from '@/core/job';
import { MILLIMETRES } from '@/core/units';
import { outcomeInWords } from './evidence-words';
import { fitInWords, sigmaWithHeight } from './fit-words';
import { readSize } from './said-fields';

function demo(name: string) {
  const job = JSON.parse(readFileSync(`public/demo/${name}.json`, 'utf8')) as Job;
  return [...createDeriver()(job).views.values()][0]!;
}

describe('what the fit says of the demo jobs', () => {
  it('names the stretch of the print the way it was made, across, and the misprinted figure', () => {
    const nestBox = demo('nest-box');
    const truth = JSON.parse(readFileSync('demo/truth/nest-box.json', 'utf8')) as { stretch: number };
    const [, share, way] = /stretched ([\d.]+) % (\w+)/.exec(fitInWords(nestBox, MILLIMETRES).join(' '))!;
    expect(Math.abs(Number(share) / 100 - (truth.stretch - 1))).toBeLessThan(0.002);
    expect(way).toBe('across');
    const wrong = nestBox.view.evidence.find(({ said }) => said.length?.value === 165)!;
    expect(outcomeInWords(wrong, nestBox, MILLIMETRES)).toMatch(
      /^The others make it 17[45]\.\d.* you said 165.*does not belong/,
    );
  });

  it('names the slant, the bow of a straight edge before and after, and the size from the message', () => {
    const slanted = demo('blade-slanted');
    expect(fitInWords(slanted, MILLIMETRES).join(' ')).toMatch(/slanted by 3[456]°/);
    const say = (kind: string) =>
      slanted.view.evidence
        .filter((piece) => piece.kind === kind)
        .map((piece) => outcomeInWords(piece, slanted, MILLIMETRES));
    const [, before, after] = /bow by ([\d.]+) px; after the fit ([\d.]+) px/.exec(say('straight')[1]!)!;
    expect(Number(before)).toBeGreaterThan(3 * Number(after));
    expect(say('length').filter((words) => words.includes('does not belong'))).toHaveLength(1);
  });

  it('takes what lies on the traced face to be as high as that', () => {
    const { view } = demo('blade-slanted');
    const [on] = view.evidence.filter(({ onTraced }) => onTraced);
    const points = pointsOfView(view);
    expect(
      Object.entries(points)
        .filter(([, { height }]) => height === 'traced')
        .map(([id]) => id),
    ).toEqual(on!.groups.flat());
  });
});

describe('a figure that cannot be read', () => {
  const read = (text: string, value: number, sigma: number) => readSize('length', text, MILLIMETRES, { value, sigma });
  it('is the candidate that the rest of the evidence makes of it', () => {
    expect(read('240 or 249 or 210', 248.2, 1)).toMatchObject({ ok: true, value: { value: 249 } });
    expect(read('1 ft or 13 in', 330, 2)).toMatchObject({ ok: true, value: { value: 330.2 } });
  });
  it('stays open where two are as near, nothing gives the scale, or one is no length', () => {
    expect(read('240 or 249', 244, 4)).toMatchObject({ ok: false, code: 'candidates-not-told' });
    expect(readSize('length', '240 or 249', MILLIMETRES)).toMatchObject({ ok: false, code: 'candidates-need-scale' });
    expect(read('240 or shoe', 240, 1).ok).toBe(false);
  });
});

describe('the height that nobody said', () => {
  const open = (lift: number | undefined) => {
    const job = JSON.parse(readFileSync('public/demo/blade-slanted.json', 'utf8')) as Job;
    return [
      ...createDeriver()({
        ...job,
        views: job.views.map((view) => ({
          ...view,
          lift,
          evidence: view.evidence.filter(({ onTraced }) => !onTraced),
        })),
      }).views.values(),
    ][0]!;
  };

  it('is asked for with what it would bring, and what is promised comes', () => {
    const [unsaid, flat] = [open(undefined), open(0)];
    const promised = sigmaWithHeight(unsaid)!;
    expect(promised).toBeLessThan(0.95 * unsaid.sigma!);
    expect(flat.sigma! / promised).toBeGreaterThan(0.8);
    expect(flat.sigma! / promised).toBeLessThan(1.25);
  });

  it('is not asked for once it is said', () => expect(sigmaWithHeight(open(0))).toBeUndefined());
});
