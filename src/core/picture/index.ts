export { MOST_PICTURE_BYTES, pictureType } from './file';
export { hiddenInJpeg, maskPixels, type Mask } from './mask';
