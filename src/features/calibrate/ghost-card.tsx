import { useDesk, useSession } from '@/bench/use-session';
import { Card } from '@/ui/card';
import { Slider } from '@/ui/slider';
import { Words } from '@/ui/text';

/** While the picture lies squared up: how much of it as it was taken shows through. */
export function GhostCard() {
  const { session } = useDesk();
  const ghost = useSession((state) => state.ghost);
  return (
    <Card testID="ghost-card">
      <Words quiet>The picture is squared up by the fit. Slide to see it as it was taken.</Words>
      <Slider label="As taken" value={ghost} min={0} max={1} onChange={(share) => session.setGhost(share)} />
    </Card>
  );
}
