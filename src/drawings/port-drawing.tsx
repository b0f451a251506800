import { Box } from '@chakra-ui/react';
import type { WalkPin } from '@/core/job';
import { face, tone } from '@/ui';

/** Drawing units: one contact takes this much width. */
const STEP = 60;
const LEFT = 26;
const WIDTH = 12 * STEP + LEFT + 14;
const HEIGHT = 300;
const CONTACT = { w: 30, h: 44 };
const TOP = { A: 78, B: 178 } as const;

/**
 * The mouth of the port with both rows of contacts, as one looks into it: row A from 1 to 12, below it row B turned
 * round. Read contacts carry their drop; the one asked for is copper; a bad one is filled and marked.
 */
export function PortDrawing({
  pins,
  next,
  onPick,
}: {
  pins: readonly WalkPin[];
  next?: string;
  onPick: (pin: string) => void;
}) {
  const twin = pins.find((p) => p.pin === next)?.twin;
  return (
    <Box bg="mat" flexShrink="0">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Contacts of the port${next ? `, ${next} is next` : ''}`}
        style={{ width: '100%', display: 'block', fontSize: 13, fontFamily: face.figures }}
      >
        <rect
          x={LEFT - 22}
          y={52}
          width={12 * STEP + 32}
          height={196}
          rx={22}
          fill="none"
          stroke={tone.matLine}
          strokeWidth={1.5}
        />
        <rect x={LEFT + 4} y={TOP.A + CONTACT.h + 12} width={12 * STEP - 22} height={32} rx={4} fill={tone.matFill} />
        {(['A', 'B'] as const).map((row) => (
          <text
            key={row}
            x={LEFT - 8}
            y={TOP[row] + 28}
            textAnchor="middle"
            fill={tone.matText}
            style={{ fontWeight: 700 }}
          >
            {row}
          </text>
        ))}
        {pins.map((p) => (
          <Contact key={p.pin} p={p} asked={p.pin === next} twin={p.pin === twin} onPick={onPick} />
        ))}
      </svg>
    </Box>
  );
}

function Contact({
  p,
  asked,
  twin,
  onPick,
}: {
  p: WalkPin;
  asked: boolean;
  twin: boolean;
  onPick: (pin: string) => void;
}) {
  const n = Number(p.pin.slice(1));
  const x = LEFT + STEP * (p.row === 'A' ? n - 0.5 : 12.5 - n) - CONTACT.w / 2;
  const y = TOP[p.row];
  const bad = p.verdict?.state === 'bad';
  const outward = p.row === 'A';
  const ink = asked ? tone.matCopper : bad ? tone.matRust : tone.matText;
  const value = p.value && (p.value.kind === 'open' ? 'open' : p.value.value.toFixed(3));
  const middle = x + CONTACT.w / 2;
  return (
    <g onClick={() => onPick(p.pin)} style={{ cursor: 'pointer' }} data-pin={p.pin}>
      <title>{`${p.pin} ${p.carries}${p.verdict ? `: ${value}, ${p.verdict.label}` : ''}`}</title>
      <rect
        x={x}
        y={y}
        width={CONTACT.w}
        height={CONTACT.h}
        fill={asked ? tone.matCopper : bad ? tone.matRust : p.value ? tone.matLine : 'none'}
        stroke={ink}
        strokeWidth={asked || twin ? 2.5 : 1.2}
        strokeDasharray={p.net === undefined ? '4 3' : undefined}
      />
      {twin && (
        <rect
          x={x - 4}
          y={y - 4}
          width={CONTACT.w + 8}
          height={CONTACT.h + 8}
          fill="none"
          stroke={tone.matCopper}
          strokeDasharray="3 3"
        />
      )}
      {bad && <path d={`M${x + 8} ${y + 14}l14 16m0 -16l-14 16`} stroke={tone.mat} strokeWidth={2.5} fill="none" />}
      {p.verdict?.state === 'good' && (
        <path d={`M${x + 8} ${y + 23}l5 6l9 -13`} stroke={tone.mat} strokeWidth={2.2} fill="none" />
      )}
      <text
        x={middle}
        y={outward ? 24 : 290}
        textAnchor="middle"
        fill={ink}
        style={{ fontWeight: asked || bad ? 700 : 400 }}
      >
        {p.pin}
      </text>
      <text x={middle} y={outward ? 40 : 274} textAnchor="middle" fill={tone.matText}>
        {p.net === undefined ? '–' : p.carries}
      </text>
      {value && (
        <text x={middle} y={outward ? 72 : 238} textAnchor="middle" fill={ink} style={{ fontWeight: 700 }}>
          {value}
        </text>
      )}
    </g>
  );
}
