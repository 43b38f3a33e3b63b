/** Renders the demo scenes: the pictures into public/demo, the truth beside them into demo/truth. Run: npm run pictures (--truth writes the truth alone) */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encodePhoto } from './generator/picture-file';
import { render } from './generator/render';
import { scene } from './scenes/blade';
import { truthOf } from './truth';

mkdirSync('public/demo', { recursive: true });
mkdirSync('demo/truth', { recursive: true });
writeFileSync('demo/truth/blade.json', `${JSON.stringify(truthOf(scene), null, 1)}\n`);
if (process.argv.includes('--truth')) process.exit(0);
const photo = encodePhoto(render(scene), { camera: 'pocket camera', focalMm: 9.2, focal35mm: scene.camera.focal35mm, time: '2026:05:14 10:21:30' }, 82);
writeFileSync('public/demo/blade.jpg', photo);
console.log(`blade.jpg: ${(photo.length / 1e6).toFixed(2)} MB`);
