import {
  readBundle,
  readDxf,
  readReference,
  readSpaceDxf,
  readSvg,
  summarize,
  writeBundle,
  writeDxf,
  writeOpeningsTable,
  writePartsTable,
  writeSvg,
} from '../core/formats';
import type { FileOperations } from './file-operations';
import { OperationRefused, Transferred } from './protocol';
import { serve } from './serve';

const exactBuffer = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer as ArrayBuffer;

serve<FileOperations>({
  async writeDrawing({ drawing, format, unit }) {
    const text = format === 'dxf' ? writeDxf(drawing, unit) : writeSvg(drawing, unit);
    const reading = format === 'dxf' ? readDxf(text) : readSvg(text);
    if (!reading.ok) throw new OperationRefused(reading.code, reading.detail);
    return { text, readBack: summarize(reading.value) };
  },

  async writeInSpace({ drawing, unit }) {
    const text = writeDxf(drawing, unit);
    const reading = readSpaceDxf(text);
    if (!reading.ok) throw new OperationRefused(reading.code, reading.detail);
    return { text, readBack: reading.value };
  },

  writeParts: async ({ lines }) => writePartsTable(lines),

  writeOpenings: async ({ lines }) => writeOpeningsTable(lines),

  async readReference(request) {
    const geometry = readReference(request);
    if (!geometry.ok) throw new OperationRefused(geometry.code, geometry.detail);
    const { pieces, layerOf, index } = geometry.value;
    return new Transferred(geometry.value, [pieces.buffer as ArrayBuffer, layerOf.buffer as ArrayBuffer, index]);
  },

  async writeBundle({ job, pictures }) {
    const buffer = exactBuffer(
      writeBundle({ job, pictures: new Map(pictures.map(({ hash, bytes }) => [hash, new Uint8Array(bytes)])) }),
    );
    return new Transferred(buffer, [buffer]);
  },

  async readBundle({ bytes }) {
    const bundle = readBundle(new Uint8Array(bytes));
    if (!bundle.ok) throw new OperationRefused(bundle.code, bundle.detail);
    const pictures = [...bundle.value.pictures].map(([hash, picture]) => ({ hash, bytes: exactBuffer(picture) }));
    return new Transferred(
      { job: bundle.value.job, pictures },
      pictures.map(({ bytes: buffer }) => buffer),
    );
  },
});
