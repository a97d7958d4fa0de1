"use client";

import { memo, type PointerEvent, type ReactNode, useRef } from "react";

interface PadProps {
  readonly label: string;
  /** A second line for the eye; not part of the name. */
  readonly hint?: string;
  /** Said before the label by a screen reader. */
  readonly lead?: string;
  readonly icon?: ReactNode;
  readonly onPress?: () => void;
  readonly onHold?: (down: boolean) => void;
  /** A swipe up or down from the pad, in steps: up is positive. With a hold each step comes as it is passed, otherwise on the lift. */
  readonly onSwipe?: (steps: number) => void;
  readonly tone?: "plain" | "main" | "quiet" | "ease" | "tension" | "danger" | "ochre";
  readonly pressed?: boolean;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly keys?: string;
  /** Set on the pad that takes the focus when a block begins. */
  readonly next?: true;
}

const TONES = {
  plain: "border-ink bg-paper text-ink active:bg-tarn-wash",
  main: "border-ink bg-ink text-on-ink [--ring:var(--ink)] active:border-tarn active:bg-tarn active:text-on-tarn",
  quiet: "border-ink border-dashed bg-transparent text-ink active:bg-tarn-wash",
  ease: "border-sage bg-paper text-sage active:bg-tarn-wash",
  tension: "border-brick bg-paper text-brick active:bg-tarn-wash",
  danger: "border-brick bg-brick text-on-tarn active:bg-ink",
  ochre: "border-ochre bg-ochre-wash text-ink active:bg-tarn-wash",
} as const;

/** How far a finger travels for one step of a swipe, in CSS pixels: more than a gloved thumb rolls. */
const STEP_PIXELS = 34;

/** One pad: large, says what it does, acts on the press and not on the lift. */
export const Pad = memo(function Pad({
  label,
  hint,
  lead,
  icon,
  onPress,
  onHold,
  onSwipe,
  tone = "plain",
  pressed,
  disabled = false,
  className = "",
  keys,
  next,
}: PadProps) {
  const byPointer = useRef(false);
  const keyHeld = useRef(false);
  const swipe = useRef<{ y: number; steps: number } | null>(null);
  const down = (event: PointerEvent<HTMLButtonElement>) => {
    if (event.button !== 0 || disabled) return;
    byPointer.current = true;
    if (onSwipe !== undefined) swipe.current = { y: event.clientY, steps: 0 };
    if (onHold !== undefined || onSwipe !== undefined) event.currentTarget.setPointerCapture(event.pointerId);
    if (onHold !== undefined) onHold(true);
    else onPress?.();
  };
  const move = (event: PointerEvent<HTMLButtonElement>) => {
    const from = swipe.current;
    if (from === null) return;
    const steps = Math.trunc((from.y - event.clientY) / STEP_PIXELS);
    if (steps === from.steps) return;
    if (onHold !== undefined) onSwipe?.(steps - from.steps);
    from.steps = steps;
  };
  const up = () => {
    if (onHold === undefined && swipe.current !== null && swipe.current.steps !== 0) onSwipe?.(swipe.current.steps);
    swipe.current = null;
    if (onHold !== undefined && byPointer.current) onHold(false);
  };
  return (
    <button
      type="button"
      data-pad
      data-next={next}
      disabled={disabled}
      aria-pressed={pressed}
      aria-keyshortcuts={keys}
      onPointerDown={down}
      onPointerMove={onSwipe === undefined ? undefined : move}
      onPointerUp={up}
      onPointerCancel={up}
      onContextMenu={(event) => event.preventDefault()}
      // A click without a pointer is a keyboard or a screen reader; one after a pointer was already taken. A hold has
      // no up there: one press is on, the next off.
      onClick={() => {
        if (!byPointer.current) {
          if (onHold === undefined) onPress?.();
          else {
            keyHeld.current = !(pressed ?? keyHeld.current);
            onHold(keyHeld.current);
          }
        }
        byPointer.current = false;
      }}
      className={`relative flex min-h-[56px] min-w-0 touch-none flex-col items-center justify-center gap-1 overflow-hidden rounded-lg border-[2.5px] px-0.5 text-center font-head text-[1.02rem] leading-none font-semibold select-none disabled:opacity-40 ${TONES[tone]} ${className}`}
    >
      {icon}
      <span>
        {lead !== undefined && <span className="sr-only">{lead}</span>}
        {label}
      </span>
      {hint !== undefined && (
        <span aria-hidden="true" className="font-sans text-[0.8rem] font-normal">
          {hint}
        </span>
      )}
    </button>
  );
});
