import express, { Router, type Response } from 'express';
import { z } from 'zod';

/** What its sheet says: it is right to this much either way, mm. */
export const CALIPER = { name: 'Simulated caliper', plusMinus: 0.03, resolution: 0.01, simulated: true } as const;

const Hand = z.object({
  mm: z.number().min(0).max(300).optional(),
  unit: z.enum(['mm', 'in']).optional(),
  hold: z.boolean().optional(),
});

/**
 * A digital caliper that sends its readings. A stream of events, each { mm, text, unit, hold, sent }: `sent` when its button was pressed, else the figure on
 * its display just changed. While `hold` is on the display stands still.
 *
 * GET /                 what it is
 * GET /readings         the stream (server-sent events)
 * POST /hand            { mm?, unit?, hold? }: what a hand does with its jaws and its other buttons
 * POST /send            its button
 */
export function caliper(): Router {
  const shown = { mm: 0, unit: 'mm' as 'mm' | 'in', hold: false };
  const listening = new Set<Response>();
  const textOf = () => (shown.unit === 'mm' ? shown.mm.toFixed(2) : (shown.mm / 25.4).toFixed(4));
  const tell = (sent: boolean) => {
    const reading = JSON.stringify({ mm: shown.mm, text: textOf(), unit: shown.unit, hold: shown.hold, sent });
    for (const response of listening) response.write(`event: reading\ndata: ${reading}\n\n`);
  };
  const router = Router();
  router.use(express.json({ limit: '1kb' }));
  router.get('/', (_request, response) => void response.json(CALIPER));
  router.get('/readings', (request, response) => {
    response
      .set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' })
      .flushHeaders();
    listening.add(response);
    tell(false);
    request.on('close', () => void listening.delete(response));
  });
  router.post('/hand', ({ body }, response) => {
    const moved = Hand.safeParse(body);
    if (!moved.success) return void response.status(400).json({ code: 'caliper-not-possible' });
    const { mm, unit, hold } = moved.data;
    if (hold !== undefined) shown.hold = hold;
    if (unit !== undefined) shown.unit = unit;
    if (mm !== undefined && !shown.hold) shown.mm = Math.round(mm / CALIPER.resolution) * CALIPER.resolution;
    tell(false);
    response.json(shown);
  });
  router.post('/send', (_request, response) => {
    tell(true);
    response.status(202).json({ listening: listening.size });
  });
  return router;
}
