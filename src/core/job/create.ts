import { MILLIMETRES } from '../units';
import { JOB_FORMAT, JOB_VERSION, type Job, type Sheet, type View } from './schema';

/** An empty job. Time and id are handed in. */
export function createJob(id: string, name: string, now: Date): Job {
  return {
    format: JOB_FORMAT,
    version: JOB_VERSION,
    id,
    name,
    created: now.toISOString(),
    units: MILLIMETRES,
    shortest: 0.2,
    sheets: [],
    views: [],
    planes: [],
    layers: [{ id: 'outline', name: 'Outline', color: 'berry', show: true, lock: false }],
    outlines: [],
    guides: [],
    references: [],
    relations: [],
    regions: [],
    dimensions: [],
    parts: [],
    declined: [],
    features: [],
    spans: [],
    spaceCurves: [],
    looks: [],
    sitings: [],
    setbacks: [],
    variants: [],
    byEye: [],
  };
}

/** The view that shows a whole sheet, on a plane of its own: its datum at the lower left corner of the picture, along its lower edge. */
export function createView(id: string, sheet: Sheet): View {
  return {
    id,
    sheet: sheet.id,
    plane: id,
    name: sheet.name,
    datum: { origin: [0, sheet.height], direction: 0 },
    points: [],
    evidence: [],
    model: 'auto',
    lens: 'auto',
    locked: false,
    hidden: false,
    look: { opacity: 1, contrast: 1, grey: false },
  };
}
