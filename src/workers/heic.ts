import { OperationRefused } from './protocol';

/** What is used of the HEIC library (libheif, LGPL): loaded as a file of its own when it is first needed. */
interface HeifImage {
  get_width(): number;
  get_height(): number;
  display(target: ImageData, then: (shown: ImageData | null) => void): void;
  free(): void;
}
interface HeifModule {
  readonly HeifDecoder: new () => { decode(bytes: Uint8Array): readonly HeifImage[] };
}
interface WithLibrary {
  importScripts(address: string): void;
  libheif?: (options: { locateFile(name: string): string; onRuntimeInitialized(): void }) => HeifModule;
}

const FOLDER = '/vendor/';
let loading: Promise<{ readonly module: HeifModule }> | undefined;

/** The library, wrapped: it has a `then` of its own and would not come through a promise. */
function load(): Promise<{ readonly module: HeifModule }> {
  loading ??= begin();
  return loading;
}

async function begin(): Promise<{ readonly module: HeifModule }> {
  const scope = globalThis as unknown as WithLibrary;
  scope.importScripts(`${FOLDER}libheif.js`);
  // It may be ready before it is handed out.
  let onRuntimeInitialized = () => undefined as void;
  const ready = new Promise<void>((resolve) => (onRuntimeInitialized = resolve));
  const module = scope.libheif!({
    locateFile: (name) => FOLDER + name,
    onRuntimeInitialized: () => onRuntimeInitialized(),
  });
  await ready;
  return { module };
}

/** The main picture of a HEIC file, turned upright as its own transformations say. */
export async function decodeHeic(bytes: Uint8Array): Promise<ImageBitmap> {
  const { module } = await load().catch(() => {
    loading = undefined;
    throw new OperationRefused('heic-not-there');
  });
  const [image] = new module.HeifDecoder().decode(bytes);
  if (!image) throw new OperationRefused('picture-not-decoded');
  const target = new ImageData(image.get_width(), image.get_height());
  const shown = await new Promise<ImageData | null>((resolve) => image.display(target, resolve));
  image.free();
  if (!shown) throw new OperationRefused('picture-not-decoded');
  return createImageBitmap(target);
}
