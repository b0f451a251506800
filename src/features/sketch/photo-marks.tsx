import { Box, chakra } from '@chakra-ui/react';
import type { Point } from '@/core/site';
import { face } from '@/ui';

/** How much the loupe enlarges, and its side on the screen, px. */
const LOUPE = { times: 4, sidePx: 150 };

/** Where the photograph is shown, px of the page. */
export interface Frame {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A photograph's own size, px. */
export interface Full {
  readonly width: number;
  readonly height: number;
}

/** The corners that were clicked, joined as far as they go. */
export function CornerMarks({ corners, frame, full }: { corners: readonly Point[]; frame: Frame; full: Full }) {
  return (
    <chakra.svg
      position="absolute"
      pointerEvents="none"
      left={`${frame.left}px`}
      top={`${frame.top}px`}
      width={`${frame.width}px`}
      height={`${frame.height}px`}
      viewBox={`0 0 ${full.width} ${full.height}`}
      color="matCopper"
      aria-hidden
    >
      <polygon
        points={corners.map((p) => `${p.x},${p.y}`).join(' ')}
        fill="none"
        stroke="currentColor"
        strokeWidth={full.width / 400}
      />
      {corners.map(({ x, y }, i) => (
        <g key={`${x} ${y}`} style={{ fontFamily: face.figures }}>
          <circle cx={x} cy={y} r={full.width / 130} fill="none" stroke="currentColor" strokeWidth={full.width / 400} />
          <text
            x={x}
            y={y - full.width / 90}
            textAnchor="middle"
            fill="currentColor"
            style={{ fontSize: full.width / 50 }}
          >
            {i + 1}
          </text>
        </g>
      ))}
    </chakra.svg>
  );
}

/** What is under the pointer, enlarged: corners are hit to a pixel of the photograph. */
export function Loupe({ at: { x, y, url }, full }: { at: Point & { readonly url: string }; full: Full }) {
  const { times, sidePx } = LOUPE;
  const scale = Math.max(1, times * (900 / full.width));
  return (
    <Box
      position="absolute"
      right="3"
      top="3"
      border="1px solid"
      borderColor="matText"
      pointerEvents="none"
      aria-hidden
      style={{
        width: sidePx,
        height: sidePx,
        backgroundImage: `linear-gradient(currentColor, currentColor), linear-gradient(currentColor, currentColor), url(${url})`,
        backgroundSize: `1px 100%, 100% 1px, ${full.width * scale}px ${full.height * scale}px`,
        backgroundPosition: `center, center, ${sidePx / 2 - x * scale}px ${sidePx / 2 - y * scale}px`,
        backgroundRepeat: 'no-repeat',
      }}
      color="matCopper"
    />
  );
}
