export { firmwareHex, firmwareRaw, firmwareSRecords } from './images';
export { firmwareText } from './text-forms';
export { firmwareImage } from './image-file';
