import type { SheetMap, SquaredFrame } from '@/core/calibrate';
import type { PictureFile, PictureTags } from '@/core/pictures';
import type { Vec } from '@/core/geometry';
import type { Cleaning, ColourPicture, FoundEdge, FoundTurn, Rim, Sides } from '@/core/raster';

/** What the picture worker offers. Pictures are named by the SHA-256 of their bytes, and their page where that is not the first; it keeps the few that were used last. */
export type PictureOperations = {
  /** Looks at a file, decodes a page of it upright, keeps that under the name of its file and page. */
  readonly open: {
    readonly input: { readonly bytes: ArrayBuffer; readonly page?: number };
    readonly output: OpenedPicture;
  };
  readonly hasPicture: { readonly input: { readonly hash: string }; readonly output: boolean };
  /** A tile of a level, or undefined when the picture is not kept (any more): then it has to be opened again. */
  readonly tile: { readonly input: TileRequest; readonly output: ImageBitmap | undefined };
  /** Colours of a part of the picture, cut to it; undefined as for a tile. */
  readonly colours: { readonly input: WindowRequest; readonly output: PictureWindow | undefined };
  /** The rim of a round thing around a place, the four sides of a card-like one, or the straight edge that passes it; undefined when none is clear. */
  readonly rim: { readonly input: AroundRequest; readonly output: Rim | undefined };
  readonly sides: { readonly input: SidesRequest; readonly output: Sides | undefined };
  readonly straight: { readonly input: AroundRequest; readonly output: readonly FoundEdge[] | undefined };
  /** Straight edges of things all over the picture, those first that tell most of its lens. */
  readonly straights: { readonly input: { readonly hash: string }; readonly output: readonly (readonly FoundEdge[])[] };
  /** How a sheet lies; undefined when nothing on it is level. */
  readonly turn: { readonly input: { readonly hash: string }; readonly output: FoundTurn | undefined };
  /** Frames around the drawings on a sheet that is level along a direction (radians, clockwise); corners in sheet px. */
  readonly drawings: {
    readonly input: { readonly hash: string; readonly direction?: number };
    readonly output: readonly (readonly Vec[])[];
  };
  /** The picture squared up, as a PNG; undefined as for a tile. */
  readonly straighten: { readonly input: StraightenRequest; readonly output: ArrayBuffer | undefined };
  /** What a view shows of a picture, small: a data URL. */
  readonly thumbnail: { readonly input: ThumbnailRequest; readonly output: string };
  /** Makes a picture as its steps leave it, and keeps it under a name of its own; false when the picture is not kept. */
  readonly clean: { readonly input: CleanRequest; readonly output: boolean };
  /** How many specks the last of the steps would take; undefined as for a tile. */
  readonly specks: {
    readonly input: { readonly hash: string; readonly steps: readonly Cleaning[] };
    readonly output: number | undefined;
  };
  /** SHA-256 of a file. */
  readonly hashOf: { readonly input: { readonly bytes: ArrayBuffer }; readonly output: string };
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

export interface CleanRequest {
  readonly hash: string;
  readonly steps: readonly Cleaning[];
  /** The name under which the cleaned picture is kept. */
  readonly as: string;
}

/** Level 0 is full size, each further level half of the one before. */
export interface TileRequest {
  readonly hash: string;
  readonly level: number;
  readonly column: number;
  readonly row: number;
}

/** A part of the sheet, whole px. */
export interface WindowRequest {
  readonly hash: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** `x`, `y`: where its first pixel lies on the sheet. */
export interface PictureWindow extends ColourPicture {
  readonly x: number;
  readonly y: number;
}

export interface ThumbnailRequest {
  readonly hash: string;
  readonly size: number;
  /** Corners of what is shown, sheet px; all of it without. */
  readonly frame?: readonly Vec[] | undefined;
  /** Sheet direction that is level, radians clockwise, and whether it is seen from behind. */
  readonly direction?: number | undefined;
  readonly mirrored?: boolean | undefined;
}

export interface StraightenRequest {
  readonly hash: string;
  /** From the sheet to the plane, mm. */
  readonly map: SheetMap;
  readonly frame: SquaredFrame;
  /** Corners of what is kept, pixels of the result: the rest is clear. All of it without. */
  readonly cut?: readonly Vec[] | undefined;
}

export interface AroundRequest {
  readonly hash: string;
  /** Sheet px. */
  readonly near: Vec;
}

/** What is known of the thing whose sides are looked for, and of the camera. */
export interface SidesRequest extends AroundRequest {
  /** Width over height; absent: any. */
  readonly proportion?: number | undefined;
  readonly focal35mm?: number | undefined;
}

export const TILE_SIZE = 512;
