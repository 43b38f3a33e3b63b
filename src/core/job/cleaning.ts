import { Amount, z } from '../schema';

const Id = z.string().min(1).max(64);
const Vec = z.tuple([Amount, Amount]).readonly();
const Positive = Amount.positive();

/** A stroke of the brush: where its middle went, sheet px, and how wide it is. */
const Stroke = z.object({ radius: Positive.max(2000), path: z.array(Vec).min(1).max(5000).readonly() }).readonly();
const Step = { id: Id, on: z.boolean() };

/** A step that changes how a picture is seen, never the picture: in their order, each can be switched off. */
export const CleaningStep = z.discriminatedUnion('kind', [
  /** Light and paper made even. */
  z.object({ ...Step, kind: z.literal('even') }).readonly(),
  /** Dark specks no larger than `size` taken away, sheet px. */
  z.object({ ...Step, kind: z.literal('specks'), size: Positive.max(64) }).readonly(),
  /** Covered with the paper around it. */
  z.object({ ...Step, kind: z.literal('rub'), strokes: z.array(Stroke).max(2000).readonly() }).readonly(),
  /** Drawn over in the ink of its surroundings. */
  z.object({ ...Step, kind: z.literal('fill'), strokes: z.array(Stroke).max(2000).readonly() }).readonly(),
]);

export type CleaningStep = z.infer<typeof CleaningStep>;
export type BrushStroke = z.infer<typeof Stroke>;
