import type { Slot } from '@/core/day';

export interface DayDrawingProps {
  readonly slots: readonly Slot[];
  readonly people: readonly string[];
  readonly closed: readonly (readonly [number, number])[];
  /** Minutes that are shown, from now. */
  readonly spanMin: number;
  /** The hour of the clock at a minute from now, as it is written. */
  readonly clock: (min: number) => string;
  readonly words: (slot: Slot) => string;
}

const WIDTH = 1200;
const NAME = 128;
const ROW = 46;
const TOP = 26;
/** A bar narrower than this has no room for its number. */
const LEAST_LABEL = 34;

/** A day as a drawing: a line for each person, one for what runs by itself; hours in which nobody works are hatched. */
export function DayDrawing({ slots, people, closed, spanMin, clock, words }: DayDrawingProps) {
  const x = (min: number): number => NAME + ((WIDTH - NAME) * Math.min(spanMin, Math.max(0, min))) / spanMin;
  const rows = [...people, null];
  const height = TOP + ROW * rows.length + 8;
  const hours = Array.from({ length: Math.floor(spanMin / 60) + 1 }, (_, h) => h * 60);
  const passive = slots.filter((s) => s.person === null);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label="The day, person by person"
      style={{ width: '100%', display: 'block' }}
    >
      <defs>
        <pattern id="closed" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--u-colors-rule)" strokeWidth="2.5" />
        </pattern>
      </defs>
      {closed
        .filter(([from]) => from < spanMin)
        .map(([from, to]) => (
          <rect
            key={from}
            x={x(from)}
            y={TOP}
            width={x(to) - x(from)}
            height={ROW * people.length}
            fill="url(#closed)"
          />
        ))}
      {hours.map((min) => (
        <g key={min}>
          <line x1={x(min)} x2={x(min)} y1={TOP - 4} y2={height - 8} stroke="var(--u-colors-rule)" strokeWidth="1" />
          <text
            x={x(min)}
            y={14}
            fontSize="13"
            textAnchor="middle"
            fill="var(--u-colors-quiet)"
            fontFamily="var(--font-figures)"
          >
            {clock(min)}
          </text>
        </g>
      ))}
      {rows.map((person, r) => (
        <g key={person ?? 'itself'}>
          <text
            x={0}
            y={TOP + ROW * r + ROW / 2 + 5}
            fontSize="15"
            fontWeight={person ? 700 : 400}
            fill={person ? 'var(--u-colors-ink)' : 'var(--u-colors-quiet)'}
          >
            {person ?? 'by itself'}
          </text>
          <line
            x1={NAME}
            x2={WIDTH}
            y1={TOP + ROW * (r + 1)}
            y2={TOP + ROW * (r + 1)}
            stroke="var(--u-colors-rule)"
            strokeWidth="1"
          />
          {(person === null ? passive : slots.filter((s) => s.person === person))
            .filter((s) => s.startMin < spanMin && s.endMin > s.startMin)
            .map((s, i) => {
              const left = x(s.startMin);
              const width = Math.max(2, x(s.endMin) - left - 1.5);
              const isNext = person !== null && i === 0;
              return (
                <g key={`${s.job} ${s.step}`}>
                  <title>{`${s.job}: ${words(s)}, ${clock(s.startMin)} to ${clock(s.endMin)}`}</title>
                  <rect
                    x={left}
                    y={TOP + ROW * r + 6}
                    width={width}
                    height={ROW - 12}
                    fill={person === null ? 'none' : isNext ? 'var(--u-colors-copper)' : 'var(--u-colors-track)'}
                    stroke={
                      person === null
                        ? 'var(--u-colors-tin)'
                        : isNext
                          ? 'var(--u-colors-copper)'
                          : 'var(--u-colors-tin)'
                    }
                    strokeWidth="1.2"
                    strokeDasharray={person === null ? '4 3' : undefined}
                  />
                  {width > LEAST_LABEL && (
                    <text
                      x={left + 5}
                      y={TOP + ROW * r + ROW / 2 + 5}
                      fontSize="13"
                      fontWeight="700"
                      fontFamily="var(--font-figures)"
                      fill={isNext ? 'var(--u-colors-ground)' : 'var(--u-colors-ink)'}
                    >
                      {s.job}
                    </text>
                  )}
                </g>
              );
            })}
        </g>
      ))}
    </svg>
  );
}
