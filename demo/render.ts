/** Renders the demo scenes: the pictures into public/demo, the truth beside them into demo/truth. Run: npm run pictures (--truth writes the truth alone) */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encodePhoto, encodeScan } from './generator/picture-file';
import { render, type Scene } from './generator/render';
import { scan } from './generator/scan';
import { scene as blade } from './scenes/blade';
import { nestBox } from './scenes/nest-box';
import { slanted } from './scenes/slanted';
import { truthOf, truthOfNestBox } from './truth';

const wanted = process.argv.slice(2).filter((argument) => !argument.startsWith('--'));
const isWanted = ({ name }: { readonly name: string }) => wanted.length === 0 || wanted.includes(name);
const write = (name: string, truth: unknown, picture: () => Uint8Array) => {
  writeFileSync(`demo/truth/${name}.json`, `${JSON.stringify(truth, null, 1)}\n`);
  if (process.argv.includes('--truth')) return;
  const bytes = picture();
  writeFileSync(`public/demo/${name}.jpg`, bytes);
  console.log(`${name}.jpg: ${(bytes.length / 1e6).toFixed(2)} MB`);
};
const photo = (scene: Scene, focalMm: number, time: string) => encodePhoto(render(scene), { camera: 'pocket camera', focalMm, focal35mm: scene.camera.focal35mm, time }, 82);

mkdirSync('public/demo', { recursive: true });
mkdirSync('demo/truth', { recursive: true });
if (isWanted(nestBox)) write(nestBox.name, truthOfNestBox(nestBox), () => encodeScan(scan(nestBox), nestBox.dpi, 85));
if (isWanted(blade)) write(blade.name, truthOf(blade), () => photo(blade, 9.2, '2026:05:14 10:21:30'));
if (isWanted(slanted)) write(slanted.name, truthOf(slanted), () => photo(slanted, 4.8, '2026:05:14 10:24:10'));
