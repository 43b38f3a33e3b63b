import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import { View } from 'react-native';
import { openShown, repository, type ShownPicture } from '@/store';
import { usePalette, type Palette } from '@/ui/palette';
import { PictureEdges } from './edges';
import { wayBetween } from './look';
import { Overlay } from './overlay/overlay';
import { Painter } from './painter';
import { attachPointing } from './pointing';
import type { Session } from './session';
import { useShownPicture } from './use-shown-picture';
import { useReferences } from './use-references';
import { useDesk, useFitted, useSession } from './use-session';

/** The drawing surface: the picture in WebGL, the drawing in SVG over it, one animation frame for both. */
export function Bench() {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  const surface = useRef<HTMLDivElement>(null);
  const scene = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useRef<SVGGElement>(null);

  usePointing(surface, session);
  useSliding(scene);
  useReferences();
  const picture = useShownPicture(fitted);
  useEdges(picture, session);
  usePainting(canvas, drawing, palette, picture);

  return (
    <View style={{ flex: 1, minHeight: 0, backgroundColor: palette.bench }}>
      <div
        ref={surface}
        tabIndex={0}
        role="application"
        aria-label={fitted ? `Bench: ${fitted.view.name}. Arrow keys move the aim, Enter sets a point.` : 'Bench'}
        data-testid="bench"
        style={{
          position: 'absolute',
          inset: 0,
          overflow: 'hidden',
          touchAction: 'none',
          cursor: 'crosshair',
          userSelect: 'none',
          outlineOffset: -3,
        }}>
        <div ref={scene} style={{ position: 'absolute', inset: 0, transformOrigin: '0 0' }}>
          <canvas
            ref={canvas}
            style={{ position: 'absolute', left: 0, top: 0, width: '100%', height: '100%' }}
            aria-hidden
          />
          <Overlay drawing={drawing} />
        </div>
      </div>
    </View>
  );
}

/** Fingers, mouse and keys of the surface go to the session, and so does its size. */
function usePointing(surface: RefObject<HTMLDivElement | null>, session: Session): void {
  useEffect(() => {
    const element = surface.current!;
    const leave = session.covers.watchBench(element);
    const detach = attachPointing(element, session);
    return () => {
      leave();
      detach();
    };
  }, [surface, session]);
}

const SLIDING_MS = 160;
/** What becomes so much larger or smaller is no longer followed by the eye. */
const MOST_FOLLOWED = 2.5;

/** Where the picture went of its own accord it is seen going; at once where it goes far, or the system asks for less motion. */
function useSliding(scene: RefObject<HTMLDivElement | null>): void {
  const { session } = useDesk();
  const from = useSession((state) => state.slidFrom);
  useLayoutEffect(() => {
    if (!from || matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const { factor, by } = wayBetween(from, session.getState().viewport);
    if (Math.max(factor, 1 / factor) > MOST_FOLLOWED) return;
    const sliding = scene.current!.animate(
      [{ transform: `matrix(${factor}, 0, 0, ${factor}, ${by[0]}, ${by[1]})` }, { transform: 'none' }],
      { duration: SLIDING_MS, easing: 'ease-out' },
    );
    return () => sliding.cancel();
  }, [scene, session, from]);
}

/** The session looks for edges in the picture that is shown. */
function useEdges(picture: ShownPicture | undefined, session: Session): void {
  const shown = useRef(picture);
  useEffect(() => void (shown.current = picture), [picture]);
  const key = picture?.key;
  useEffect(() => {
    if (key)
      session.setEdges(
        new PictureEdges(
          key,
          () => openShown(shown.current!, repository),
          () => session.aimAgain(),
        ),
      );
    return () => session.setEdges(undefined);
  }, [session, key]);
}

/** The picture is painted for as long as the surface is there. */
function usePainting(
  canvas: RefObject<HTMLCanvasElement | null>,
  drawing: RefObject<SVGGElement | null>,
  palette: Palette,
  picture: ShownPicture | undefined,
): void {
  const { session, jobs } = useDesk();
  const painter = useRef<Painter>(undefined);
  const shown = useRef({ palette, picture });
  useEffect(() => {
    const { palette: first, picture: there } = shown.current;
    const made = (painter.current = new Painter(
      { canvas: canvas.current!, findDrawing: () => drawing.current },
      session,
      jobs,
      first,
    ));
    made.show(there, first);
    return () => made.close();
  }, [canvas, drawing, session, jobs]);
  useEffect(() => {
    shown.current = { palette, picture };
    painter.current?.show(picture, palette);
  }, [palette, picture]);
}
