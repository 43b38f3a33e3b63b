export { readBundle, writeBundle, type Bundle } from './bundle';
export { isSound, type Drawing, type DrawingLayer, type DrawnPath, type SpacePath, type FileUnit } from './drawing';
export { readDxf } from './dxf-reader';
export { safeLayerName, writeDxf } from './dxf-writer';
export { summarize, type FilePath, type FileReading, type FileSummary } from './file-reading';
export { readSvg } from './svg-reader';
export { writeSvg } from './svg-writer';
export { writeWorldFile } from './world-file';
export { findLonLat, findProjection, nearbyZero, type LonLat, type SiteProjection } from './projection';
export { readGeoJson } from './geojson-reader';
export {
  createReferenceSearch,
  pieceAt,
  readReference,
  type ReferenceGeometry,
  type ReferenceLayer,
  type ReferenceRequest,
} from './reference';
export { isWorldFileName, readWorldFile } from './world-file';
export { writeOpeningsTable, type OpeningLine } from './openings-table';
export { writePartsTable, type PartLine } from './parts-table';
export { readSpaceDxf, type SpaceSummary } from './dxf-space-reader';
export { spaceBoundsOf } from './space-bounds';
