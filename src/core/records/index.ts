export { flatten, type Chunk, type ImageFormat, type LoadedImage } from './memory';
export { MOST_IMAGE_BYTES, asItWas, formatOf, loadImage, saveImage, type SaveOptions } from './load';
