export { behindPin, expectedDrop, judgePin, type PinValue, type PinVerdict } from './judge';
export { nextPin, portPins, type PortPin } from './pins';
