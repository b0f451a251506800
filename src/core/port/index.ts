export { behindPin, expectedDrop, judgePin, type PinValue, type PinVerdict } from './judge';
export { judgeJoint, jointsOf, type AroundJoint, type Joint } from './joint';
export { nextPin, portPins, type PortPin } from './pins';
