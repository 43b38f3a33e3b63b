import { useEffect, useRef, type RefObject } from 'react';
import { View } from 'react-native';
import { pictureKey } from '@/core/job';
import { openShown, repository, type ShownPicture } from '@/store';
import { usePalette, type Palette } from '@/ui/palette';
import { turned } from './laying';
import { PictureEdges } from './edges';
import { Overlay } from './overlay/overlay';
import { benchTransform } from './overlay/selection';
import { patchOf } from './patch';
import { attachPointing } from './pointing';
import type { PictureLayer } from './picture-layer';
import type { Session } from './session';
import { useShownPicture } from './use-shown-picture';
import { useReferences } from './use-references';
import { useDesk, useFitted } from './use-session';

/** The drawing surface: the picture in WebGL, the drawing in SVG over it, one animation frame for both. */
export function Bench() {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  const surface = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useRef<SVGGElement>(null);

  usePointing(surface, session);
  useReferences();
  const picture = useShownPicture(fitted);
  useEdges(picture, session);
  usePainting(canvas, drawing, palette, picture);

  return (
    <View style={{ flex: 1, minHeight: 0, backgroundColor: palette.bench }}>
      <div
        ref={surface} tabIndex={0} role="application" aria-label={fitted ? `Bench: ${fitted.view.name}. Arrow keys move the aim, Enter sets a point.` : 'Bench'}
        data-testid="bench" style={{ position: 'absolute', inset: 0, overflow: 'hidden', touchAction: 'none', cursor: 'crosshair', userSelect: 'none', outlineOffset: -3 }}
      >
        <canvas ref={canvas} style={{ position: 'absolute', left: 0, top: 0, width: '100%', height: '100%' }} aria-hidden />
        <Overlay drawing={drawing} />
      </div>
    </View>
  );
}

/** Fingers, mouse and keys of the surface go to the session, and so does its size. */
function usePointing(surface: RefObject<HTMLDivElement | null>, session: Session): void {
  useEffect(() => {
    const element = surface.current!;
    const observer = new ResizeObserver(() => session.resize(element.clientWidth, element.clientHeight));
    observer.observe(element);
    const detach = attachPointing(element, session);
    return () => {
      observer.disconnect();
      detach();
    };
  }, [surface, session]);
}

/** The session looks for edges in the picture that is shown. */
function useEdges(picture: ShownPicture | undefined, session: Session): void {
  const shown = useRef(picture);
  useEffect(() => void (shown.current = picture), [picture]);
  const key = picture?.key;
  useEffect(() => {
    if (key) session.setEdges(new PictureEdges(key, () => openShown(shown.current!, repository), () => session.aimAgain()));
    return () => session.setEdges(undefined);
  }, [session, key]);
}

/** What lies behind a picture that lets it through. */
const BACKINGS = { paper: '#ffffff', dark: '#1b1f1a' } as const;

/** Red, green and blue of "#rrggbb", 0 to 1. */
function lightsOf(color: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16) / 255) as [number, number, number];
}

/** One animation frame for the picture and for the group that the drawing hangs on; a new fit lays the picture anew. */
function usePainting(canvas: RefObject<HTMLCanvasElement | null>, drawing: RefObject<SVGGElement | null>, palette: Palette, picture: ShownPicture | undefined): void {
  const { session, jobs } = useDesk();
  const palettes = useRef(palette);
  const shown = useRef(picture);
  const again = useRef(() => undefined as void);
  useEffect(() => {
    palettes.current = palette;
    shown.current = picture;
    again.current();
  }, [palette, picture]);
  useEffect(() => {
    let layer: PictureLayer | undefined;
    let frame = 0;
    let gone = false;
    const paint = () => {
      frame = 0;
      const state = session.getState();
      drawing.current?.setAttribute('transform', benchTransform(state.viewport));
      const view = session.findFitted();
      if (!layer || !view) return;
      // The picture of the view that was looked at before may still be at hand for a moment.
      const picture = shown.current?.source === pictureKey(view.sheet) ? shown.current : undefined;
      const there = picture !== undefined;
      if (picture) layer.show({ hash: picture.key, width: view.sheet.width, height: view.sheet.height }, () => openShown(picture, repository));
      const { look } = view.view;
      const backing = look.backing === undefined || look.backing === 'bench' ? palettes.current.bench : BACKINGS[look.backing];
      layer.setLook({ ...look, invert: look.invert ?? false, ink: look.ink, tint: look.tint && lightsOf(palettes.current[look.tint]), backing: lightsOf(backing) });
      canvas.current!.style.background = backing;
      canvas.current!.style.opacity = String(view.view.look.opacity);
      layer.draw(state.viewport, { patch: patchOf(state), ghost: state.straight ? state.ghost : 0, ghostLaying: turned(view), visible: there && !view.view.hidden });
    };
    const ask = () => void (frame ||= requestAnimationFrame(paint));
    again.current = ask;
    void import('./picture-layer').then(({ PictureLayer: Layer }) => {
      if (gone) return;
      layer = new Layer(canvas.current!, ask);
      ask();
    });
    const stops = [session.store.subscribe(ask), jobs.subscribe(ask)];
    let fit = session.findFitted()?.fit;
    stops.push(jobs.subscribe(() => {
      const now = session.findFitted()?.fit;
      if (now !== fit) session.layAgain();
      fit = now;
    }));
    // Zooming the page changes the device's pixels under the same CSS size.
    window.addEventListener('resize', ask);
    return () => {
      gone = true;
      stops.forEach((stop) => stop());
      window.removeEventListener('resize', ask);
      cancelAnimationFrame(frame);
      layer?.close();
    };
  }, [canvas, drawing, session, jobs]);
}
