export { readPictureTags, type PictureTags } from './exif';
export { MAX_MEGAPIXELS } from './limits';
export { inspectPicture, type PictureFile } from './picture-file';
export { fromPictureKey, pictureKey } from './picture-key';
export { sha256Hex } from './sha256';
export { decodeTiffPage, isTiff, readTiffPages, type TiffPage, type TiffPicture } from './tiff';
