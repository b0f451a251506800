export { captureArchive } from './archive';
export { captureDump } from './dump';
export { captureTable } from './table';
export { CaptureReader, readCapture } from './reader';
