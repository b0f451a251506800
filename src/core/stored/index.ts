export { ChainCheck, sealOf, type ChainFound, type ChainedEntry } from './chain';
export {
  fromStored,
  fromStoredText,
  toStored,
  type OldData,
  type StoredEvent,
  type StoredForm,
  type StoredForms,
} from './stored';
