'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { Box } from '@chakra-ui/react';
import { applyPlanEdit, planSeconds, type HeatPlan, type HeatStep, type PlanEdit } from '@/core/heat';
import { tone } from '@/ui';
import { useHeatDesk } from './desk';

const WIDTH = 1000;
const HEIGHT = 64;
const HANDLE = 9;
const DIAL_STEP_C = 5;
/** The longest step that a plan can have, s. */
const MOST_STEP_S = 600;

type Grip = { readonly index: number; readonly what: 'dial' | 'seconds' };

/** The steps on a time axis, as high as their dial: top edges are dragged up and down, right edges along; arrow keys do the same. */
export function StepAxis() {
  const { job, plan, station, preview, drag, drop, change } = useHeatDesk();
  const svg = useRef<SVGSVGElement>(null);
  const [grip, setGrip] = useState<Grip>();
  const shown = preview?.plan ?? plan;
  const [low, high] = station.setC;
  const totalS = planSeconds(shown);
  // While an edge is dragged the axis keeps its scale, so that the edge stays under the finger.
  const [heldS, setHeldS] = useState(totalS);
  const scaleS = grip ? heldS : totalS;
  const y = (dialC: number): number => HEIGHT - 4 - ((dialC - low) / (high - low)) * (HEIGHT - 12);

  /** The edit that a grip makes at a value: as the bench can set it. */
  const editAt = ({ index, what }: Grip, value: number): PlanEdit => ({
    ...{ edit: 'step', index },
    change:
      what === 'dial'
        ? { airSetC: Math.min(high, Math.max(low, Math.round(value / DIAL_STEP_C) * DIAL_STEP_C)) }
        : { durationS: Math.min(MOST_STEP_S, Math.max(1, Math.round(value))) },
  });
  const edited = (from: HeatPlan, edit: PlanEdit): HeatPlan => {
    const next = applyPlanEdit(job.board, station, from, edit);
    return next.ok ? next.value : from;
  };

  const starts = shown.steps.reduce<number[]>((list, s) => [...list, list[list.length - 1] + s.durationS], [0]);

  function move(e: PointerEvent): void {
    if (!grip) return;
    const box = svg.current!.getBoundingClientRect();
    const at = ((e.clientX - box.left) / box.width) * scaleS;
    const dial = low + ((HEIGHT - 4 - ((e.clientY - box.top) / box.height) * HEIGHT) / (HEIGHT - 12)) * (high - low);
    drag(edited(plan, editAt(grip, grip.what === 'dial' ? dial : at - starts[grip.index])));
  }

  const take = (next: Grip) => (e: PointerEvent<SVGElement>) => {
    svg.current!.setPointerCapture(e.pointerId);
    setHeldS(totalS);
    setGrip(next);
  };

  const keys = (at: Grip, value: number, by: number) => (e: KeyboardEvent) => {
    const sign = ['ArrowUp', 'ArrowRight'].includes(e.key) ? 1 : ['ArrowDown', 'ArrowLeft'].includes(e.key) ? -1 : 0;
    if (sign === 0) return;
    e.preventDefault();
    change(editAt(at, value + sign * by));
  };

  const handle = (at: Grip, step: HeatStep, shape: { x: number; y: number; width: number; height: number }) => {
    const value = at.what === 'dial' ? step.airSetC! : step.durationS;
    return (
      <rect
        {...shape}
        role="slider"
        tabIndex={0}
        aria-label={`Step ${at.index + 1}, ${at.what === 'dial' ? 'dial' : 'seconds'}, drag`}
        aria-valuenow={value}
        aria-valuemin={at.what === 'dial' ? low : 1}
        aria-valuemax={at.what === 'dial' ? high : MOST_STEP_S}
        fill={tone.copper}
        fillOpacity={grip?.index === at.index && grip.what === at.what ? 0.9 : 0.35}
        style={{ cursor: at.what === 'dial' ? 'ns-resize' : 'ew-resize', touchAction: 'none' }}
        onPointerDown={take(at)}
        onKeyDown={keys(at, value, at.what === 'dial' ? DIAL_STEP_C : 1)}
      />
    );
  };

  return (
    <Box mt="2" flexShrink="0">
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        width="100%"
        height={HEIGHT}
        role="group"
        aria-label="Steps on a time axis"
        onPointerMove={move}
        onPointerUp={() => {
          if (!grip) return;
          setGrip(undefined);
          drop();
        }}
      >
        <line x1={0} x2={WIDTH} y1={HEIGHT - 4} y2={HEIGHT - 4} stroke={tone.rule} />
        {shown.steps.map((step, index) => {
          const x = (starts[index] / scaleS) * WIDTH;
          const width = (step.durationS / scaleS) * WIDTH;
          const top = step.airSetC === null ? HEIGHT - 6 : y(step.airSetC);
          return (
            <g key={index}>
              <rect x={x} y={top} width={width} height={HEIGHT - 4 - top} fill={tone.copper} fillOpacity={0.14} />
              {step.airSetC !== null &&
                handle({ index, what: 'dial' }, step, {
                  ...{ x: x + HANDLE / 2, y: top - HANDLE / 2 },
                  ...{ width: Math.max(1, width - HANDLE), height: HANDLE },
                })}
              {handle({ index, what: 'seconds' }, step, {
                ...{ x: x + width - HANDLE / 2, y: Math.min(top, HEIGHT - 20) },
                ...{ width: HANDLE, height: HEIGHT - 4 - Math.min(top, HEIGHT - 20) },
              })}
            </g>
          );
        })}
      </svg>
    </Box>
  );
}
