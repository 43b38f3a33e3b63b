import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import {
  createDeriver,
  drawingOf,
  figuresOf,
  findNameOf,
  lineOfOpening,
  lineOfPart,
  listOpenings,
  listParts,
  listRims,
  mendAll,
  namesIn,
  SAME_PLACE,
  shapesCutIn,
  shapesShownIn,
  type Check,
} from '../src/core/derive';
import {
  readBundle,
  readDxf,
  readSvg,
  summarize,
  writeBundle,
  writeDxf,
  writeOpeningsTable,
  writeSvg,
  writePartsTable,
  type FileUnit,
} from '../src/core/formats';
import { runCommand, startHistory, type Job } from '../src/core/job';
import { checkShapes } from '../src/core/outline';
import { listRegions } from '../src/core/planar';
import { reportOnArranged, writtenInSpace } from './arranged';
import { solveProblem } from './solve';

const HELP = `The core without a screen.

  bryony report BUNDLE                     fits, checks and figures of a job, as JSON
  bryony draw BUNDLE OUT.dxf|OUT.svg [inch]  the outlines of the job's first view as a file
  bryony space BUNDLE OUT.dxf [inch]       what is drawn on all views that stand together, in space, and what the file says of it, as JSON
  bryony mend BUNDLE OUT.zip               a job with all of that mended which mends itself, and what is left, as JSON
  bryony check BUNDLE                      what keeps the outlines of each view from being cut, and the regions that they shut in, as JSON
  bryony parts BUNDLE                      the list of parts, as comma-separated values
  bryony openings BUNDLE                   the list of doors, windows and gaps in walls, likewise
  bryony read FILE.dxf|FILE.svg            what a file says: unit, size, closed outlines, open ends
  bryony solve FILE.json                   fits one problem or an array of them, flat or in space, one line of JSON each (docs/solve-format.md)

Exit status: 0 done, 1 refused (the code is printed) or a problem without a fit, 2 the file cannot be read or the call is wrong.`;

class Refused extends Error {}

function openJob(file: string): Job {
  const bundle = readBundle(new Uint8Array(readFileSync(file)));
  if (!bundle.ok) throw new Refused(bundle.code);
  return bundle.value.job;
}

/** Fits with one sigma and in mm, as everywhere in the core. */
function report(file: string): unknown {
  const job = openJob(file);
  const derived = createDeriver()(job);
  return {
    name: job.name,
    views: [...derived.views.values()].map(({ view, fit, sigma, figures, checks, refusal }) => ({
      id: view.id,
      name: view.name,
      scaled: fit.scaled,
      sigma,
      evidence: [...figures].map(([id, read]) => ({ id, figures: read })),
      checks,
      suspects: fit.suspects,
      warnings: fit.warnings,
      refusal: refusal?.code,
    })),
    ...(job.features.length > 0 ? { arranged: reportOnArranged(job, derived) } : {}),
    outlines: job.outlines.map((outline) => {
      const shape = derived.shapes.get(outline.id)!;
      return {
        id: outline.id,
        closed: shape.closed,
        faults: shape.faults,
        ...figuresOf(outline, { job, derived }, shape),
      };
    }),
  };
}

function draw(file: string, out: string, unit: FileUnit): unknown {
  const job = openJob(file);
  const view = job.views[0];
  if (!view) throw new Refused('drawing-empty');
  const drawing = drawingOf(job, createDeriver()(job), { plane: view.plane });
  if (!drawing.ok) throw new Refused(drawing.code);
  writeFileSync(out, out.endsWith('.svg') ? writeSvg(drawing.value, unit) : writeDxf(drawing.value, unit));
  return readBack(out);
}

function drawInSpace(file: string, out: string, unit: FileUnit): unknown {
  const job = openJob(file);
  const written = writtenInSpace(job, createDeriver()(job), unit);
  if (!written.ok) throw new Refused(written.code);
  writeFileSync(out, written.value.text);
  return written.value.says;
}

/** What is nearer than this is one place. mm */
const TOUCHING = 0.001;

function check(file: string): unknown {
  const job = openJob(file);
  const derived = createDeriver()(job);
  return [...derived.views.values()]
    .map(({ view, fit }) => ({ view, fit, names: namesIn(job, derived, view.plane) }))
    .map(({ names, view, fit }) => ({
      view: view.id,
      scaled: fit.scaled,
      findings: checkShapes(shapesCutIn(job, derived, view.plane), { shortest: job.shortest, touching: TOUCHING }),
      regions: listRegions(
        listRims(shapesShownIn(job, derived, view.plane)).map(({ piece }) => piece),
        SAME_PLACE,
      ).map((region) => ({ area: region.area, name: findNameOf(region, names)?.name })),
    }));
}

/** Mends each view's outlines in turn, and writes the job with everything that came in the bundle. */
async function mend(file: string, out: string): Promise<unknown> {
  const bundle = readBundle(new Uint8Array(readFileSync(file)));
  if (!bundle.ok) throw new Refused(bundle.code);
  let { job } = bundle.value;
  let mended = 0;
  const look: Check = async (shapes, limits) => checkShapes(shapes, limits);
  for (const { id } of job.views) {
    const done = await mendAll(
      job,
      id,
      { shortest: job.shortest, touching: TOUCHING },
      { check: look, newId: randomUUID },
    );
    if (!done) continue;
    mended += done.count;
    job = runCommand(startHistory(job), done.command).job;
  }
  writeFileSync(out, writeBundle({ ...bundle.value, job }));
  return { mended, left: check(out) };
}

function parts(file: string): string {
  const job = openJob(file);
  const derived = createDeriver()(job);
  return writePartsTable(listParts(job, derived).map(lineOfPart));
}

const openings = (file: string): string =>
  writeOpeningsTable(
    listOpenings(openJob(file))
      .filter(({ line }) => line)
      .map(lineOfOpening),
  );

function readBack(file: string): unknown {
  const text = readFileSync(file, 'utf8');
  const reading = file.endsWith('.svg') ? readSvg(text) : readDxf(text);
  if (!reading.ok) throw new Refused(reading.code);
  return { ...summarize(reading.value), ignored: reading.value.ignored };
}

/** Where what a command comes to is said, line by line. */
export interface Hearing {
  say(text: string): void;
  complain(text: string): void;
}

/** One line a problem, in order; true when all of them have a fit. */
function solveAll(file: string, say: Hearing['say']): boolean {
  const raw: unknown = JSON.parse(readFileSync(file, 'utf8'));
  const answers = (Array.isArray(raw) ? raw : [raw]).map(solveProblem);
  answers.forEach((answer) => say(JSON.stringify(answer)));
  return answers.every(({ status }) => status === 'ok');
}

/** Carries out one command; its exit status, as the help has it. */
export async function bryony(
  [command, file, out, unit]: readonly string[],
  { say, complain }: Hearing,
): Promise<number> {
  try {
    if (command === '--help' || command === 'help') say(HELP);
    else if (command === 'report' && file) say(JSON.stringify(report(file), null, 1));
    else if (command === 'draw' && file && out && /\.(dxf|svg)$/.test(out))
      say(JSON.stringify(draw(file, out, unit === 'inch' ? 'inch' : 'mm')));
    else if (command === 'space' && file && out?.endsWith('.dxf'))
      say(JSON.stringify(drawInSpace(file, out, unit === 'inch' ? 'inch' : 'mm')));
    else if (command === 'mend' && file && out) say(JSON.stringify(await mend(file, out), null, 1));
    else if (command === 'check' && file) say(JSON.stringify(check(file), null, 1));
    else if (command === 'parts' && file) say(parts(file));
    else if (command === 'openings' && file) say(openings(file));
    else if (command === 'solve' && file) return solveAll(file, say) ? 0 : 1;
    else if (command === 'read' && file) say(JSON.stringify(readBack(file)));
    else {
      complain(HELP);
      return 2;
    }
    return 0;
  } catch (problem) {
    complain(problem instanceof Refused ? problem.message : `That file cannot be read: ${(problem as Error).message}`);
    return problem instanceof Refused ? 1 : 2;
  }
}
