export { flatten, type Chunk, type ImageFormat, type LoadedImage } from './memory';
export { asItWas, formatOf, loadImage, saveImage } from './load';
