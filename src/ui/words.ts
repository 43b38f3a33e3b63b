import type { ShapeFault, SnapKind } from '@/core/outline';
import { SCENE_SENTENCES } from './scene-words';

export type Detail = Readonly<Record<string, string | number>>;

const SNAPS: Readonly<Record<SnapKind | 'picture-corner' | 'picture-edge' | 'picture-line', string>> = {
  'picture-corner': 'picture corner',
  'picture-edge': 'picture edge',
  'picture-line': 'line in the picture',
  end: 'end',
  crossing: 'crossing',
  middle: 'middle',
  centre: 'centre',
  outermost: 'outermost point',
  tangent: 'tangent',
  square: 'square to it',
  guide: 'guide',
  nearest: 'on the outline',
  'would-cross': 'would cross',
  'straight-on': 'straight on',
  grid: 'grid',
};

export const wordForSnap = (snap: keyof typeof SNAPS): string => SNAPS[snap];

/** What happened and what to do, for every code that the core, the workers, the store and the tools give. */
const SENTENCES: Readonly<Record<string, (detail: Detail) => string>> = {
  ...SCENE_SENTENCES,
  'candidates-need-scale': () => 'Which of these it is can be told once something else gives the scale.',
  'candidates-not-told': () => 'The rest of the evidence does not tell which of these it is.',
  seeking: () => 'Looking for it in the picture …',
  'rim-not-found': () =>
    'No clear rim was found here. Your tap counts as a first point on it: set more points along the rim.',
  'sides-not-found': () => 'No four clear sides were found around here. Point at two places on each of its four sides.',
  'straight-not-found': () => 'This edge could not be followed by itself. Point at more places along it.',
  'no-straight-left': () => 'No other straight edge stands out in this picture. Tap one that you see.',
  'circle-not-found': () => 'No clear rim was found around here. Draw this one through three points.',
  'length-empty': () => 'Type the length, for example 85.6 mm or 5/16 in.',
  'not-understood': ({ text }) =>
    `“${text}” is not a length that Bryony can read. Try 412 mm, 14", 5/16 in or 1' 4 1/2".`,
  'history-shortened': () =>
    'Some of the last changes to this job can no longer be read on this device. It is shown as far as it can be: check what you did last.',
  'written-too-long': ({ most }) => `That is longer than a size is written. Use ${most} characters at the most.`,
  'length-too-large': () => 'Nothing here may be larger than a thousand kilometres. Check the number and its unit.',
  'number-ambiguous': ({ text }) =>
    `“${text}” can be read two ways. Write it without the comma, or with a point for the decimals.`,
  'number-not-understood': ({ text }) => `“${text}” is not a number that Bryony can read. Check its commas and points.`,
  'number-expected': ({ text }) => `A number is missing before “${text}”.`,
  'written-length-ends-early': () => 'Something is missing at the end. Finish the sum, or take the last sign away.',
  'length-times-length': () => 'Two lengths multiplied make an area. Give a unit to one of them only.',
  'length-divided-by-length': () => 'A length divided by a length is no length. Take one unit away.',
  'divided-by-zero': () => 'Nothing can be divided by zero. Check the number after the stroke.',
  'bracket-not-closed': () => 'A bracket is not closed.',
  'unit-unclear': () => 'Several units are mixed with a bare number. Give every number its unit.',
  'plus-minus-not-positive': () => 'The plus-minus must be larger than zero, or left out.',
  'length-not-positive': () => 'A size must be larger than zero.',
  'ratio-empty': () => 'Write the ratio as it is printed, for example 1:50.',
  'ratio-not-understood': ({ text }) => `“${text}” is not a ratio that Bryony can read. Try 1:50, 2:1 or 1/4" = 1'.`,
  'dots-not-understood': ({ text }) => `“${text}” is no number of dots an inch. Scanners have from 75 to 4800.`,
  'angle-empty': () => 'Type an angle, for example 45 or 3 in 12.',
  'angle-not-understood': ({ text }) => `“${text}” is not an angle that Bryony can read. Try 45, 12.5° or 3 in 12.`,

  'pointed-elsewhere': () => 'That is not where you pointed before. Point at the same places again.',
  'pointed-again': () =>
    'This size was pointed at before. Both pointings are averaged, and their spread shows how steady your hand is.',
  straightened: ({ degrees, plusMinus, way }) =>
    `Turned to the ${way} by ${degrees}° ±${plusMinus}. Undo takes it back.`,
  'already-level': ({ plusMinus }) => `The sheet is level already, within ±${plusMinus}°.`,
  'nothing-level': () => 'Nothing on this sheet tells what is level. Use Level and point along an edge.',
  'one-drawing': () => 'No white space parts the drawings on this sheet. Use Cut out and frame them by hand.',
  'view-cut': ({ name }) => `“${name}” is in the strip of views. Frame the next one, or go on.`,
  'views-cut': ({ count }) => `${count} views are in the strip. Name them under Views.`,
  'sides-not-understood': ({ most }) => `Write a whole number of sides, from 3 to ${most}.`,
  'view-is-locked': ({ name }) => `“${name}” is locked, so that its fit, its zero and its picture stay as they are.`,
  'nothing-to-cut': () => 'There is no outline here to cut. Point at one; locked layers stay out of it.',
  'made-follows': () => 'This outline is made of others and follows them. Change those, or let it go first.',
  'edges-do-not-cut': () =>
    'What you chose to cut by does not cross this outline. Choose others, or cut by whatever crosses.',
  'stretch-nothing': () =>
    'Nothing of what is chosen lies in that box, or the box was moved nowhere. Point at a box around the ends that should move.',
  'aligned-already': () => 'They are lined up already.',
  'row-needs-places': () => 'Sizes in a row are between places: point at corners, ends or circles.',
  'tension-not-understood': () => 'Type a tension from −2 (full) over 0 (as usual) to 1 (straight).',
  'nothing-crosses': () =>
    'Nothing crosses this outline, so there is no end to cut it to. Draw what it should end at, or delete it.',
  'crossed-once': () => 'A closed outline needs two crossings to be cut between. Draw another edge across it.',
  'no-end-here': () => 'This outline has no open end to carry on. Point at one that is open.',
  'split-chains-only': () => 'A circle or an ellipse has no two parts. Cut a stretch of it away instead.',
  'meets-nothing': () => 'Carried on from here, it meets nothing. Draw what it should end at first.',
  'mirror-needs-guide': () => 'Set a guide as the centre line first: it is mirrored about that.',
  'combine-needs-two': () => 'Choose two closed outlines or more first, with Several.',
  'nothing-to-touch': () => 'There is no line, arc or circle here to touch. Point at one.',
  'radius-too-small': () =>
    'No arc of that radius reaches so far: the ends are farther apart than its diameter. Point nearer, or type a larger radius.',
  'type-the-radius': () => 'Type the radius first.',
  'no-line-here': () => 'There is no straight line here. Point at one that is drawn.',
  'no-wall-here': () => 'There is no wall here. Point at a wall; if there is none yet, draw one first.',
  mended: ({ count }) => `${count === 1 ? 'One thing was' : `${count} things were`} mended. Undo takes it back.`,
  'saying-overtaken': () =>
    'The drawing was changed before it was known whether this can hold, so nothing was said. Say it again.',
  'saying-stopped': () =>
    'To find out whether this can hold took more than this device has. Nothing was changed. Say less at once.',
  'mending-overtaken': () => 'The drawing was changed while it was being mended, so nothing was mended. Mend it again.',
  'nothing-mended': () =>
    'Nothing here mends itself: ends that lie apart are joined one by one, where you see that they belong together.',
  'not-mended': () => 'This does not mend itself: look at it and change it by hand.',
  'name-empty': () => 'Write a name.',
  'count-not-understood': ({ most }) => `Write a whole number from 1 to ${most}.`,
  'factor-not-understood': ({ text }) => `“${text}” is not a factor that Bryony can read. Try 1.5 or 80 %.`,
  'view-only-to-look': () =>
    'This picture is kept only to look at, so nothing is drawn or measured on it. To use it, press Measure with it among its cards under Fit.',
  'opening-made': ({ view }) => `It is an opening of that wall in ${String(view)} now: both show the same.`,
  'opening-not-upright': () => 'This view does not stand upright among the others, so no wall lies behind it.',
  'opening-empty': () => 'An opening is closed, and has a width and a height. Choose such an outline.',
  'opening-no-wall': () => 'No straight wall of a plan lies behind all of it. Draw the wall in the plan first.',
  'sent-to-views': ({ name }) =>
    `“${name}” is shared now, under Arrange. It stands in every view that shows it as soon as they stand together; point at it in another view to bring that about.`,
  'gone-with-guide': ({ count }) =>
    `${count === 1 ? 'One outline that was' : `${count} outlines that were`} mirrored about it went with it. Undo brings all of it back.`,
  'nothing-under-it': () => 'Nothing else lies here. Point at a place where several things lie over each other.',
  'nothing-to-relate': () =>
    'There is no line, arc, circle or corner here. Point at one that is drawn; locked layers stay out of it.',
  'points-the-same': () => 'Both points are in the same place. Point at two places that are apart.',
  'points-in-a-line': () => 'Those three points lie in a line, and no circle goes through them. Move one aside.',
  'arc-in-a-line': () => 'Those three points lie in a line, so there is no arc. Move one aside, or draw a line.',
  'tangent-straight-behind': () =>
    'That point lies straight behind the last segment, and no arc gets there. Point elsewhere.',
  'tangent-needs-a-segment': () => 'A tangent arc leans on the segment before it. Draw a line or an arc first.',
  'outline-needs-two-points': () => 'An outline needs at least two points. Set another one, or cancel.',
  'outline-too-short-to-close': () => 'There is too little to close: an outline needs three points, or two and an arc.',
  'point-first': () => 'Set a point first; the typed size goes on from there.',
  'point-the-way': () => 'Point in the direction that the typed length should take.',
  'drawing-nothing-stands': () =>
    'No view stands in space yet. Say under Arrange which side each shows, and point at what they share.',
  'curve-nothing-here': () => 'No outline lies here. Tap one that is drawn in this view.',
  'curve-view-apart': () =>
    'One of its two views does not stand among the others. Point at what they share, and the curve stands too.',
  'curve-of-several-paths': () =>
    'One of its outlines is of several lines. A curve needs one line, end to end, in each view.',
  'curve-empty': () => 'One of its outlines has nothing left of it.',
  'curve-sides-share-nothing': () =>
    'Both outlines are seen from the same side, or from opposite ones: that tells nothing of how deep it lies. Take one of a neighbouring side.',
  'curve-stretches-differ': ({ first, second }) =>
    `One outline goes to and fro ${first} times where the other does ${second} times, so nothing tells what belongs to what. Cut the curve where it turns back, and take it part by part.`,
  'curve-nothing-shared': () =>
    'The two outlines lie beside each other along what both views show: they cannot be one curve. Check what the views share.',
  'curve-steps-in-both': () =>
    'Both outlines step straight aside at one place, so nothing tells how the curve gets across. Cut it there.',
  'site-nothing-here': () => 'Nothing that is set here lies there. Point at an edge or a corner of it.',
  'site-nothing-there': () => 'No straight edge that was drawn here lies there. Draw it first, or point nearer to it.',
  'site-not-straight': () => 'That tells nothing here. Point at a straight edge, or at a corner, as the hint asks.',
  'site-fast': () => 'It stands fast: what is said of it holds it. Change a distance, or take one away, to move it.',
  'setback-twice': () => 'That edge is kept clear of already. Change its distance on its card.',
  'edge-in-itself': () => 'That is the view itself. Choose the view that it stands on, and tap the edge there.',
  'edge-nothing-here': () => 'No outline lies here. Draw the edge that it stands on first, or tap nearer to it.',
  'edge-bent': () => 'A view is flat: it stands on a straight edge of an outline that was drawn, not on a bend.',
  'ends-elsewhere': () => 'That is another view. Choose the one that stands on the edge, and point at both ends there.',
  'ends-not-pointed': () =>
    'The ends of this edge follow from other things and were not pointed at. Choose an edge whose ends you pointed at, or share two places yourself.',
  'share-no-upright': () =>
    'A view on an edge says how far along the edge an upright lies, and no line of the thing runs so in other views. Share a place on it.',
  'edge-apart': () =>
    'Its edge is drawn in a view that shows no side or has no scale, or on its own plane. Say so under Sides and Fit, or choose another edge.',
  'edge-gone': () => 'The edge that it stood on is gone. Choose another one.',
  'edge-short': () => 'Its edge has no length, so nothing tells where it runs. Choose another one.',
  'edge-without-scale': () =>
    'It has no size of its own yet. Point at both ends of its edge in it, and it is as large as that is; or set its scale under Fit.',
  'side-first': () => 'Say first which side this view shows, under Sides: that decides what it shares with the others.',
  'job-not-brought': () =>
    'That job cannot be read here, or is gone. Open it from the first screen to see what is left of it.',
  'by-eye-needs-scale': () =>
    'There is no scale yet. Say a size under Fit first: then things can be stood here at true size.',
  'scale-first': () => 'There is no scale yet, so a typed size has no meaning. Set the scale under Fit first.',
  'guide-first': () => 'Set a guide first; the typed offset stands it aside.',
  'read-only': () =>
    'This job is only shown here, so nothing was changed. The line above the picture says why, and how to go on.',
  'job-open-elsewhere': () => 'That job is open in another window. Do it there, or close it there first.',
  'job-gone': () => 'That job is not on this device any more, or cannot be read.',
  'kept-aside': ({ name }) =>
    `Another window took this job over. What was changed here last is kept as a job of its own: “${name}”.`,
  'left-elsewhere': () =>
    'The other window holds changes that could not be stored. They are still there: save them as a bundle in that window.',
  'thrown-away': () =>
    'This browser has thrown away the jobs that Bryony had stored in it. Browsers do that when their own files are damaged, or the device is nearly full. What you saved as a bundle can be opened here again.',
  'put-back': () =>
    'This browser had thrown away the jobs that Bryony had stored in it, and Bryony has put them back from its second copy. Nothing more is to be done; a bundle of what matters, kept elsewhere, is still wise.',
  'nothing-kept': () =>
    'This browser stores nothing (a private window, perhaps). You can work, but it ends with this window: save your jobs as bundles, under Hand over.',
  'node-needed': () => 'An outline keeps at least two points. Delete the whole outline instead.',

  'reference-in': ({ name, count, layers, left }) =>
    `“${name}”: ${count} lines and curves on ${layers === 1 ? 'one layer' : `${layers} layers`}${left ? `; not line work and left out: ${left}` : ''}. Use Match under Fit to lay a picture on it.`,
  'reference-no-unit': ({ name }) =>
    `“${name}” does not say its unit; millimetres are assumed. Set it on its card if that is wrong.`,
  'reference-empty': ({ name }) => `“${name}” holds no lines or curves that could be used. Nothing was added.`,
  'reference-too-large': ({ name }) =>
    `“${name}” holds more than Bryony takes: a million lines and curves, or 200 MB. Save the part that you need as a file of its own.`,
  'reference-beyond': () =>
    'In that unit it would be larger than a thousand kilometres, or lie farther away. Choose another unit.',
  'drawing-beyond': () =>
    'Something in this drawing lies at no place that a file could hold. Look at Inspect under Trace; what is wrong there is named.',
  'reference-unit': () => 'A unit must be larger than zero.',
  'reference-missing': () => 'The file of some reference geometry is not on this device any more.',
  'dxf-not-understood': ({ name }) =>
    `“${name}” cannot be read as a DXF. It may be damaged, or a binary one: save it as an ordinary (text) DXF.`,
  'svg-not-understood': ({ name }) =>
    `“${name}” cannot be read as an SVG: it is damaged, has no size, or uses entities. Save it again as plain SVG.`,
  'geojson-not-understood': ({ name }) => `“${name}” is not GeoJSON. Export it again as GeoJSON.`,
  'site-too-wide': ({ name }) =>
    `“${name}” reaches over more than a degree: too far to be laid flat. Cut out the part around the site.`,
  'world-file-not-understood': ({ name }) => `“${name}” is not a world file: six numbers are expected.`,
  'world-file-alone': ({ name }) =>
    `“${name}” says where a picture lies, but its picture was not chosen with it. Choose both together.`,
  'map-not-laid': () => 'Where it lies on the map could not be worked out, so it came in without scale.',
  'film-without-picture': ({ name }) => `“${name}” holds sound only: there is no picture to take a still from.`,
  'film-not-played': ({ name }) =>
    `This browser cannot play “${name}”. Save it as MP4 (H.264) or WebM, and choose it again.`,
  'specks-without-scale': () =>
    'Without a scale a length means nothing here. Give the size in pixels, for example 6 px.',
  'specks-size': ({ most }) => `Specks are from 1 to ${most} pixels large.`,
  'cleaning-failed': () => 'The picture could not be cleaned on this device. It is shown as it came in.',
  'service-away': () =>
    'It does not answer. See that it is on and connected, then try again; everything else works meanwhile.',
  'service-slow': () => 'It takes too long to answer. Try again in a while; everything else works meanwhile.',
  'service-nonsense': () =>
    'It answered something that makes no sense. Nothing was taken from it. Try again, or bring the files in by hand.',
  'scanner-lid-open': () => 'The lid of the scanner is open. Close it and scan again.',
  'scanner-jam': () => 'The scanner is jammed and stopped. Clear it and scan again; nothing came in.',
  'scanner-busy': () => 'The scanner is busy with another scan. Wait until it is through.',
  'scan-gone': () => 'The scanner has forgotten that scan. Scan again.',
  'scan-not-possible': () => 'The scanner cannot do that. Choose another resolution.',
  'parcel-unknown': () => 'The register does not know that parcel any more. Search again.',
  'caliper-no-field': () =>
    'The caliper sent a reading, but no field was waiting. Tap into the field for the size, then send it again.',
  'match-choose-first': () => 'Choose what the picture is laid on first.',
  'picture-empty': ({ name }) => `“${name}” is empty: the file holds no bytes. Send or copy it again.`,
  'picture-not-understood': ({ name }) =>
    `“${name}” is not a picture, whatever its name says. Choose a JPEG, PNG, WebP, GIF, BMP, TIFF, HEIC or PDF.`,
  'picture-kind-not-read': ({ name, kind }) =>
    `“${name}” is a ${String(kind).toUpperCase()} file, which Bryony does not read yet. Save it as JPEG or PNG.`,
  'picture-too-small': ({ name, width, height }) =>
    `“${name}” has only ${width} × ${height} pixels: too little to point at. Choose the original picture.`,
  'picture-too-large': ({ name, megapixels, most }) =>
    `“${name}” has ${megapixels} megapixels; Bryony takes up to ${most}. Save it smaller, or cut it in two.`,
  'picture-not-decoded': ({ name }) =>
    `“${name}” begins like a picture but cannot be read. It may be damaged: send or copy it again.`,
  'picture-truncated': () =>
    'The file ends before the picture does, so a part of it may be grey. Ask for it again if you can.',
  'pdf-not-there': ({ name }) =>
    `The part that reads PDF could not be loaded, so “${name}” stays outside. Look at the connection and choose it again.`,
  'pdf-locked': ({ name }) =>
    `“${name}” is locked with a password. Open it where you have the password, print it to a new PDF, and bring that in.`,
  'pdf-damaged': ({ name }) =>
    `“${name}” begins like a PDF but cannot be read. It may be damaged: send or copy it again.`,
  'heic-not-there': ({ name }) =>
    `“${name}” is a HEIC picture, and the part that reads those could not be loaded. Look at the connection, or save it as JPEG.`,
  'picture-ink': () => 'Its colours are printing inks; they are shown as screen colours without a profile.',
  'picture-deep': () => 'It has more than 8 bits a colour; the upper 8 are shown, the file is kept as it is.',
  'picture-profile': () =>
    'Its colour profile is not followed: colours may look a little different. Sizes are the same.',
  'picture-many-pages': () => 'The file has more than 40 pages. The first 40 came in.',
  'picture-animated': () => 'The file holds several frames. The first one was taken.',
  'picture-missing': () =>
    'The picture of this view is not on this device any more. What was drawn on it is still here. Choose the same file again to bring it back.',
  'picture-back': ({ name }) => `“${name}” is back.`,
  'picture-unreadable': () =>
    'What is stored of the picture of this view cannot be read. What was drawn on it is still here. Choose the same file again to bring it back.',
  'picture-not-shown': () => 'The picture of this view could not be shown: the work on it stopped. Nothing was lost.',
  'picture-other': ({ name }) =>
    `“${name}” is another file than the one that was here: its bytes differ. Choose the file as it first came in.`,
  'bundle-without': ({ count }) =>
    `Saved. ${count === 1 ? 'One picture of the job is' : `${count} pictures of the job are`} not on this device any more, so the bundle does not hold ${count === 1 ? 'it' : 'them'}.`,
  'storage-not-read': () => 'The device does not give out what is stored. Nothing was changed. Load the page again.',
  'file-not-readable': ({ name }) => `“${name}” could not be read. Check that it is still there and try again.`,
  'storage-full': () =>
    'This device has no room left for it. Nothing was lost. Delete jobs that you do not need, or save them as bundles first.',
  'storage-failed': () => 'The device would not store it. Nothing was lost. Try again, or save the job as a bundle.',
  'worker-died': () => 'The work was too large for this device and stopped. Nothing was lost. Try a smaller picture.',
  'worker-failed': () =>
    'That work failed, and nothing was changed. Try again; if it fails once more, save the job as a bundle and load the page anew.',
  cancelled: () => 'Stopped. Nothing was changed.',

  'bundle-not-ours': () => 'This file is not a bundle of Bryony. Choose a file that was saved with “Save bundle”.',
  'bundle-damaged': ({ where }) =>
    `This bundle is damaged${where ? ` (${where})` : ''}. Nothing was taken from it. Copy or send it again.`,
  'bundle-newer': () => 'This bundle was saved by a newer Bryony. Bring this one up to date, then open it again.',
  'bundle-too-large': ({ megabytes, most }) =>
    `This bundle would unpack to ${megabytes} MB; Bryony takes up to ${most} MB. Nothing was taken from it.`,
  'job-not-ours': () => 'The job in this bundle cannot be read. Nothing was taken from it.',
  'job-newer': () => 'This job was saved by a newer Bryony. Bring this one up to date, then open it again.',
  'job-damaged': ({ where }) => `The job in this bundle does not hang together (${where}). Nothing was taken from it.`,

  'drawing-without-scale': () =>
    'This view has no scale yet, so a file would have no true size. Set a known length under Fit.',
  'drawing-empty': () => 'Nothing is drawn on the layers that are shown. Trace something first, or show its layer.',
  'scale-undetermined': () =>
    'No scale yet: nothing of what is known says how large it is. Add a length, a circle or a rectangle with its size.',
  'tilt-undetermined': () =>
    'What is known does not settle how the picture is slanted. Add a rectangle, or sizes in two directions well apart.',
  'stretch-undetermined': () =>
    'What is known does not settle whether the copy is stretched. Add a size the other way, or choose One scale.',
  'skew-undetermined': () =>
    'What is known does not settle whether across and upright are square. Add a right angle or a rectangle.',
  'focal-undetermined': () =>
    'A picture taken nearly square-on does not tell the focal length. Choose Slanted without a camera, or leave the model to Bryony.',
  'lens-undetermined': () =>
    'Nothing that is known shows the bow of the lens. Add a straight line near the rim, or take the lens as true.',
  'turn-undetermined': () =>
    'What is known does not settle which way is level. Add a level line or a second known place.',
  'shift-undetermined': () => 'What is known does not settle where zero is. Add a known place.',
  'evidence-undetermined': () =>
    'One of the pieces does not settle its own shape. Set more points on it, further apart.',
  'evidence-contradicts': () =>
    'Relations that must hold exactly contradict each other. Take the last one back, or give it a plus-minus.',
  'fit-not-found': () =>
    'No map was found that brings these pieces together. Look for one that was pointed at wrongly.',
  'evidence-point-unknown': () => 'A piece stands on a point that is gone. Point at it again.',
  'evidence-too-few-points': ({ least }) => `This needs at least ${least} different points. Set more.`,
  'evidence-too-few-lines': () => 'This needs two lines. Point at both.',
  'evidence-points-in-line': () =>
    'All its points lie in a line, so it has no area to tell anything by. Spread them out.',
  'evidence-corners-not-around': () => 'The corners do not run around the shape. Point at them one after the other.',
  'height-needs-camera': () =>
    'A height is only corrected where the model has a camera. Choose What it may suffer from, or Slanted, by a camera.',
  'lens-folds-over': () =>
    'The bow that was found is too strong near the rim of the picture. Add a straight line there, or take the lens as true.',
  'horizon-in-picture': () => 'A part of the picture lies beyond the horizon of the plane; nothing is measured there.',
  'evidence-ends-coincide': () => 'Two of its points are too close together to tell anything. Zoom in and point again.',
  'evidence-length-not-positive': () => 'A known size must be larger than zero.',
  'evidence-not-a-number': () => 'A known size cannot be read. Type it again.',
  'evidence-sigma-not-positive': () => 'A plus-minus must be larger than zero.',
  'not-flat': () =>
    'These pieces do not lie on one plane, and no single one is to blame: the sheet or the board itself is not flat. Press it flat and take the picture again, or measure a length right beside what you trace.',
  'view-missing': () => 'That view is not in the job any more. Choose another one.',
  'combine-open': () => 'Only closed outlines can be combined. Close those that are open first.',
  'combine-unclear': () =>
    'These outlines run too close together to tell what lies where. Move one of them a little and try again.',
  'offset-unclear': () =>
    'Its lines would run too close together to tell what lies where. Change the distance a little.',
  'evidence-disagrees': () =>
    'What is known disagrees by more than its plus-minus. Measure one of the pieces again, or hold one back as a check.',
};

export function sentenceFor(code: string, detail: Detail = {}): string {
  return Object.hasOwn(SENTENCES, code) ? SENTENCES[code]!(detail) : 'That did not work, and nothing was changed.';
}

/** Complete by its type. */
const FAULTS: Readonly<Record<ShapeFault, string>> = {
  'arc-in-a-line': 'an arc whose points lie in a line',
  'tangent-straight-behind': 'a tangent arc that cannot reach its end',
  'place-lost': 'a point that leaned on something deleted',
  'circle-without-size': 'a circle without size',
  'source-lost': 'what it is made of is gone, or has no shape itself',
  'made-without-scale': 'its sizes need a scale',
  'combine-open': 'only closed outlines can be combined',
  'made-unclear': 'its lines run too close together to tell what lies where; change the distance a little',
  'made-nothing': 'nothing is left of it at this size',
  'made-too-many':
    'it would be more than 20,000 lines, arcs and curves, or an offset, a strip or something combined of more than 3,000; make it of fewer',
  'guide-lost': 'its guide is gone',
  'corner-too-large': 'the corner is larger than its sides have room for',
  'corner-on-a-curve': 'corners of curves stay sharp',
  'corner-is-none': 'there is no corner here to finish',
};
export const wordForFault = (fault: ShapeFault): string => FAULTS[fault];
