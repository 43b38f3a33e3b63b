/** Our own icons: strokes on a 24 × 24 field, round ends, drawn for this bench. */
const PATHS = {
  arrange: 'M4 13h8v7H4zM4 4h8v7M14 13h6v7h-6zM4 4v7M12 16.5h2M8 11v2',
  fold: 'M4 20V8l7-4v12zM11 16l9 4V9l-9-5M4 20l7-4',
  base: 'M3 18h18M6 18V7h5v11M14 18v-6h4v6',
  share: 'M3 12h4M10 12h4M17 12h4M5 9v6M19 9v6',
  sides: 'M4 9h10v11H4zM4 9l6-5h10v11l-6 5M14 9l6-5',
  back: 'M14 5l-7 7l7 7',
  undo: 'M8 5L4 9l4 4M4 9h9a6 6 0 010 12h-4',
  redo: 'M16 5l4 4l-4 4M20 9h-9a6 6 0 000 12h4',
  more: 'M5 12h.01M12 12h.01M19 12h.01',
  up: 'M12 19V5M6 11l6-6l6 6',
  down: 'M12 5v14M6 13l6 6l6-6',
  left: 'M19 12H5M11 6l-6 6l6 6',
  right: 'M5 12h14M13 6l6 6l-6 6',
  plus: 'M12 5v14M5 12h14',
  minus: 'M5 12h14',
  close: 'M6 6l12 12M18 6L6 18',
  tick: 'M5 13l4 4L19 7',
  picture: 'M4 5h16v14H4zM4 16l5-5l4 4l3-3l4 4',
  trash: 'M5 7h14M10 7V4h4v3M7 7l1 13h8l1-13',
  lock: 'M6 11h12v9H6zM8 11V8a4 4 0 018 0v3',
  unlock: 'M6 11h12v9H6zM8 11V8a4 4 0 017-2.6',
  eye: 'M3 12c3-5 6-7 9-7s6 2 9 7c-3 5-6 7-9 7s-6-2-9-7zM12 9.5v5M9.5 12h5',
  hide: 'M3 12c2 3.5 5 5.5 9 5.5s7-2 9-5.5M6 16l-2 2.5M12 17.5v3M18 16l2 2.5',
  length: 'M4 8v8M20 8v8M4 12h16M2.5 17.5l3-3M18.5 17.5l3-3',
  check: 'M4 7v10M20 7v10M4 12h3M9 12h2M13 12h2M17 12h3M8 19l2.5 2.5L16 17',
  level: 'M3 17h18M6 17v-3M18 17v-3M12 4v9',
  rectangle: 'M4 7h16v10H4zM2 7h2M4 5v2',
  straight: 'M3 17L21 7M6 17.5v.01M12 14.2v.01M18 10.9v.01',
  parallel: 'M4 18L14 4M10 20L20 6',
  square: 'M5 5v14h14M5 14h5v5',
  equal: 'M4 8h16M4 16h16M9 6v4M15 6v4M9 14v4M15 14v4',
  angle: 'M20 19H4L16 5M11 19a8 8 0 00-2-5.6',
  box: 'M3 20h18M5 20V6h14v14M12 6v.01M5 12v.01M19 15v.01M9 20c-1-5 1-9 4-9s4 4 2 9',
  cut: 'M4 4h11v11H4zM15 9h5v11H9v-5M12 12l3 3',
  crop: 'M7 3v14h14M3 7h14v14',
  seek: 'M4 4h6v6H4zM14 4h6v4h-6zM4 14h4v6H4zM13 13a4 4 0 100 6a4 4 0 100-6M16.5 18.5L20 21',
  wand: 'M4 18h16M6 14l12-4M5 10l14 4',
  turnleft: 'M9 4L5 8l4 4M5 8h8a6 6 0 016 6v6',
  turnright: 'M15 4l4 4l-4 4M19 8h-8a6 6 0 00-6 6v6',
  mirror: 'M12 3v3M12 9v3M12 15v3M12 20v1M9 7L4 17h5zM15 7l5 10h-5z',
  match: 'M4 5h8v8H4zM12 11h8v8h-8zM4 5l8 6M8 9h.01M16 15h.01',
  clean: 'M4 19h9M14 4l6 6l-7 7H8l-4-4zM10 8l6 6',
  ask: 'M4 5h16v11H10l-4 4v-4H4zM8 9h8M8 12h5',
  scan: 'M3 15h18v4H3zM3 15L17 6M6 12h12',
  dots: 'M4 18h16M5 18v-3M9 18v-2M13 18v-3M17 18v-2M6 6v.01M11 6v.01M16 6v.01M6 10v.01M11 10v.01M16 10v.01',
  upright: 'M4 20h16V8H4zM4 8l4-4h14l-2 4M10 12h4M10 16h4',
  levels: 'M3 19h18M3 12h13M3 5h13M19 8v8M17 10l2-2l2 2',
  byeye: 'M5 20V7h6v13M3 20h18M14 13h5v3h-5M14 7v13M19 16v4M9 13v1',
  site: 'M3 6l8-2l10 5l-3 11l-13-1zM9 11l6 1l-1 4l-6-1z',
  halfway: 'M4 4v16M20 4v16M12 4v4M12 10v4M12 16v4',
  place: 'M12 4v16M4 12h16M12 8a4 4 0 100 8a4 4 0 100-8',
  shelf: 'M3 19h18M5 19V9h4v10M11 19a4 4 0 018 0M3 5h18',
  map: 'M4 12c2-5 6-8 10-7s7 5 5 9s-7 6-11 4s-5-4-4-6zM9 12c1-2 3-3 4.5-2.5s2 2 1 3.5s-3 2-4 1.5s-2-1.5-1.5-2.5z',
  lens: 'M4 4h16v16H4zM7 4c3 5 3 11 0 16M17 4c-3 5-3 11 0 16',
  look: 'M4 7h9M17 7h3M15 4v6M4 17h3M11 17h9M9 14v6',
  height: 'M4 20h16M7 20V9h10v11M12 7V3M10 5l2-2l2 2',
  select: 'M6 4l4.5 15l2.5-6l6-2z',
  line: 'M5 19L19 5M3.5 17.5h3v3h-3zM17.5 3.5h3v3h-3z',
  arc: 'M4 18A14 14 0 0120 18M3 17h2v2H3zM19 17h2v2h-2zM11 12h2v2h-2z',
  tangent: 'M3 19h8a8 8 0 008-8V5M10 18h2v2h-2z',
  curve: 'M3 18c4-14 8 6 11-4s4-9 7-9M3 18h.01',
  circle: 'M12 4a8 8 0 100 16a8 8 0 100-16M12 11v2M11 12h2',
  guide: 'M3 16L21 8M3 16l2-1M8 13.8l2-1M14 11.2l2-1',
  wall: 'M3 20V8h18M3 8v12M7 20v-8h14M10 20v-4M10 12V8M16 12V8',
  offset: 'M4 20V9a5 5 0 015-5h11M9 20v-8a3 3 0 013-3h8',
  strip: 'M3 17l8-10h10M6 20l8-9h7M3 17l3 3M21 7v4',
  halves: 'M12 3v3M12 9v3M12 15v3M12 21v.01M9 6L3 18h6zM15 6l6 12h-6z',
  rows: 'M4 4h4v4H4zM10 4h4v4h-4zM16 4h4v4h-4zM4 13h4v4H4zM10 13h4v4h-4zM16 13h4v4h-4z',
  around: 'M12 12v.01M10 3h4v4h-4zM18 9h3v4h-3zM15 17h4v4h-4zM5 17h4v4H5zM3 9h3v4H3z',
  combine: 'M9 4a6 6 0 100 12a6 6 0 100-12M15 8a6 6 0 11-5 9.5',
  stretch: 'M12 6H4v12h8M14 6v.01M14 18v.01M17 6h3v12h-3M11 12h6M14.5 9.5L17 12l-2.5 2.5',
  turn: 'M4 20h9M4 20L16 8M12.5 12a6 6 0 012.5 5M13 15l2 2.5l2.5-2',
  resize: 'M4 20h7v-7H4zM4 9V4h16v16h-5M13 11l4-4M13.5 7H17v3.5',
  trim: 'M4 12h5M15 12h5M11 12h.01M13 12h.01M9 4v16M15 4v16',
  region: 'M5 6l8-2l6 7l-4 8l-10-2zM9 9v.01M13 8v.01M9 13v.01M13 12v.01M12 15v.01',
  ellipse: 'M12 6a9 6 0 100 12a9 6 0 100-12M12 11v2M11 12h2',
  relate: 'M3 8h8M13 16h8M12 4a4 4 0 010 8a4 4 0 000 8',
  measure: 'M4 15L15 4l5 5L9 20zM8 11l2 2M11 8l3 3M14 5l2 2',
  layers: 'M12 4l9 5l-9 5l-9-5zM3 14l9 5l9-5',
  inspect: 'M4 6h10M4 12h7M4 18h5M14 16l2.5 2.5L21 13',
  file: 'M6 3h8l4 4v14H6zM14 3v4h4M9 13h6M9 17h6',
  bundle: 'M4 8l8-4l8 4v9l-8 4l-8-4zM4 8l8 4l8-4M12 12v9',
  copy: 'M8 8h12v12H8zM16 8V4H4v12h4',
  pencil: 'M5 19l1-4L16 5l3 3L9 18zM14 7l3 3',
  zoomin: 'M10.5 4a6.5 6.5 0 100 13a6.5 6.5 0 100-13M15.5 15.5L21 21M7.5 10.5h6M10.5 7.5v6',
  zoomout: 'M10.5 4a6.5 6.5 0 100 13a6.5 6.5 0 100-13M15.5 15.5L21 21M7.5 10.5h6',
  whole: 'M4 9V4h5M20 9V4h-5M4 15v5h5M20 15v5h-5',
  magnet: 'M6 4v8a6 6 0 0012 0V4M6 8h4M14 8h4M10 4v8a2 2 0 004 0V4',
  loop: 'M6 7h9a4 4 0 014 4v2a4 4 0 01-4 4H6M9 4L6 7l3 3M6 13h.01',
  stepback: 'M18 6L9 12l9 6M6 6v12',
  camera: 'M4 8h4l2-3h4l2 3h4v11H4zM12 10a3.5 3.5 0 100 7a3.5 3.5 0 100-7',
  sources: 'M4 6h12v12H4zM8 3h12v12',
  fit: 'M4 20L20 4M4 20v-5M4 20h5M9 15l2 2M12 12l2 2M15 9l2 2',
  trace: 'M4 18C8 6 12 20 20 6M3 17h2v2H3zM19 5h2v2h-2z',
  handover: 'M12 3v12M7 10l5 5l5-5M4 20h16',
  warn: 'M12 4l9 16H3zM12 10v5M12 17.5v.01',
} as const;

export type IconName = keyof typeof PATHS;

export function Icon({ name, color, size = 22 }: { name: IconName; color: string; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke={color}
      strokeWidth={1.8}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden>
      <path d={PATHS[name]} />
    </svg>
  );
}

export function isIconName(name: unknown): name is IconName {
  return typeof name === 'string' && Object.hasOwn(PATHS, name);
}
