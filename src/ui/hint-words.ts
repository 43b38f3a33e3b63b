/** What to do now, one line for each thing that is waited for; of several lines the one for how many places are there, at last the last. */
export const HINTS = {
  'no-picture': 'Bring in a picture of the thing to begin.',
  'only-to-look': 'This picture is kept only to look at.',
  'kind-of-picture': 'Say what kind of picture it is: that decides how far it is trusted.',
  'no-length': 'Choose Length and point at something you know.',
  'no-size': 'Nothing here says a size yet. Point at something whose length you know.',
  'scaled-by-others': 'This view takes its scale from those that it joins. Check it on a size that it shows.',
  'not-checked': 'Check the scale on a second size before you trust it.',
  checked: 'Scaled and checked. Go on to Trace.',
  'read-back': 'The file is read back before it leaves.',
  nothing: '',

  level: ['Point at one end of an edge that is level or upright.', 'Point at its other end.', 'Say how it runs.'],
  'brush-rub': 'Rub over what should go.',
  'brush-fill': 'Draw over where ink is missing.',
  'frame-box': ['Point at one corner of the frame.', 'Point at the corner across.', 'Nudge it, or say what it shows.'],
  'frame-turned': [
    'Point at one end of a side of the frame.',
    'Point at the other end of that side.',
    'Point at the side across.',
    'Nudge it, or say what it shows.',
  ],
  'frame-polygon': [
    'Point around the part that is wanted.',
    'Point around the part that is wanted.',
    'Point around the part that is wanted.',
    'Go on around it, or say what it shows.',
  ],

  'evidence-again': 'Point at the same places again; the marks are hidden, so that they do not lead your hand.',
  'evidence-average': 'Take the average, or nudge.',
  'evidence-check': [
    'Check it: point at one end of a second known size.',
    'Point at its other end.',
    'Type what it should be.',
  ],
  'evidence-length': ['Point at one end of something you know.', 'Point at its other end.', 'Type how long it is.'],
  'evidence-circle': [
    'Point inside something round, and its rim is found. Or point at the rim itself.',
    'Point at the rim again, a third of the way round.',
    'Point at the rim once more.',
    'Type the diameter, or set more points on the rim.',
  ],
  'evidence-rectangle': [
    'Point inside it, and its four sides are found. Or point at two places on the side that is its width.',
    'And the second place on that side.',
    'Now two places on the next side round.',
    'And the second place on that side.',
    'Two places on the third side.',
    'And the second place on that side.',
    'Two places on the last side.',
    'And the second place on that side.',
    'Type what you know of it.',
  ],
  'evidence-box': [
    'Point at two places on what it stands on.',
    'And the second place.',
    'Point at where it reaches furthest on the right.',
    'Point at its highest place.',
    'Point at where it reaches furthest on the left.',
    'Type what you know of its width and height, and what they span.',
  ],
  'evidence-straight': [
    'Tap an edge that is straight in truth: it is followed as far as it goes. Or have one looked for.',
    'Point further along it.',
    'And once more, far along.',
    'Use it, or set more points along it.',
  ],
  'evidence-level': [
    'Point at one end of something level or upright.',
    'Point at its other end.',
    'Type its angle: 0 is level, 90 is upright.',
  ],
  'evidence-parallel': [
    'Point at two places on one line.',
    'And the second place.',
    'Two places on the line beside it.',
    'And the second place.',
    'Use it.',
  ],
  'evidence-square': [
    'Point at two places on one line.',
    'And the second place.',
    'Two places on the line square to it.',
    'And the second place.',
    'Use it.',
  ],
  'evidence-equal': [
    'Point at the ends of one length.',
    'And its other end.',
    'The ends of one that is as long.',
    'And its other end.',
    'Use it.',
  ],
  'evidence-angle': [
    'Point along the first side, from the corner.',
    'And the second place.',
    'Point along the other side, from the corner.',
    'And the second place.',
    'Type the angle between them.',
  ],
  'evidence-known-point': ['Point at a place whose position you know.', 'Type how far across and up it lies.'],
  'point-chosen': 'Point at where it belongs, or nudge it.',
  'choose-mark': 'Point at a mark to see its card; drag its points to correct them.',
  'match-choose': 'Choose what it is laid on.',
  'match-here': 'Point at a place in the picture that is there too.',
  'match-there': 'Point at the same place here.',
  datum: ['Point at the zero.', 'Point along what is level.', ''],

  'side-first': 'Say which side this view shows: that decides what it shares with the others.',
  'share-line': 'Point at a line that other views show too: what it stands on, its middle, its top.',
  'share-place': 'Point at a place that other views show too.',
  'share-line-again': [
    'Point at the same line here.',
    'Point at it once more, far along; then choose another view and point at it there.',
    'Choose another view and point at the same line there, or press Done.',
  ],
  'share-place-again': [
    'Point at the same place here.',
    'Choose another view and point at the same place there, or press Done.',
  ],
  'share-halfway': [
    'Point at one side of what lies halfway.',
    'Point at its other side: it lies halfway between them.',
  ],
  'share-elsewhere': 'This side does not show it. Choose a view that does, or press Done.',
  'curve-first': 'Tap an outline that shows the curve from this side.',
  'curve-elsewhere': 'Choose a view from a neighbouring side, and tap the outline that shows the same curve there.',
  'curve-second': 'Tap the outline that shows the same curve from here.',
  'site-first': 'Set a drawing down on this one, on the card.',
  'site-move': 'Drag the drawing that is set here, or point at a place of it.',
  'site-move-to': 'Point at where that place goes.',
  'site-parallel': 'Point at a straight edge of what is set here.',
  'site-parallel-to': 'Point at the edge that it runs along.',
  'site-distance': 'Point at an edge or a corner of what is set here.',
  'site-distance-to': 'Point at the edge or the corner that it is measured from.',
  'site-along': 'Point at a corner of what is set here.',
  'site-along-to': 'Point at the edge that it is measured along, near the end where that begins.',
  'site-frame': 'Point at the edge that should lie level.',
  'site-keep': 'Point at an edge to keep clear of.',
  'edge-elsewhere': 'Choose the view that it stands on, and tap the edge there.',
  'edge-here': 'Tap the straight edge that it stands on.',
  folded: 'Draw the ring sideways to turn it, or tap a name to work in that view.',
  arrange: 'Point at what several views share, and they stand where they belong.',

  shape: 'Point at what the card asks for; what makes it the shape it is stays true.',
  cut: 'Point at the outline that is cut.',
  stand: 'Point at what the card asks for.',
  region: 'Point at a region to name it.',
  dimension: 'Point at what a size should be read between.',
  opening: 'Point at a wall, or at a door or window.',
  relate: [
    'Point at lines, arcs, circles or corners, then say what is true of them.',
    'Point at more, or say what is true of what is chosen.',
  ],
  'chain-begin': 'Point at where the outline begins, or at an open end to carry it on.',
  'chain-line': 'Point at the next corner, or on the first point to close.',
  'chain-arc': ['Point at a place on the arc, then at its end.', 'Point at where the arc ends.'],
  'chain-tangent': 'Point at where the tangent arc ends.',
  'chain-curve': 'Point along the curve.',
  'circle-found': 'Point inside a hole or a disc.',
  circle: 'Point at the circle.',
  guide: 'Guides are snapped to and never leave in a file.',
  distance: 'Point at two places.',
  angle: 'Point at the corner, then along each side.',
  'handle-moving': 'Point at where the handle goes.',
  'point-moving': 'Point at where the point goes.',
  'draw-first': 'Choose what to draw, then point along the edge.',
  'choose-outline': 'Point at an outline, then at its points.',
} as const satisfies Readonly<Record<string, string | readonly string[]>>;

export type HintCode = keyof typeof HINTS;

/** What is waited for, and for how many places of it are there already. */
export interface Hint {
  readonly code: HintCode;
  readonly at?: number;
}

export function wordsForHint({ code, at = 0 }: Hint): string {
  const words: string | readonly string[] = HINTS[code];
  return typeof words === 'string' ? words : words[Math.min(at, words.length - 1)]!;
}
