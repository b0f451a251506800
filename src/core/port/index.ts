export { behindPin, expectedDrop, judgePin, normalDropV, type PinValue, type PinVerdict } from './judge';
export { judgeJoint, jointsOf, type Joint } from './joint';
export { nextPin, portPins, type PortPin } from './pins';
