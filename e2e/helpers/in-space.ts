import { execFileSync } from 'node:child_process';
import { expect, type Desk } from './desk';
import type { Px } from './hand';

/** Brings another view of the job to hand. */
export const lookAt = ({ page }: Desk, name: string): Promise<void> =>
  page.getByRole('button', { name: new RegExp(`^${name}, `) }).click();

/** What Debian's python3-ezdxf says of a DXF in space, or of one layer of it. mm */
export function judgeInSpace(file: string, layer = '') {
  const script = `
import sys, json, ezdxf
from ezdxf import bbox
doc = ezdxf.readfile(sys.argv[1]); audit = doc.audit(); its = [e for e in doc.modelspace() if sys.argv[2] in ('', e.dxf.layer)]; box = bbox.extents(its)
uprights = [e for e in its if e.dxftype() == 'LINE' and (e.dxf.end - e.dxf.start).vec2.magnitude < 1e-9]
print(json.dumps(dict(errors=len(audit.errors) + len(audit.fixes), least=list(box.extmin), size=list(box.size), uprights=len(uprights))))`;
  return JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, file, layer], { encoding: 'utf8' })) as {
    readonly errors: number;
    readonly least: readonly number[];
    readonly size: readonly number[];
    /** How many lines run straight up. */
    readonly uprights: number;
  };
}

/** Hands over what stands in space. */
export async function saveInSpace(desk: Desk): Promise<string> {
  await desk.step('handover');
  await expect(desk.page.getByTestId('space-says')).toHaveText('The file agrees with the job.');
  return desk.download('save-space');
}

/** Draws a line on a level in the view from above that is looked at. */
export async function drawOnLevel(desk: Desk, level: string, from: Px, to: Px): Promise<void> {
  await desk.step('arrange');
  await desk.choose('panel-levels');
  await desk.openCards();
  const card = desk.page.getByTestId(`level-${level}`);
  await card.getByTestId('level-draw').click();
  await expect(card).toContainText('Drawn on');
  await desk.step('trace');
  await desk.choose('tool-line');
  await desk.closeCards();
  await desk.pointAt(from, to);
  await desk.openCards();
  await desk.choose('draw-finish');
}
