import { useEffect, useRef, type RefObject } from 'react';
import { View } from 'react-native';
import type { FittedView } from '@/core/derive';
import { pictureKey } from '@/core/job';
import { openPicture, repository } from '@/store';
import { usePalette, type Palette } from '@/ui/palette';
import { turned } from './laying';
import { PictureEdges } from './edges';
import { Overlay } from './overlay/overlay';
import { benchTransform } from './overlay/selection';
import { patchOf } from './patch';
import { attachPointing } from './pointing';
import type { PictureLayer } from './picture-layer';
import type { Session } from './session';
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
  useEdges(fitted && hasPicture(fitted) ? pictureKey(fitted.sheet) : undefined, session);
  usePainting(canvas, drawing, palette);

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

/** A plane that is looked at has no picture. */
const hasPicture = ({ sheet }: FittedView) => sheet.bytes > 0;

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
function useEdges(picture: string | undefined, session: Session): void {
  useEffect(() => {
    if (picture) session.setEdges(new PictureEdges(picture, () => openPicture(picture, repository), () => session.aimAgain()));
    return () => session.setEdges(undefined);
  }, [session, picture]);
}

/** What lies behind a picture that lets it through. */
const BACKINGS = { paper: '#ffffff', dark: '#1b1f1a' } as const;

/** Red, green and blue of "#rrggbb", 0 to 1. */
function lightsOf(color: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16) / 255) as [number, number, number];
}

/** One animation frame for the picture and for the group that the drawing hangs on; a new fit lays the picture anew. */
function usePainting(canvas: RefObject<HTMLCanvasElement | null>, drawing: RefObject<SVGGElement | null>, palette: Palette): void {
  const { session, jobs } = useDesk();
  const palettes = useRef(palette);
  useEffect(() => void (palettes.current = palette), [palette]);
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
      const { hash, width, height } = { hash: pictureKey(view.sheet), width: view.sheet.width, height: view.sheet.height };
      const there = hasPicture(view);
      if (there) layer.show({ hash, width, height }, () => openPicture(hash, repository));
      const { look } = view.view;
      const backing = look.backing === undefined || look.backing === 'bench' ? palettes.current.bench : BACKINGS[look.backing];
      layer.setLook({ ...look, invert: look.invert ?? false, ink: look.ink, tint: look.tint && lightsOf(palettes.current[look.tint]), backing: lightsOf(backing) });
      canvas.current!.style.background = backing;
      canvas.current!.style.opacity = String(view.view.look.opacity);
      layer.draw(state.viewport, { patch: patchOf(state), ghost: state.straight ? state.ghost : 0, ghostLaying: turned(view), visible: there && !view.view.hidden });
    };
    const ask = () => void (frame ||= requestAnimationFrame(paint));
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
