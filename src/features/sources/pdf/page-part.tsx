import { useRef, useState } from 'react';
import { usePalette } from '@/ui/palette';

/** A part of a page, as shares of its width and height from its upper left corner. */
export interface PagePart {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const LEAST = 0.02;

/** A page to draw a frame on: from one corner to the other, with a finger or a mouse. */
export function PagePartFrame({
  picture,
  part,
  onPart,
}: {
  picture: string;
  part: PagePart | undefined;
  onPart: (part: PagePart | undefined) => void;
}) {
  const palette = usePalette();
  const from = useRef<readonly [number, number]>(undefined);
  const [live, setLive] = useState<PagePart>();
  const placeOf = (event: React.PointerEvent<HTMLElement>): readonly [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const share = (value: number) => Math.min(1, Math.max(0, value));
    return [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)];
  };
  const between = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): PagePart => ({
    x: Math.min(ax, bx),
    y: Math.min(ay, by),
    width: Math.abs(bx - ax),
    height: Math.abs(by - ay),
  });
  const shown = live ?? part;
  return (
    <div
      role="img"
      aria-label="The page; draw a frame around the part that is wanted"
      data-testid="page-part"
      style={{
        position: 'relative',
        overflow: 'hidden',
        display: 'inline-block',
        lineHeight: 0,
        touchAction: 'none',
        cursor: 'crosshair',
        alignSelf: 'center',
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = placeOf(event);
      }}
      onPointerMove={(event) => from.current && setLive(between(from.current, placeOf(event)))}
      onPointerUp={(event) => {
        const framed = from.current && between(from.current, placeOf(event));
        from.current = undefined;
        setLive(undefined);
        onPart(framed && framed.width > LEAST && framed.height > LEAST ? framed : undefined);
      }}>
      <img
        src={picture}
        alt=""
        draggable={false}
        style={{ maxWidth: '100%', maxHeight: '46vh', border: `1px solid ${palette.rule}` }}
      />
      {shown ? (
        <div
          style={{
            position: 'absolute',
            left: `${100 * shown.x}%`,
            top: `${100 * shown.y}%`,
            width: `${100 * shown.width}%`,
            height: `${100 * shown.height}%`,
            outline: `2px solid ${palette.tide}`,
            boxShadow: `0 0 0 9999px ${palette.paper}b0`,
          }}
        />
      ) : null}
    </div>
  );
}
