import { figure, mark, oneOf, type Layout } from './layout';

/**
 * The messages of USB Power Delivery by number, each with the section of revision 3.1 that defines it and the layout of its data.
 * Source: USB Power Delivery specification, revision 3.1, chapter 6 (names, numbers, fields and sections from memory).
 */
export interface MessageDefinition {
  readonly type: number;
  readonly name: string;
  readonly section: string;
  /** One data object, or the whole data block of an extended message. */
  readonly layout?: Layout;
  /** Set where the layout repeats over the data: one for each object. */
  readonly repeats?: true;
  /** Data objects that are read by their own kind. */
  readonly objects?: 'supplies' | 'requests';
}

const word = (...fields: Layout['fields'][number][]): Layout => ({ bytes: 4, fields });
const block = (bytes: number, ...fields: Layout['fields'][number][]): Layout => ({ bytes, fields });
/** A byte or more of a block. */
const bytesAt = (name: string, first: number, count = 1, step = 1, unknown?: number) =>
  figure(name, 8 * (first + count) - 1, 8 * first, step, unknown);

const control = (type: number, name: string): MessageDefinition => ({ type, name, section: `6.3.${type}` });

export const CONTROL_MESSAGES: readonly MessageDefinition[] = [
  'GoodCRC',
  'GotoMin',
  'Accept',
  'Reject',
  'Ping',
  'PS_RDY',
  'Get_Source_Cap',
  'Get_Sink_Cap',
  'DR_Swap',
  'PR_Swap',
  'VCONN_Swap',
  'Wait',
  'Soft_Reset',
  'Data_Reset',
  'Data_Reset_Complete',
  'Not_Supported',
  'Get_Source_Cap_Extended',
  'Get_Status',
  'FR_Swap',
  'Get_PPS_Status',
  'Get_Country_Codes',
  'Get_Sink_Cap_Extended',
  'Get_Source_Info',
  'Get_Revision',
].map((name, i) => control(i + 1, name));

const ALERT = word(
  oneOf('extendedEvent', 3, 0, [
    'none',
    'power state change',
    'power button pressed',
    'power button released',
    'woken by the controller',
  ]),
  figure('hotSwappableBatteries', 19, 16),
  figure('fixedBatteries', 23, 20),
  mark('batteryStatusChange', 25),
  mark('overCurrent', 26),
  mark('overTemperature', 27),
  mark('operatingConditionChange', 28),
  mark('sourceInputChange', 29),
  mark('overVoltage', 30),
  mark('extendedAlert', 31),
);

const BATTERY_STATUS = word(
  mark('invalidReference', 8),
  mark('present', 9),
  oneOf('charging', 11, 10, ['charging', 'discharging', 'idle']),
  figure('presentCapacityMwh', 31, 16, 100, 0xffff),
);

const VENDOR_HEADER = word(
  oneOf('command', 4, 0, [
    '',
    'Discover Identity',
    'Discover SVIDs',
    'Discover Modes',
    'Enter Mode',
    'Exit Mode',
    'Attention',
  ]),
  oneOf('answer', 7, 6, ['request', 'ACK', 'NAK', 'BUSY']),
  figure('position', 10, 8),
  figure('versionMinor', 12, 11),
  figure('versionMajor', 14, 13),
  mark('structured', 15),
  figure('vendorId', 31, 16),
);

export const DATA_MESSAGES: readonly MessageDefinition[] = [
  { type: 1, name: 'Source_Capabilities', section: '6.4.1', objects: 'supplies' },
  { type: 2, name: 'Request', section: '6.4.2', objects: 'requests' },
  {
    type: 3,
    name: 'BIST',
    section: '6.4.3',
    layout: word(
      oneOf('mode', 31, 28, [
        '',
        '',
        '',
        '',
        '',
        'carrier',
        '',
        '',
        'test data',
        'shared capacity entry',
        'shared capacity exit',
      ]),
    ),
  },
  { type: 4, name: 'Sink_Capabilities', section: '6.4.1', objects: 'supplies' },
  { type: 5, name: 'Battery_Status', section: '6.4.5', layout: BATTERY_STATUS },
  { type: 6, name: 'Alert', section: '6.4.6', layout: ALERT },
  {
    type: 7,
    name: 'Get_Country_Info',
    section: '6.4.7',
    layout: word(figure('secondLetter', 23, 16), figure('firstLetter', 31, 24)),
  },
  {
    type: 8,
    name: 'Enter_USB',
    section: '6.4.8',
    layout: word(
      mark('hostPresent', 13),
      mark('tunnelsOlderLink', 14),
      mark('tunnelsDisplayPort', 15),
      mark('tunnelsPcie', 16),
      oneOf('cableCurrent', 18, 17, ['VBUS not supported', '', '3 A', '5 A']),
      oneOf('cableType', 20, 19, ['passive', 'active re-timer', 'active re-driver', 'optically isolated']),
      oneOf('cableSpeed', 23, 21, [
        'USB 2.0',
        'USB 3.2 Gen 1',
        'USB 3.2 Gen 2 and USB4 Gen 2',
        'USB4 Gen 3',
        'USB4 Gen 4',
      ]),
      mark('usb3Drd', 25),
      mark('usb4Drd', 26),
      oneOf('mode', 30, 28, ['USB 2.0', 'USB 3.2', 'USB4']),
    ),
  },
  { type: 9, name: 'EPR_Request', section: '6.4.9', objects: 'requests' },
  {
    type: 10,
    name: 'EPR_Mode',
    section: '6.4.10',
    layout: word(
      figure('data', 23, 16),
      oneOf('action', 31, 24, ['', 'enter', 'enter acknowledged', 'enter succeeded', 'enter failed', 'exit']),
    ),
  },
  {
    type: 11,
    name: 'Source_Info',
    section: '6.4.11',
    layout: word(
      figure('reportedPowerW', 7, 0),
      figure('presentPowerW', 15, 8),
      figure('maximumPowerW', 23, 16),
      oneOf('portType', 31, 31, ['managed', 'guaranteed']),
    ),
  },
  {
    type: 12,
    name: 'Revision',
    section: '6.4.12',
    layout: word(
      figure('versionMinor', 19, 16),
      figure('versionMajor', 23, 20),
      figure('revisionMinor', 27, 24),
      figure('revisionMajor', 31, 28),
    ),
  },
  { type: 15, name: 'Vendor_Defined', section: '6.4.4', layout: VENDOR_HEADER },
];

const BATTERY_REFERENCE = block(1, bytesAt('battery', 0));
const TEMPERATURE = ['not supported', 'normal', 'warning', 'too hot'];

export const EXTENDED_MESSAGES: readonly MessageDefinition[] = [
  {
    type: 1,
    name: 'Source_Capabilities_Extended',
    section: '6.5.1',
    layout: block(
      25,
      bytesAt('vendorId', 0, 2),
      bytesAt('productId', 2, 2),
      bytesAt('certificateId', 4, 4),
      bytesAt('firmwareVersion', 8),
      bytesAt('hardwareVersion', 9),
      oneOf('loadStepSlew', 81, 80, ['150 mA/µs', '500 mA/µs']),
      oneOf('loadStep', 82, 82, ['25 % of its current', '90 % of its current']),
      bytesAt('holdupMs', 11),
      mark('limitedPower', 96),
      mark('powerSource1', 97),
      mark('powerSource2', 98),
      mark('lowTouchCurrentEps', 104),
      mark('groundSupported', 105),
      mark('groundForProtectiveEarth', 106),
      bytesAt('peakCurrent1', 14, 2),
      bytesAt('peakCurrent2', 16, 2),
      bytesAt('peakCurrent3', 18, 2),
      oneOf('touchTemperature', 167, 160, ['default', 'IEC 60950-1', 'IEC 62368-1 TS1', 'IEC 62368-1 TS2']),
      mark('externalSupply', 168),
      mark('externalUnconstrained', 169),
      mark('internalBattery', 170),
      figure('fixedBatteries', 179, 176),
      figure('hotSwappableBatterySlots', 183, 180),
      bytesAt('standardPowerW', 23),
      bytesAt('extendedPowerW', 24),
    ),
  },
  {
    type: 2,
    name: 'Status',
    section: '6.5.2',
    layout: block(
      7,
      bytesAt('internalC', 0, 1, 1, 0),
      mark('externalPower', 9),
      mark('externalAc', 10),
      mark('fromBattery', 11),
      mark('fromElsewhereInside', 12),
      figure('fixedBatteryInputs', 19, 16),
      figure('hotSwappableBatteryInputs', 23, 20),
      mark('overCurrent', 25),
      mark('overTemperature', 26),
      mark('overVoltage', 27),
      mark('currentLimited', 28),
      oneOf('temperature', 34, 33, TEMPERATURE),
      mark('limitedByCable', 41),
      mark('limitedByOtherPorts', 42),
      mark('limitedByExternalPower', 43),
      mark('limitedByEvents', 44),
      mark('limitedByTemperature', 45),
      oneOf('powerState', 50, 48, ['not supported', 'S0', 'modern standby', 'S3', 'S4', 'S5', 'G3']),
      oneOf('indicator', 53, 51, ['off', 'on', 'blinking', 'breathing']),
    ),
  },
  { type: 3, name: 'Get_Battery_Cap', section: '6.5.3', layout: BATTERY_REFERENCE },
  { type: 4, name: 'Get_Battery_Status', section: '6.5.4', layout: BATTERY_REFERENCE },
  {
    type: 5,
    name: 'Battery_Capabilities',
    section: '6.5.5',
    layout: block(
      9,
      bytesAt('vendorId', 0, 2),
      bytesAt('productId', 2, 2),
      bytesAt('designCapacityMwh', 4, 2, 100, 0xffff),
      bytesAt('lastFullMwh', 6, 2, 100, 0xffff),
      mark('invalidReference', 64),
    ),
  },
  {
    type: 6,
    name: 'Get_Manufacturer_Info',
    section: '6.5.6',
    layout: block(2, oneOf('target', 7, 0, ['port', 'battery']), bytesAt('battery', 1)),
  },
  {
    type: 7,
    name: 'Manufacturer_Info',
    section: '6.5.7',
    layout: block(4, bytesAt('vendorId', 0, 2), bytesAt('productId', 2, 2)),
  },
  { type: 8, name: 'Security_Request', section: '6.5.8' },
  { type: 9, name: 'Security_Response', section: '6.5.8' },
  { type: 10, name: 'Firmware_Update_Request', section: '6.5.9' },
  { type: 11, name: 'Firmware_Update_Response', section: '6.5.9' },
  {
    type: 12,
    name: 'PPS_Status',
    section: '6.5.10',
    layout: block(
      4,
      bytesAt('outputMv', 0, 2, 20, 0xffff),
      bytesAt('outputMa', 2, 1, 50, 0xff),
      oneOf('temperature', 26, 25, TEMPERATURE),
      oneOf('mode', 27, 27, ['holds its voltage', 'limits its current']),
    ),
  },
  {
    type: 13,
    name: 'Country_Info',
    section: '6.5.12',
    layout: block(4, bytesAt('firstLetter', 0), bytesAt('secondLetter', 1)),
  },
  { type: 14, name: 'Country_Codes', section: '6.5.11', layout: block(2, bytesAt('count', 0)) },
  {
    type: 15,
    name: 'Sink_Capabilities_Extended',
    section: '6.5.13',
    layout: block(
      24,
      bytesAt('vendorId', 0, 2),
      bytesAt('productId', 2, 2),
      bytesAt('certificateId', 4, 4),
      bytesAt('firmwareVersion', 8),
      bytesAt('hardwareVersion', 9),
      bytesAt('version', 10),
      oneOf('loadStep', 89, 88, ['150 mA/µs', '500 mA/µs']),
      bytesAt('loadCharacteristics', 12, 2),
      mark('limitedPower', 112),
      mark('powerSource1', 113),
      mark('powerSource2', 114),
      oneOf('touchTemperature', 127, 120, ['not given', 'IEC 60950-1', 'IEC 62368-1 TS1', 'IEC 62368-1 TS2']),
      figure('fixedBatteries', 131, 128),
      figure('hotSwappableBatterySlots', 135, 132),
      mark('programmableCharging', 136),
      mark('busPowered', 137),
      mark('mainsPowered', 138),
      mark('batteryPowered', 139),
      mark('batteryUnlimited', 140),
      mark('adjustable', 141),
      bytesAt('standardMinimumW', 18),
      bytesAt('standardOperationalW', 19),
      bytesAt('standardMaximumW', 20),
      bytesAt('extendedMinimumW', 21),
      bytesAt('extendedOperationalW', 22),
      bytesAt('extendedMaximumW', 23),
    ),
  },
  {
    type: 16,
    name: 'Extended_Control',
    section: '6.5.14',
    layout: block(
      2,
      oneOf('kind', 7, 0, ['', 'EPR_Get_Source_Cap', 'EPR_Get_Sink_Cap', 'EPR_KeepAlive', 'EPR_KeepAlive_Ack']),
      bytesAt('data', 1),
    ),
  },
  { type: 17, name: 'EPR_Source_Capabilities', section: '6.5.15.2', objects: 'supplies' },
  { type: 18, name: 'EPR_Sink_Capabilities', section: '6.5.15.3', objects: 'supplies' },
  { type: 30, name: 'Vendor_Defined_Extended', section: '6.5.16' },
];

/** Which table a header speaks of, and its row there. */
export function definitionOfMessage({
  extended,
  count,
  type,
}: {
  readonly extended: boolean;
  readonly count: number;
  readonly type: number;
}): MessageDefinition | undefined {
  const table = extended ? EXTENDED_MESSAGES : count === 0 ? CONTROL_MESSAGES : DATA_MESSAGES;
  return table.find((m) => m.type === type);
}

/** What a message is called; a number that no table holds is told with its kind. */
export function messageName(header: {
  readonly extended: boolean;
  readonly count: number;
  readonly type: number;
}): string {
  const kind = header.extended ? 'Extended' : header.count === 0 ? 'Control' : 'Data';
  return definitionOfMessage(header)?.name ?? `${kind} ${header.type}`;
}
