"use client";

import { memo, type PointerEvent, type ReactNode, useRef } from "react";

interface PadProps {
  readonly label: string;
  /** Said before the label by a screen reader. */
  readonly lead?: string;
  readonly icon?: ReactNode;
  readonly onPress?: () => void;
  readonly onHold?: (down: boolean) => void;
  readonly tone?: "plain" | "main" | "quiet" | "ease" | "tension" | "ochre";
  readonly pressed?: boolean;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly keys?: string;
}

const TONES = {
  plain: "border-ink bg-paper text-ink active:bg-tarn-wash",
  main: "border-ink bg-ink text-on-ink [--ring:var(--ink)] active:border-tarn active:bg-tarn active:text-on-tarn",
  quiet: "border-ink border-dashed bg-transparent text-ink active:bg-tarn-wash",
  ease: "border-sage bg-paper text-sage active:bg-tarn-wash",
  tension: "border-brick bg-paper text-brick active:bg-tarn-wash",
  ochre: "border-ochre bg-ochre-wash text-ink active:bg-tarn-wash",
} as const;

/** One pad: large, says what it does, acts on the press and not on the lift. */
export const Pad = memo(function Pad({
  label,
  lead,
  icon,
  onPress,
  onHold,
  tone = "plain",
  pressed,
  disabled = false,
  className = "",
  keys,
}: PadProps) {
  const byPointer = useRef(false);
  const down = (event: PointerEvent<HTMLButtonElement>) => {
    if (event.button !== 0 || disabled) return;
    byPointer.current = true;
    if (onHold !== undefined) {
      event.currentTarget.setPointerCapture(event.pointerId);
      onHold(true);
    } else onPress?.();
  };
  const up = () => {
    if (onHold !== undefined && byPointer.current) onHold(false);
  };
  return (
    <button
      type="button"
      disabled={disabled}
      aria-pressed={pressed}
      aria-keyshortcuts={keys}
      onPointerDown={down}
      onPointerUp={up}
      onPointerCancel={up}
      onContextMenu={(event) => event.preventDefault()}
      // A click without a pointer is a keyboard or a screen reader; one after a pointer was already taken.
      onClick={() => {
        if (!byPointer.current && onHold === undefined) onPress?.();
        byPointer.current = false;
      }}
      className={`flex min-h-[72px] touch-none flex-col items-center justify-center gap-1 rounded-lg border-[2.5px] px-1 font-head text-[1.02rem] leading-none font-semibold select-none disabled:opacity-40 ${TONES[tone]} ${className}`}
    >
      {icon}
      <span>
        {lead !== undefined && <span className="sr-only">{lead}</span>}
        {label}
      </span>
    </button>
  );
});
