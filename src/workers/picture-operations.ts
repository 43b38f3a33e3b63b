import type { PictureFile, PictureTags } from '@/core/formats';

/** What the picture worker offers. Pictures are named by the SHA-256 of their bytes; it keeps the few that were used last. */
export type PictureOperations = {
  /** Looks at a file, decodes it upright, keeps it. */
  readonly open: { readonly input: { readonly bytes: ArrayBuffer }; readonly output: OpenedPicture };
  readonly hasPicture: { readonly input: { readonly hash: string }; readonly output: boolean };
  /** A tile of a level, or undefined when the picture is not kept (any more): then it has to be opened again. */
  readonly tile: { readonly input: TileRequest; readonly output: ImageBitmap | undefined };
  readonly thumbnail: { readonly input: { readonly hash: string; readonly size: number }; readonly output: string };
  readonly toPieces: { readonly input: { readonly bytes: ArrayBuffer }; readonly output: readonly string[] };
  readonly fromPieces: { readonly input: { readonly pieces: readonly string[] }; readonly output: ArrayBuffer };
};

export interface OpenedPicture {
  readonly hash: string;
  readonly file: PictureFile;
  readonly tags: PictureTags;
  /** Upright pixels, after EXIF orientation. */
  readonly width: number;
  readonly height: number;
  /** The bytes come back, so that they need not be copied on the way in. */
  readonly bytes: ArrayBuffer;
}

/** Level 0 is full size, each further level half of the one before. */
export interface TileRequest {
  readonly hash: string;
  readonly level: number;
  readonly column: number;
  readonly row: number;
}

export const TILE_SIZE = 512;
