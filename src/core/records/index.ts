export { flatten, joined as joinChunks, type Chunk, type ImageFormat, type LoadedImage } from './memory';
export { hexBytes } from './hex-line';
export { asItWas, formatOf, loadImage, saveImage } from './load';
