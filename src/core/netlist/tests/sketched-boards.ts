import type { NetName, RailId } from '../../identities';
import type { ForeignBoard } from '..';

/** A board of some make-up in few words, and what is true of it. */
export interface SketchedBoard {
  readonly name: string;
  readonly foreign: ForeignBoard;
  readonly truth: {
    readonly ground: string;
    readonly ports: readonly {
      readonly connector: string;
      readonly controller: string;
      readonly flash?: string;
      readonly bus: string;
      readonly cc: readonly [string, string];
    }[];
    readonly rails: readonly RailId[];
  };
}

/** `U1 "PD controller" 1=VBUS 2=CC1 3=-`: a part, what its value says, and its pins; a dash is a pin that leads nowhere. */
function sketch(lines: string): ForeignBoard {
  const parts = lines
    .trim()
    .split('\n')
    .map((line, i) => {
      const [, ref, value, rest] = /^\s*(\S+)\s+"([^"]*)"\s*(.*)$/.exec(line)!;
      const pads = rest
        .split(/\s+/)
        .filter(Boolean)
        .map((word, k) => {
          const at = word.indexOf('=');
          const net = word.slice(at + 1);
          return {
            pin: word.slice(0, at),
            net: net === '-' ? undefined : net,
            xMm: 5 * i + 0.5 * k,
            yMm: 0,
            wMm: 0.3,
            hMm: 0.3,
            side: 'front' as const,
          };
        });
      return { ref, value, footprint: '', xMm: 5 * i, yMm: 0, rotationDeg: 0, side: 'front' as const, pads };
    });
  return { parts, loose: [], notes: [] };
}

const USB_C = (bus: string, cc1: string, cc2: string, gnd: string): string =>
  `A1=${gnd} A4=${bus} A5=${cc1} A6=DP A7=DN A8=- A9=${bus} A12=${gnd} B1=${gnd} B4=${bus} B5=${cc2} B6=DP B7=DN B8=- B9=${bus} B12=${gnd} SH=${gnd}`;
const caps = (net: NetName, gnd: string, from: number, count: number): string =>
  Array.from({ length: count }, (_, i) => `C${from + i} "1u" 1=${net} 2=${gnd}`).join('\n');

/** Boards of different make-up: names, chips and supplies as different houses lay them out. All made up. */
export const SKETCHED: readonly SketchedBoard[] = [
  {
    name: 'a handheld with a charger, signal names by sheet',
    foreign: sketch(`
J3 "USB_C" ${USB_C('/USB/VBUS_C', '/USB/CC1', '/USB/CC2', 'GND')}
U5 "" 1=/USB/CC1 2=/USB/CC2 3=/USB/VBUS_C 4=+3V3 5=SDA 6=SCL 7=GND 8=/PD/SCK 9=/PD/CSN 10=/PD/MOSI 11=/PD/MISO 12=INT_N 13=GND 14=-
U6 "" 1=/PD/CSN 2=/PD/MISO 3=+3V3 4=GND 5=/PD/MOSI 6=/PD/SCK 7=+3V3 8=+3V3
F1 "3A" 1=/USB/VBUS_C 2=VBUS_FUSED
U7 "Li charger" 1=VBUS_FUSED 2=SW_CHG 3=VSYS 4=BAT+ 5=SDA 6=SCL 7=GND 8=GND
L2 "1u0" 1=SW_CHG 2=VSYS
U8 "LDO" 1=VSYS 2=GND 3=EN_3V3 4=- 5=+3V3
BT1 "Cell" 1=BAT+ 2=GND
R1 "4k7" 1=SDA 2=+3V3
R2 "4k7" 1=SCL 2=+3V3
${caps('/USB/VBUS_C', 'GND', 1, 1)}
${caps('VBUS_FUSED', 'GND', 2, 2)}
${caps('VSYS', 'GND', 4, 3)}
${caps('BAT+', 'GND', 7, 1)}
${caps('+3V3', 'GND', 8, 4)}
${caps('EN_3V3', 'GND', 12, 1)}`),
    truth: {
      ground: 'GND',
      ports: [{ connector: 'J3', controller: 'U5', flash: 'U6', bus: '/USB/VBUS_C', cc: ['/USB/CC1', '/USB/CC2'] }],
      rails: ['/USB/VBUS_C', 'VBUS_FUSED', 'VSYS', 'BAT+', '+3V3'],
    },
  },
  {
    name: 'a dock: two ports, controllers with their own memories, bucks, capitals only',
    foreign: sketch(`
CN1 "TYPE-C" ${USB_C('VBUS_P1', 'P1_CC1', 'P1_CC2', 'DGND')}
CN2 "TYPE-C" ${USB_C('VBUS_P2', 'P2_CC1', 'P2_CC2', 'DGND')}
U1 "" 1=P1_CC1 2=P1_CC2 3=VBUS_P1 4=VDD_3V3 5=VDD_1V8_A 6=DGND 7=P1_SPI_CS 8=P1_SPI_CLK 9=P1_SPI_DO 10=P1_SPI_DI 11=P1_GATE 12=I2C_SCL 13=I2C_SDA 14=DGND
U2 "" 1=P1_SPI_CS 2=P1_SPI_DO 3=VDD_3V3 4=DGND 5=P1_SPI_DI 6=P1_SPI_CLK 7=VDD_3V3 8=VDD_3V3
U3 "" 1=P2_CC1 2=P2_CC2 3=VBUS_P2 4=VDD_3V3 5=VDD_1V8_B 6=DGND 7=P2_SPI_CS 8=P2_SPI_CLK 9=P2_SPI_DO 10=P2_SPI_DI 11=P2_GATE 12=I2C_SCL 13=I2C_SDA 14=DGND
U4 "" 1=P2_SPI_CS 2=P2_SPI_DO 3=VDD_3V3 4=DGND 5=P2_SPI_DI 6=P2_SPI_CLK 7=VDD_3V3 8=VDD_3V3
Q1 "NFET" 1=P1_GATE 2=VBUS_P1 3=PP20V_IN
Q2 "NFET" 1=P2_GATE 2=VBUS_P2 3=PP20V_IN
U10 "buck" 1=PP20V_IN 2=LX1 3=DGND 4=PP5V_FB 5=EN5 6=DGND
L1 "4u7" 1=LX1 2=PP5V
U11 "buck" 1=PP5V 2=LX2 3=DGND 4=FB33 5=PG33 6=DGND
L2 "2u2" 1=LX2 2=VDD_3V3
R1 "100k" 1=PP5V 2=PP5V_FB
R2 "20k" 1=PP5V_FB 2=DGND
${caps('VBUS_P1', 'DGND', 1, 2)}
${caps('VBUS_P2', 'DGND', 3, 2)}
${caps('PP20V_IN', 'DGND', 5, 3)}
${caps('PP5V', 'DGND', 8, 3)}
${caps('VDD_3V3', 'DGND', 11, 4)}
${caps('VDD_1V8_A', 'DGND', 15, 1)}
${caps('VDD_1V8_B', 'DGND', 16, 1)}`),
    truth: {
      ground: 'DGND',
      ports: [
        { connector: 'CN1', controller: 'U1', flash: 'U2', bus: 'VBUS_P1', cc: ['P1_CC1', 'P1_CC2'] },
        { connector: 'CN2', controller: 'U3', flash: 'U4', bus: 'VBUS_P2', cc: ['P2_CC1', 'P2_CC2'] },
      ],
      rails: ['VBUS_P1', 'VBUS_P2', 'PP20V_IN', 'PP5V', 'VDD_3V3', 'VDD_1V8_A', 'VDD_1V8_B'],
    },
  },
  {
    name: 'a lamp with a sink controller that needs no memory, numbered contacts',
    foreign: sketch(`
USB1 "receptacle 16" 1=GND 2=VBUS 3=VBUS 4=CC1 5=CC2 6=USB_DP 7=USB_DN 8=SBU1 9=GND 10=GND
D2 "ESD" 1=CC1 2=GND 3=CC2
R5 "10R" 1=CC1 2=CC1_R
R6 "10R" 1=CC2 2=CC2_R
IC1 "" 1=CC1_R 2=CC2_R 3=VBUS 4=VDD 5=CFG1 6=CFG2 7=PG 8=GND 9=VBUS_EN 10=GND
Q3 "PMOS" 1=VBUS_EN 2=VBUS 3=VLED
IC2 "LED driver" 1=VLED 2=SW 3=GND 4=FB 5=DIM 6=GND
L1 "10u" 1=SW 2=LED+
${caps('VBUS', 'GND', 1, 1)}
${caps('VDD', 'GND', 2, 1)}
${caps('VLED', 'GND', 3, 2)}
${caps('LED+', 'GND', 5, 2)}`),
    truth: {
      ground: 'GND',
      ports: [{ connector: 'USB1', controller: 'IC1', bus: 'VBUS', cc: ['CC1', 'CC2'] }],
      rails: ['VBUS', 'VDD', 'VLED', 'LED+'],
    },
  },
  {
    name: 'a camera with an EEPROM on two wires, lower case',
    foreign: sketch(
      `
j1 "usb-c" ${USB_C('vbus', 'cc1', 'cc2', 'gnd')}
u1 "pd controller" 1=cc1 2=cc2 3=vbus 4=vddio 5=ldo_1v5 6=gnd 7=rom_scl 8=rom_sda 9=hpd 10=irq_n 11=gnd 12=vconn
u2 "eeprom 24c" 1=gnd 2=gnd 3=gnd 4=gnd 5=rom_sda 6=rom_scl 7=gnd 8=vddio
u3 "pmic" 1=vin 2=lx1 3=lx2 4=vcore 5=vddio 6=gnd 7=i2c_scl 8=i2c_sda 9=vbat 10=gnd
l1 "1u" 1=lx1 2=vcore
l2 "1u" 1=lx2 2=vddio
fb1 "bead" 1=vbus 2=vin
r1 "2k2" 1=rom_scl 2=vddio
r2 "2k2" 1=rom_sda 2=vddio
${caps('vbus', 'gnd', 1, 1)}
${caps('vin', 'gnd', 2, 2)}
${caps('vcore', 'gnd', 4, 3)}
${caps('vddio', 'gnd', 7, 3)}
${caps('ldo_1v5', 'gnd', 10, 1)}
${caps('vbat', 'gnd', 11, 1)}
${caps('vconn', 'gnd', 12, 1)}`.replace(/^([a-z]+\d+) /gm, (all) => all.toUpperCase()),
    ),
    truth: {
      ground: 'gnd',
      ports: [{ connector: 'J1', controller: 'U1', flash: 'U2', bus: 'vbus', cc: ['cc1', 'cc2'] }],
      rails: ['vbus', 'vin', 'vcore', 'vddio', 'ldo_1v5', 'vbat', 'vconn'],
    },
  },
  {
    name: 'a drill charger: high bus, protection chip in the CC lines, nets by pads',
    foreign: sketch(`
J2 "USB-C" ${USB_C('USBC_VBUS', 'USBC_CC1', 'USBC_CC2', 'PGND')}
U9 "CC protection" 1=USBC_CC1 2=USBC_CC2 3=CTRL_CC1 4=CTRL_CC2 5=V3P3 6=PGND 7=FLT_N 8=PGND
U12 "port controller" 1=CTRL_CC1 2=CTRL_CC2 3=USBC_VBUS 4=V3P3 5=V1P8 6=QSPI_CS 7=QSPI_CLK 8=QSPI_IO0 9=QSPI_IO1 10=QSPI_IO2 11=QSPI_IO3 12=PGND 13=GATE_DRV 14=PGND
U13 "SPI flash" 1=QSPI_CS 2=QSPI_IO1 3=QSPI_IO2 4=PGND 5=QSPI_IO0 6=QSPI_CLK 7=QSPI_IO3 8=V3P3
Q5 "NMOS" 1=GATE_DRV 2=USBC_VBUS 3=VIN_48V
U14 "charger controller" 1=VIN_48V 2=Net-(L5-Pad1) 3=PACK+ 4=PGND 5=ISNS 6=V5P0 7=PGND 8=EN
L5 "22u" 1=Net-(L5-Pad1) 2=Net-(L5-Pad2)
R20 "R005" 1=Net-(L5-Pad2) 2=PACK+
U15 "LDO" 1=V5P0 2=PGND 3=EN 4=- 5=V3P3
J5 "pack" 1=PACK+ 2=PGND 3=NTC
${caps('USBC_VBUS', 'PGND', 1, 2)}
${caps('VIN_48V', 'PGND', 3, 4)}
${caps('PACK+', 'PGND', 7, 3)}
${caps('Net-(L5-Pad2)', 'PGND', 10, 2)}
${caps('V5P0', 'PGND', 12, 2)}
${caps('V3P3', 'PGND', 14, 3)}
${caps('V1P8', 'PGND', 17, 1)}
${caps('NTC', 'PGND', 18, 1)}`),
    truth: {
      ground: 'PGND',
      ports: [{ connector: 'J2', controller: 'U12', flash: 'U13', bus: 'USBC_VBUS', cc: ['USBC_CC1', 'USBC_CC2'] }],
      rails: ['USBC_VBUS', 'VIN_48V', 'PACK+', 'V5P0', 'V3P3', 'V1P8'],
    },
  },
  {
    name: 'a tablet: numbered nets, words in values only',
    foreign: sketch(`
J7 "USB TYPE-C" ${USB_C('N001', 'N010', 'N011', 'N000')}
U20 "USB-C PD controller" 1=N010 2=N011 3=N001 4=N003 5=N004 6=N000 7=N020 8=N021 9=N022 10=N023 11=N030 12=N031 13=N000
U21 "NOR flash 8Mb" 1=N020 2=N021 3=N003 4=N000 5=N022 6=N023 7=N003 8=N003
F2 "5A" 1=N001 2=N002
U22 "battery charger" 1=N002 2=N040 3=N005 4=N006 5=N030 6=N031 7=N000
L9 "1u5" 1=N040 2=N005
U23 "LDO 3.3V" 1=N005 2=N000 3=N005 5=N003
BAT1 "battery" 1=N006 2=N000
R1 "10k" 1=N030 2=N003
R2 "10k" 1=N031 2=N003
${caps('N001', 'N000', 1, 2)}
${caps('N002', 'N000', 3, 2)}
${caps('N003', 'N000', 5, 4)}
${caps('N004', 'N000', 9, 2)}
${caps('N005', 'N000', 11, 3)}
${caps('N006', 'N000', 14, 2)}`),
    truth: {
      ground: 'N000',
      ports: [{ connector: 'J7', controller: 'U20', flash: 'U21', bus: 'N001', cc: ['N010', 'N011'] }],
      rails: ['N001', 'N002', 'N003', 'N004', 'N005', 'N006'],
    },
  },
];
