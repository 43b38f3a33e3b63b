import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readBundle, writeBundle } from '../src/core/formats';
import { sha256Hex } from '../src/core/pictures';
import { bryony as command } from './bryony';

const folder = mkdtempSync(path.join(tmpdir(), 'bryony-'));
const bundle = path.join(folder, 'blade.bryony.zip');
const photo = new Uint8Array(readFileSync('public/demo/blade.jpg'));
writeFileSync(
  bundle,
  writeBundle({
    job: JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')),
    pictures: new Map([[sha256Hex(photo), photo]]),
  }),
);

/** A command as a program of its own. */
function called(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', ...args], {
    encoding: 'utf8',
  });
  return { status, stdout, stderr };
}

/** The same in this process. */
async function bryony(...args: string[]) {
  const [said, complained]: [string[], string[]] = [[], []];
  const status = await command(args, {
    say: (text) => said.push(`${text}\n`),
    complain: (text) => complained.push(`${text}\n`),
  });
  return { status, stdout: said.join(''), stderr: complained.join('') };
}

describe('the command line', () => {
  it('reports the fit, the check and every figure of a job', async () => {
    const { status, stdout } = await bryony('report', bundle);
    expect(status).toBe(0);
    const report = JSON.parse(stdout);
    expect(report.views[0]).toMatchObject({ scaled: true, warnings: [], checks: [{ id: 'drill', verdict: 'agrees' }] });
    expect(report.outlines).toHaveLength(5);
    expect(report.outlines[3].radius.value).toBeCloseTo(7, 0);
  });

  it('writes a file and reads it back, in inches too', async () => {
    const file = path.join(folder, 'blade.dxf');
    const drawn = await bryony('draw', bundle, file, 'inch');
    expect(JSON.parse(drawn.stdout)).toMatchObject({ unit: 'inch', closed: 5, openEnds: 0, ignored: 0 });
    expect((await bryony('read', file)).stdout).toBe(drawn.stdout);
  });

  it('reports how views stand together, and writes what is drawn on them in space', async () => {
    const scan = readFileSync('public/demo/bench-views.jpg');
    const job = JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8'));
    const [front, side] = job.views;
    // A line along the seat in each of the two.
    const line = (plane: string, from: readonly number[], to: readonly number[]) => ({
      shape: 'chain',
      id: `${plane}-line`,
      layer: 'outline',
      plane,
      closed: false,
      nodes: [from, to].map((at, i) => ({
        id: `${plane}-${i}`,
        place: { kind: 'pointed', at, sigma: 1 },
        smooth: false,
      })),
      segments: [{ kind: 'line' }],
    });
    const seen = (feature: string, view: string) =>
      job.features
        .find(({ id }: { id: string }) => id === feature)
        .seen.filter((each: { view: string }) => each.view === view)
        .map(({ at }: { at: readonly number[] }) => at);
    const [left] = seen('left', front.id);
    const [right] = seen('rightend', front.id).slice(-1);
    const [edge, rear] = [seen('edge', side.id).at(-1), seen('rear', side.id).at(-1)];
    const drawn = path.join(folder, 'bench.bryony.zip');
    writeFileSync(
      drawn,
      writeBundle({
        job: { ...job, outlines: [line(front.plane, left, right), line(side.plane, edge, rear)] },
        pictures: new Map([[sha256Hex(scan), scan]]),
      }),
    );
    const { arranged } = JSON.parse((await bryony('report', drawn)).stdout);
    expect(arranged.stands.map(({ side: shows, joins }: { side: string; joins: boolean }) => [shows, joins])).toEqual([
      ['front', true],
      ['right', true],
      ['top', true],
    ]);
    expect(arranged.shared.find(({ id }: { id: string }) => id === 'seat').up.value).toBeCloseTo(440, -1);
    expect(arranged.sizes.filter(({ suspect }: { suspect: boolean }) => suspect)).toMatchObject([
      { id: 'depth', said: 560 },
    ]);
    const space = await bryony('space', drawn, path.join(folder, 'bench.dxf'));
    expect(space.status).toBe(0);
    const { size, layers } = JSON.parse(space.stdout);
    expect(Math.abs(size[0] - 1500)).toBeLessThan(6);
    expect(Math.abs(size[1] - 580)).toBeLessThan(6);
    expect(layers).toEqual(['Outline (Front)', 'Outline (Side)']);
    expect(await bryony('space', bundle, path.join(folder, 'blade.dxf'))).toMatchObject({
      status: 1,
      stderr: 'drawing-nothing-stands\n',
    });
  });

  it('checks a drawing, finds its regions, and lists its parts, doors and windows', async () => {
    const drawn = path.join(folder, 'drawn.bryony.zip');
    writeFileSync(
      drawn,
      writeBundle({
        job: JSON.parse(readFileSync('public/demo/blade-drawn.json', 'utf8')),
        pictures: new Map([[sha256Hex(photo), photo]]),
      }),
    );
    const [view] = JSON.parse((await bryony('check', drawn)).stdout);
    expect(view.findings).toEqual([]);
    // Four holes and the blade around them.
    expect(view.regions).toHaveLength(5);
    expect(view.regions[0].area).toBeCloseTo(Math.PI * 16, 0);
    const row = (await bryony('parts', drawn)).stdout.split('\r\n')[1]!.split(',');
    expect(row.slice(0, 5)).toEqual(['Pruner blade', '1', '0', 'Tool steel', '3']);
    // As large as the file that is cut.
    const file = JSON.parse((await bryony('draw', drawn, path.join(folder, 'drawn.dxf'))).stdout);
    expect([Number(row[5]), Number(row[7])]).toEqual([expect.closeTo(file.width, 2), expect.closeTo(file.height, 2)]);
    const plan = path.join(folder, 'shed.bryony.zip');
    const scan = readFileSync('public/demo/shed-plan.jpg');
    writeFileSync(
      plan,
      writeBundle({
        job: JSON.parse(readFileSync('public/demo/shed.json', 'utf8')),
        pictures: new Map([[sha256Hex(scan), scan]]),
      }),
    );
    expect((await bryony('openings', plan)).stdout.trim().split('\r\n').slice(1)).toEqual([
      'D1,door,820,2000,,2000,740,1,left,120',
      'W1,window,1400,800,1000,1800,1300,1,,120',
    ]);
  });

  it('mends what mends itself, and says what is left', async () => {
    // With nothing said to be tangent, what was drawn smoothly has kinks; and a circle drawn twice is doubled.
    const job = { ...JSON.parse(readFileSync('public/demo/blade-drawn.json', 'utf8')), relations: [] };
    const [first] = job.outlines.filter(({ shape }: { shape: string }) => shape === 'circle');
    const doubled = path.join(folder, 'doubled.bryony.zip');
    const outlines = [...job.outlines, { ...first, id: 'again' }];
    writeFileSync(doubled, writeBundle({ job: { ...job, outlines }, pictures: new Map([[sha256Hex(photo), photo]]) }));
    const [{ findings }] = JSON.parse((await bryony('check', doubled)).stdout);
    expect(findings).toContainEqual(expect.objectContaining({ kind: 'doubled' }));
    const out = path.join(folder, 'mended.bryony.zip');
    const { mended, left } = JSON.parse((await bryony('mend', doubled, out)).stdout);
    expect([mended, left[0].findings]).toEqual([findings.length, []]);
    const bundle = readBundle(new Uint8Array(readFileSync(out)));
    expect(bundle.ok && bundle.value.job.outlines.length).toBe(job.outlines.length);
    expect(bundle.ok && [...bundle.value.pictures.keys()]).toEqual([sha256Hex(photo)]);
    expect(JSON.parse((await bryony('mend', out, out)).stdout).mended).toBe(0);
  });

  it('solves problems in order, one line each, and says with its status whether all have a fit', async () => {
    const points = { a: [812.4, 1533], b: { at: [2900, 1490], sigma: 0.8 }, c: [1500, 2600], d: [900, 400] };
    const good = {
      name: 'blade',
      image: { width: 4032, height: 3024 },
      points,
      evidence: [
        { id: 'e1', kind: 'length', from: 'a', to: 'b', mm: 240, sigma: 0.2 },
        { id: 'e2', kind: 'length', from: 'c', to: 'd', mm: 259, sigma: 0.2, check: true },
      ],
      ask: {
        lengths: [
          ['a', 'b'],
          ['a', 'c'],
        ],
        points: ['c'],
        adviseWithin: ['a', 'b', 'c'],
      },
    };
    const none = { ...good, name: 'none', evidence: [] };
    const slanted = { ...good, name: 'slanted', model: 'projective' };
    const zero = { ...good, name: 'zero', evidence: [{ ...good.evidence[0], mm: 0 }] };
    const shaky = {
      ...good,
      name: 'shaky',
      points: {
        ...points,
        a: {
          at: [812.4, 1533],
          again: [
            [816, 1530],
            [809, 1537],
          ],
        },
      },
    };
    const nothing = { ...shaky, name: 'nothing', points: { ...shaky.points, a: { ...shaky.points.a, sigma: -1 } } };
    const odd = { ...good, name: 'odd', evidence: [{ ...good.evidence[0], kind: 'hexagon' }] };
    const file = (name: string, content: unknown) => {
      const at = path.join(folder, name);
      writeFileSync(at, typeof content === 'string' ? content : JSON.stringify(content));
      return at;
    };
    const many = await bryony('solve', file('many.json', [good, none, slanted, zero, odd, shaky, nothing, 7]));
    const answers = many.stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(many.status).toBe(1);
    expect(answers.map(({ name, status, code }) => [name, status, code])).toEqual([
      ['blade', 'ok', undefined],
      ['none', 'undetermined', 'scale-undetermined'],
      ['slanted', 'undetermined', 'tilt-undetermined'],
      ['zero', 'refused', 'evidence-length-not-positive'],
      ['odd', 'refused', 'evidence-kind-unknown'],
      ['shaky', 'ok', undefined],
      ['nothing', 'refused', 'point-sigma-not-positive'],
      [undefined, 'refused', 'problem-malformed'],
    ]);
    expect(answers[0]).toMatchObject({
      model: 'camera',
      redundancy: 0,
      varianceFactor: null,
      assumed: ['tilt', 'focal', 'lens', 'lens-centre'],
      evidence: [
        { id: 'e1', normalized: null, smallestDetectableMm: null, suspect: false },
        { id: 'e2', check: true },
      ],
    });
    expect(answers[0].lengths[0].mm).toBeCloseTo(240, 6);
    // The two ends were adjusted with the length: what is left is the length's own doubt.
    expect(answers[0].lengths[0].sigma).toBeCloseTo(0.2, 2);
    // A hand that spreads more than was said widens every point, so that what is asked beside the length is worse known.
    expect(answers[5].lengths[1].sigma).toBeGreaterThan(answers[0].lengths[1].sigma);
    expect(answers[0].advice[0].worstSigmaThen).toBeLessThan(answers[0].advice[0].worstSigmaNow);
    expect((await bryony('solve', file('good.json', good))).status).toBe(0);
    expect((await bryony('solve', file('broken.json', '{'))).status).toBe(2);
    // More than a pipe holds at a time comes out whole.
    const long = called(
      'solve',
      file(
        'long.json',
        Array.from({ length: 600 }, () => good),
      ),
    ).stdout;
    expect(long.length).toBeGreaterThan(150_000);
    expect(
      long
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line)),
    ).toHaveLength(600);
  });

  it('says with its status what went wrong', async () => {
    expect((await bryony('read', path.join(folder, 'nowhere.dxf'))).status).toBe(2);
    expect((await bryony('paint', bundle)).status).toBe(2);
    const wrong = path.join(folder, 'wrong.zip');
    writeFileSync(wrong, 'hello');
    expect(called('report', wrong)).toMatchObject({
      status: 1,
      stderr: expect.stringContaining('bundle-not-ours'),
    });
    expect(await bryony('--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('Exit status') });
  });
});
