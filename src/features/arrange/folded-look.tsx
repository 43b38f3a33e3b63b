import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Pressable, View } from 'react-native';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { NO_INSETS } from '@/bench/viewport';
import { foldedViews, type FoldedView, type Folding } from '@/core/derive';
import { composed, type Affine, type Vec } from '@/core/geometry';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { FoldedInk } from './folded-ink';
import { useShown, useLaidPictures, type SquaredPicture } from './laid-pictures';
import { boundsOfFolded, cssMatrixOf, onScreen, pictureOnScreen, useCloseness } from './look-ways';
import { TipSlider, TurnRing } from './turn-ring';
import { namesOf, type PlacedName } from './view-names';

/** All views together over the bench: their pictures laid out in projection, or folded up around the thing, with what is drawn on them. */
export function FoldedLook({ folding }: { folding: Folding }) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const surface = useRef<HTMLDivElement>(null);
  // What cards leave of the bench.
  const free = useSession(({ viewport }) => viewport.insets) ?? NO_INSETS;
  const size = useSizeOf(surface);
  const { closeness, comeCloser, seeAll } = useCloseness(surface);
  const views = useMemo(() => foldedViews({ job, derived }, folding), [job, derived, folding]);
  const pictures = useLaidPictures(views);
  const toScreen = views.length > 0 ? onScreen(boundsOfFolded(views), size, closeness) : undefined;
  return (
    <div style={{ position: 'absolute', inset: 0, background: palette.bench }}>
      <div
        ref={surface}
        data-testid="folded-look"
        role="group"
        aria-label="All views together"
        style={{ position: 'absolute', left: 0, ...free, overflow: 'hidden', touchAction: 'none' }}>
        {toScreen
          ? views.map((view) => (
              <Picture
                key={view.fitted.source.id}
                view={view}
                picture={pictures.get(view.fitted.source.id)}
                toScreen={toScreen}
              />
            ))
          : null}
        {toScreen ? <FoldedInk folding={folding} views={views} toScreen={toScreen} size={size} /> : <Nothing />}
        {toScreen
          ? namesOf(views, toScreen, size).map(({ view, slip }) => (
              <Name key={view.fitted.source.id} view={view} slip={slip} />
            ))
          : null}
        <TurnRing folding={folding} />
        <TipSlider folding={folding} />
        <View
          style={{
            position: 'absolute',
            right: 8,
            bottom: 8,
            borderRadius: 24,
            backgroundColor: palette.paper,
            borderWidth: 1,
            borderColor: palette.rule,
          }}>
          <RoundButton icon="zoomin" name="Closer" onPress={() => comeCloser(1.5)} />
          <RoundButton icon="zoomout" name="Further" onPress={() => comeCloser(1 / 1.5)} />
          <RoundButton icon="whole" name="All views" onPress={seeAll} />
        </View>
      </div>
    </div>
  );
}

function Nothing() {
  const isHidden = useJob(({ derived }) => derived.arranged.stands.size > 0);
  return (
    <View style={{ padding: 24, maxWidth: 460 }}>
      <Words>
        {isHidden
          ? 'Every view is hidden. Show one of them below, or in Sources.'
          : 'No view stands yet. Say which side each shows, and point at a line that they share; then they lie here in projection.'}
      </Words>
    </View>
  );
}

function Picture({
  view,
  picture,
  toScreen,
}: {
  view: FoldedView;
  picture: SquaredPicture | undefined;
  toScreen: Affine;
}) {
  const image = useShown(picture?.png);
  if (!picture) return null;
  const { frame } = picture;
  return (
    <img
      ref={image}
      data-testid={`folded-picture-${view.fitted.source.name}`}
      alt=""
      draggable={false}
      style={{
        position: 'absolute',
        left: 0,
        top: 0,
        width: frame.width,
        height: frame.height,
        transformOrigin: '0 0',
        transform: cssMatrixOf(pictureOnScreen(frame, composed(toScreen, view.look))),
        opacity: 0.9,
        pointerEvents: 'none',
      }}
    />
  );
}

/** What a view is called, beside its picture: a tap goes on in it. */
function Name({ view: { fitted }, slip: { at, size } }: PlacedName) {
  const palette = usePalette();
  const { session } = useDesk();
  return (
    <View
      style={{
        position: 'absolute',
        left: at[0] - size[0] / 2,
        top: at[1] - size[1] / 2,
      }}>
      <Pressable
        accessibilityRole="button"
        accessibilityLabel={`Work in ${fitted.source.name}`}
        testID={`folded-${fitted.source.name}`}
        onPress={() => session.chooseView(fitted.source.id)}
        style={{
          backgroundColor: palette.paper,
          borderColor: palette.rule,
          borderWidth: 1,
          borderRadius: 12,
          minWidth: size[0],
          minHeight: size[1],
          alignItems: 'center',
          justifyContent: 'center',
        }}>
        <Words lines={1} style={{ fontSize: 13, lineHeight: 18 }}>
          {fitted.source.name}
        </Words>
      </Pressable>
    </View>
  );
}

function useSizeOf(surface: { readonly current: HTMLDivElement | null }): Vec {
  const [size, setSize] = useState<Vec>([800, 500]);
  useLayoutEffect(() => {
    const element = surface.current!;
    const measure = () => setSize([element.clientWidth, element.clientHeight]);
    measure();
    const watching = new ResizeObserver(measure);
    watching.observe(element);
    return () => watching.disconnect();
  }, [surface]);
  return size;
}
