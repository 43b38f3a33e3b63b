import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sha256Hex, writeBundle } from '../src/core/formats';

const folder = mkdtempSync(path.join(tmpdir(), 'bryony-'));
const bundle = path.join(folder, 'blade.bryony.zip');
const photo = new Uint8Array(readFileSync('public/demo/blade.jpg'));
writeFileSync(bundle, writeBundle({ job: JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')), pictures: new Map([[sha256Hex(photo), photo]]) }));

function bryony(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', ...args], { encoding: 'utf8' });
  return { status, stdout, stderr };
}

describe('the command line', () => {
  it('reports the fit, the check and every figure of a job', () => {
    const { status, stdout } = bryony('report', bundle);
    expect(status).toBe(0);
    const report = JSON.parse(stdout);
    expect(report.views[0]).toMatchObject({ scaled: true, warnings: [], checks: [{ id: 'card-height', verdict: 'agrees' }] });
    expect(report.outlines).toHaveLength(5);
    expect(report.outlines[3].radius.value).toBeCloseTo(7, 0);
  });

  it('writes a file and reads it back, in inches too', () => {
    const file = path.join(folder, 'blade.dxf');
    const drawn = bryony('draw', bundle, file, 'inch');
    expect(JSON.parse(drawn.stdout)).toMatchObject({ unit: 'inch', closed: 5, openEnds: 0, ignored: 0 });
    expect(bryony('read', file).stdout).toBe(drawn.stdout);
  });

  it('says with its status what went wrong', () => {
    expect(bryony('read', path.join(folder, 'nowhere.dxf')).status).toBe(2);
    expect(bryony('paint', bundle).status).toBe(2);
    const wrong = path.join(folder, 'wrong.zip');
    writeFileSync(wrong, 'hello');
    expect(bryony('report', wrong)).toMatchObject({ status: 1, stderr: expect.stringContaining('bundle-not-ours') });
    expect(bryony('--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('Exit status') });
  });
});
