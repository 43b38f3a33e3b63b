/** Renders the demo scenes: the pictures into public/demo, the truth beside them into demo/truth. Run: npm run pictures (--truth writes the truth alone) */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encodePhoto, encodePicture, encodeScan } from './generator/picture-file';
import { render, type Picture, type Scene } from './generator/render';
import { encodeDxf } from './generator/dxf-file';
import { encodePdf } from './generator/pdf-file';
import { byHand, scan, strokesOf, type Drawing } from './generator/scan';
import {
  benchDetails,
  benchSet,
  benchViews,
  dustyFold,
  SHED,
  SHED_LINES,
  SHED_SWING,
  wrappingPaper,
} from './scenes/bench-set';
import { canScenes } from './scenes/can';
import { onSketch, POND, SKETCH_LINES, waterStained } from './scenes/pond';
import { scene as blade } from './scenes/blade';
import { nestBox } from './scenes/nest-box';
import { slanted } from './scenes/slanted';
import { hanger, shedPlan } from './scenes/drawn';
import { glasshousePlan } from './scenes/glasshouse';
import { glasshouseBack, glasshouseRight, glasshouseSides } from './scenes/glasshouse-elevations';
import { ORCHARD, paintAerial } from './scenes/orchard';
import { trowelViews } from './scenes/trowel';
import { truthOf, truthOfDrawn, truthOfNestBox } from './truth';

const wanted = process.argv.slice(2).filter((argument) => !argument.startsWith('--'));
const isWanted = ({ name }: { readonly name: string }) => wanted.length === 0 || wanted.includes(name);
const write = (name: string, truth: unknown, picture: () => Uint8Array) => {
  writeFileSync(`demo/truth/${name}.json`, `${JSON.stringify(truth, null, 1)}\n`);
  if (process.argv.includes('--truth')) return;
  const bytes = picture();
  writeFileSync(`public/demo/${name}.jpg`, bytes);
  console.log(`${name}.jpg: ${(bytes.length / 1e6).toFixed(2)} MB`);
};
const photo = (scene: Scene, focalMm: number, time: string) =>
  encodePhoto(render(scene), { camera: 'pocket camera', focalMm, focal35mm: scene.camera.focal35mm, time }, 82);

mkdirSync('public/demo', { recursive: true });
mkdirSync('demo/truth', { recursive: true });
if (isWanted(nestBox)) write(nestBox.name, truthOfNestBox(nestBox), () => encodeScan(scan(nestBox), nestBox.dpi, 85));
if (isWanted(blade)) write(blade.name, truthOf(blade), () => photo(blade, 9.2, '2026:05:14 10:21:30'));
if (isWanted(slanted)) write(slanted.name, truthOf(slanted), () => photo(slanted, 4.8, '2026:05:14 10:24:10'));

/** Files without a truth of their own beside them: their scenes say what is on them. */
const put = (file: string, content: () => Uint8Array | string) => {
  if (process.argv.includes('--truth') || !isWanted({ name: file.split('.')[0]! })) return;
  const bytes = content();
  writeFileSync(`public/demo/${file}`, bytes);
  console.log(`${file}: ${(bytes.length / 1e6).toFixed(2)} MB`);
};
const onPaper = ({ place, ratio }: Drawing, [x, y]: readonly [number, number]) =>
  [place[0] + x * ratio, place[1] + y * ratio] as const;

put('bench.pdf', () => {
  const details = scan(benchDetails, dustyFold);
  return encodePdf([
    {
      paper: benchSet.paper,
      strokes: strokesOf(benchSet).map(({ from, to, mm }) => ({
        from: onPaper(benchSet, from),
        to: onPaper(benchSet, to),
        mm,
      })),
    },
    {
      paper: benchDetails.paper,
      jpeg: encodeScan(details, benchDetails.dpi, 78),
      pixels: [details.width, details.height],
    },
  ]);
});
const sketch = (name: string, paper: readonly [number, number], dpi: number): Drawing => ({
  name,
  paper,
  dpi,
  ratio: 1,
  place: [0, 0],
  stretch: 1,
  askew: 0,
  lines: [],
  circles: [],
  dimensions: [],
});
put('shed-sketch.jpg', () => {
  const scale = 0.068;
  const lines = [...SHED_LINES, ...SHED_SWING].flatMap(([a, b], i) =>
    byHand(
      [
        [24 + a[0] * scale, 22 + a[1] * scale],
        [24 + b[0] * scale, 22 + b[1] * scale],
      ],
      0.5,
      i,
    ),
  );
  return encodeScan(scan({ ...sketch('shed-sketch', [297, 210], 150), lines }, wrappingPaper), 150, 80);
});
put('stones.jpg', () =>
  encodeScan(
    scan(
      { ...sketch('stones', [297, 210], 150), lines: SKETCH_LINES.flatMap((line, i) => byHand(line, 0.25, i)) },
      waterStained,
    ),
    150,
    80,
  ),
);
put('pond.dxf', () =>
  encodeDxf(
    [
      { layer: 'pond', closed: true, points: POND.shore },
      { layer: 'paths', closed: false, points: POND.path },
      { layer: 'terrace', closed: true, points: POND.terrace },
      { layer: 'fence', closed: true, points: POND.posts },
    ],
    POND.posts.map((centre) => ({ layer: 'posts', centre, radius: 0.06 })),
  ),
);
put('orchard.jpg', () => {
  const { width, height } = ORCHARD.picture;
  const picture = { width, height, data: new Uint8Array(4 * width * height) };
  paintAerial(picture, 0, height);
  return encodePicture(picture, 85);
});
for (const drawing of [shedPlan, hanger, glasshousePlan, glasshouseSides])
  put(`${drawing.name}.jpg`, () => encodeScan(scan(drawing), drawing.dpi, 85));
if (isWanted(shedPlan) || isWanted(hanger))
  writeFileSync('demo/truth/drawn.json', `${JSON.stringify(truthOfDrawn(), null, 1)}\n`);
put(`${glasshouseBack.name}.jpg`, () => encodeScan(scan(glasshouseBack, wrappingPaper), glasshouseBack.dpi, 80));
put(`${glasshouseRight.name}.jpg`, () => encodeScan(seenFromBehind(scan(glasshouseRight)), glasshouseRight.dpi, 85));
put('bench-views.jpg', () => encodeScan(scan(benchViews), benchViews.dpi, 82));
put('trowel.jpg', () => encodeScan(scan(trowelViews), trowelViews.dpi, 85));
for (const scene of canScenes) put(`${scene.name}.jpg`, () => photo(scene, 7, '2026:05:16 16:02:00'));
if (isWanted({ name: 'stones' }))
  writeFileSync('demo/truth/stones.json', `${JSON.stringify(truthOfStones(), null, 1)}\n`);
if (isWanted({ name: 'shed-sketch' }))
  writeFileSync('demo/truth/shed.json', `${JSON.stringify({ ...SHED }, null, 1)}\n`);

/** A picture with its left at its right. */
function seenFromBehind({ width, height, data }: Picture): Picture {
  const turned = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      turned.set(data.subarray(4 * (y * width + x), 4 * (y * width + x + 1)), 4 * (y * width + width - 1 - x));
  return { width, height, data: turned };
}

/** Where the surveyed terrace and posts are seen on the sketch of the stones, and where they are on the survey, mm. */
function truthOfStones() {
  const px = (at: readonly [number, number]) => {
    const [x, y] = onSketch(at);
    return [(x / 25.4) * 150, ((210 - y) / 25.4) * 150];
  };
  return {
    picture: { width: 1754, height: 1240 },
    terrace: POND.terrace.map((at) => ({ mm: [at[0] * 1000, at[1] * 1000], px: px(at) })),
    posts: POND.posts.map((at) => ({ mm: [at[0] * 1000, at[1] * 1000], px: px(at) })),
  };
}
