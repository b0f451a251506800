export { talkingLine, type CaptureReading, type CcLine } from './capture';
export { readDialogue, PD_OUTCOMES, type Dialogue, type PdOutcome } from './dialogue';
export { readHexList } from './hex';
export { BIT_S, LineDecoder } from './line';
export {
  decodeHeader,
  decodePowerObject,
  decodeRequest,
  encodeHeader,
  encodePowerObject,
  encodeRequest,
  fixedSupply,
  messageName,
  powerObjectWords,
  type MessageHeader,
  type PowerObject,
  type PowerRequest,
} from './objects';
export { packetBytes, packetWords, readPacket, type PdPacket } from './packet';
export {
  captureCsv,
  captureVcd,
  conversation,
  edgesOf,
  OFFERS_65W,
  TROUBLES,
  type ConversationTrouble,
  type ConversationWish,
} from './simulate';
