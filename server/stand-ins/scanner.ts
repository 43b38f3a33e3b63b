import { randomUUID } from 'node:crypto';
import express, { Router } from 'express';
import { z } from 'zod';
import { encodeScan } from '../../demo/generator/picture-file';
import { scan } from '../../demo/generator/scan';
import { nestBox } from '../../demo/scenes/nest-box';
import type { Picture } from '../../demo/generator/render';

/** What the stand-in's sheet says of it. Sizes mm; `scaleError`: percent, the most that either way may be off. */
export const SCANNER = {
  name: 'Simulated flatbed scanner',
  dpi: [75, 150, 300],
  area: { width: 297, height: 210 },
  colours: ['colour', 'grey'],
  scaleError: 0.3,
  simulated: true,
} as const;

/** How far this one is really off, and how the sheet lies on it: within its own sheet. */
export const TRUTH = { across: 1.0016, up: 0.9988, askew: 0.8 } as const;

const Wanted = z.object({
  dpi: z.number().refine((dpi) => (SCANNER.dpi as readonly number[]).includes(dpi)),
  colour: z.enum(SCANNER.colours).default('colour'),
  area: z
    .object({ x: z.number().min(0), y: z.number().min(0), width: z.number().min(5), height: z.number().min(5) })
    .optional(),
});
type Wanted = z.infer<typeof Wanted>;

interface Scan {
  readonly began: number;
  readonly lasts: number;
  readonly wanted: Wanted;
  readonly jams: boolean;
}

/** A second for the lamp, and a carriage that is slower the finer it reads. ms. */
const lastsFor = ({ dpi }: Wanted) => 700 + dpi * 6;
const KEPT = 6;

/**
 * A flatbed scanner as far as a program sees it: what it can do, a scan that is asked for and takes its time, a lid that may be open, paper that jams. What lies on
 * the glass comes from the demo's own generator, with dust, a slight turn and the scale error that the sheet of a scanner owns up to.
 *
 * GET /                 what it can do, and its state
 * POST /scans           { dpi, colour?, area? } → 202 { id, seconds }, or 409 { code }
 * GET /scans/:id        { state: 'scanning', share } | { state: 'done', picture, dpi } | { state: 'failed', code }
 * GET /scans/:id/picture
 * POST /hand            { lid?: 'open' | 'closed', jam?: boolean }: what a hand does to the device
 */
export function scanner(now = () => Date.now()): Router {
  const scans = new Map<string, Scan>();
  const hand = { lid: 'closed' as 'open' | 'closed', jam: false };
  const isBusy = () => [...scans.values()].some((one) => !one.jams && now() < one.began + one.lasts);
  const router = Router();
  router.use(express.json({ limit: '4kb' }));
  router.get(
    '/',
    (_request, response) =>
      void response.json({ ...SCANNER, state: hand.lid === 'open' ? 'lid-open' : isBusy() ? 'busy' : 'ready' }),
  );
  router.post('/hand', ({ body }: { body: Partial<typeof hand> | undefined }, response) => {
    if (body?.lid === 'open' || body?.lid === 'closed') hand.lid = body.lid;
    if (typeof body?.jam === 'boolean') hand.jam = body.jam;
    response.json(hand);
  });
  router.post('/scans', ({ body }, response) => {
    const wanted = Wanted.safeParse(body);
    if (!wanted.success) return void response.status(400).json({ code: 'scan-not-possible' });
    if (hand.lid === 'open') return void response.status(409).json({ code: 'scanner-lid-open' });
    if (isBusy()) return void response.status(409).json({ code: 'scanner-busy' });
    const id = randomUUID();
    scans.set(id, { began: now(), lasts: lastsFor(wanted.data), wanted: wanted.data, jams: hand.jam });
    for (const old of [...scans.keys()].slice(0, -KEPT)) scans.delete(old);
    response.status(202).json({ id, seconds: lastsFor(wanted.data) / 1000 });
  });
  router.get('/scans/:id', ({ params }, response) => {
    const one = scans.get(params.id);
    if (!one) return void response.status(404).json({ code: 'scan-gone' });
    const share = (now() - one.began) / one.lasts;
    if (one.jams && share > 0.4) return void response.json({ state: 'failed', code: 'scanner-jam' });
    response.json(
      share < 1
        ? { state: 'scanning', share }
        : { state: 'done', picture: `/service/scanner/scans/${params.id}/picture`, dpi: one.wanted.dpi },
    );
  });
  router.get('/scans/:id/picture', ({ params }, response) => {
    const one = scans.get(params.id);
    if (!one || now() < one.began + one.lasts) return void response.status(404).json({ code: 'scan-gone' });
    response
      .type('image/jpeg')
      .set('Cache-Control', 'no-store')
      .send(Buffer.from(onGlass(one.wanted)));
  });
  return router;
}

/** What lies on the glass: the workshop's drawing of the nest box, as printed true to size, laid on a little askew. */
function onGlass({ dpi, colour, area }: Wanted): Uint8Array {
  const whole = scan(
    { ...nestBox, dpi, stretch: TRUTH.across, stretchUp: TRUTH.up, askew: TRUTH.askew },
    {
      paper: (x, y, width) => {
        const tone = 246 - 9 * (x / width) - 6 * Math.exp(-(((y - 6) / 14) ** 2));
        return colour === 'grey' ? [tone, tone, tone] : [tone, tone * 0.99, tone * 0.955];
      },
      ink: 0.82,
      specks: { count: 260, largest: 0.016 * dpi },
    },
  );
  return encodeScan(area ? cutTo(whole, area, dpi) : whole, dpi, 88);
}

function cutTo({ width, height, data }: Picture, area: NonNullable<Wanted['area']>, dpi: number): Picture {
  const px = (mm: number) => Math.round((mm * dpi) / 25.4);
  const [x, y] = [Math.min(width - 1, px(area.x)), Math.min(height - 1, px(area.y))];
  const [w, h] = [Math.max(1, Math.min(width - x, px(area.width))), Math.max(1, Math.min(height - y, px(area.height)))];
  const cut = new Uint8Array(4 * w * h);
  for (let row = 0; row < h; row++)
    cut.set(data.subarray(4 * ((y + row) * width + x), 4 * ((y + row) * width + x + w)), 4 * row * w);
  return { width: w, height: h, data: cut };
}
