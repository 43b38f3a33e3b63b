import type { Pose, Vec3 } from '../space';
import { unscaledAdjustment, type Adjustment } from './adjustment';
import { thenOnPlane } from './sheet-map';

/**
 * What is known of a picture, for a view that looks at it from the other side: on its plane left and right are exchanged, in the axes of the evidence. The numbers, and their doubts, stay one and
 * the same for both sides, so that whoever counts doubts counts them once.
 */
export function fromOtherSide(adjustment: Adjustment): Adjustment {
  const { mapAt, points } = adjustment;
  const picture = { ...adjustment.picture, mirrored: !adjustment.picture.mirrored };
  if (!adjustment.scaled) return unscaledAdjustment({ picture, points });
  return {
    ...adjustment,
    picture,
    // What stands at a pose is said in the pose's own axes, whoever looks at it.
    mapAt: (values, pose) =>
      pose ? mapAt(values, exchanged(pose)) : thenOnPlane(mapAt(values), [-1, 0, 0, 0, 1, 0, 0, 0, 1]),
  };
}

const exchanged = ({ origin, x, y }: Pose): Pose => ({ origin: ofOther(origin), x: ofOther(x), y: ofOther(y) });
const ofOther = ([x, y, z]: Vec3): Vec3 => [-x, y, z];
