/** Draws the photographs that the checks of hands look at. Run: npm run photographs (-- NAME …) */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { drawPhotograph, photographFile, PHOTOGRAPHS, type PhotographName } from './photographs';

const wanted = process.argv.slice(2);
for (const name of Object.keys(PHOTOGRAPHS) as PhotographName[]) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const bytes = drawPhotograph(name);
  mkdirSync(path.dirname(photographFile(name)), { recursive: true });
  writeFileSync(photographFile(name), bytes);
  console.log(`${name}: ${(bytes.length / 1e6).toFixed(2)} MB`);
}
