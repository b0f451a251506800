export { talkingLine, type CaptureReading, type CcLine } from './capture';
export { readDialogue, PD_OUTCOMES, type Dialogue, type PdOutcome } from './dialogue';
export { readHexList } from './hex';
export { BIT_S, LineDecoder } from './line';
export { messageName } from './messages';
export { decodeHeader, decodePowerObject, encodeHeader, powerObjectWords } from './objects';
export { packetBytes, readPacket, type PdPacket } from './packet';
export { messageWords, readMessages } from './read-messages';
export {
  captureCsv,
  captureVcd,
  conversation,
  edgesOf,
  OFFERS_65W,
  TROUBLES,
  type ConversationTrouble,
  type ConversationWish,
  type SentPacket,
} from './simulate';
