import { truth, type Desk } from './desk';

/** The blade with every kind of segment, from the lower edge round to where it began; its cutting curve through so many places. */
export async function traceBlade(desk: Desk, places: number): Promise<void> {
  const [line, tangent, curve, tip, spine, upper, tail] = truth.blade.strokes;
  await desk.choose('tool-line');
  await desk.pointAt(truth.blade.start.px, line!.to.px);
  await desk.choose('tool-tangent');
  await desk.pointAt(tangent!.to.px);
  await desk.choose('tool-curve');
  for (let i = 1; i <= places; i++) await desk.pointAt(onCurve(tangent!.to.px, curve!, i / places));
  await desk.choose('tool-arc');
  await desk.pointAt(tip!.through!.px, tip!.to.px, spine!.through!.px, spine!.to.px);
  await desk.choose('tool-line');
  await desk.pointAt(upper!.to.px);
  await desk.choose('tool-arc');
  await desk.pointAt(tail!.through!.px);
  await desk.openCards();
  await desk.choose('draw-close');
}

/** A place on the seen cutting curve: the perspective over it is so slight that its control points map as they are. */
function onCurve(
  from: readonly [number, number],
  stroke: (typeof truth.blade.strokes)[number],
  t: number,
): readonly [number, number] {
  const s = 1 - t;
  const at = (k: 0 | 1) =>
    s ** 3 * from[k] + 3 * s * s * t * stroke.out!.px[k] + 3 * s * t * t * stroke.in!.px[k] + t ** 3 * stroke.to.px[k];
  return [at(0), at(1)];
}
