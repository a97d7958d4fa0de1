"use client";

import { useReducer } from "react";
import { mirrorStrand, type Rope, RopeProblem, type WayKey, type Ways, wayOf } from "@/core/ladder";

/** What undo goes back and forth over: the rope, and the ways that turn its strands about. */
export interface RopeStep {
  readonly rope: Rope;
  readonly ways: Ways;
}

export interface RopeState extends RopeStep {
  readonly past: readonly RopeStep[];
  readonly future: readonly RopeStep[];
  /** The rung in view, counted from 1. */
  readonly selected: number;
  /** Changes of one gesture, a drag or a value being typed, are undone together. */
  readonly gesture: string | null;
  /** Why the last change could not be made. */
  readonly problem: string | null;
}

export type RopeAction =
  | { readonly kind: "edit"; readonly edit: (rope: Rope) => Rope; readonly gesture?: string | null; readonly select?: number }
  | { readonly kind: "way"; readonly key: WayKey; readonly value: string }
  | { readonly kind: "select"; readonly rung: number }
  | { readonly kind: "undo" }
  | { readonly kind: "redo" };

const MOST_STEPS_KEPT = 200;

const within = (rope: Rope, rung: number) => Math.min(rope.rungs.length, Math.max(1, rung));

/** The strand whose easy end a way decides. */
function strandTurnedBy(rope: Rope, key: WayKey): string | null {
  const strand = rope.strands.find((one) => (key === "begins" ? one.key === "tether" : key === "first" && one.name === "direction"));
  return strand?.kind === "levels" ? strand.id : null;
}

function stepTo(state: RopeState, next: RopeStep, gesture: string | null, select?: number): RopeState {
  const same = gesture !== null && gesture === state.gesture;
  const past = same ? state.past : [...state.past, { rope: state.rope, ways: state.ways }].slice(-MOST_STEPS_KEPT);
  return { ...next, past, future: [], gesture, problem: null, selected: within(next.rope, select ?? state.selected) };
}

/** One change of the rope; what cannot be done leaves it as it was and says why. */
export function ropeReducer(state: RopeState, action: RopeAction): RopeState {
  switch (action.kind) {
    case "edit":
      try {
        const rope = action.edit(state.rope);
        if (rope === state.rope)
          return { ...state, problem: null, selected: within(rope, action.select ?? state.selected), gesture: action.gesture ?? null };
        return stepTo(state, { rope, ways: state.ways }, action.gesture ?? null, action.select);
      } catch (thrown) {
        // A value that is not of its strand yet cannot be stepped or split: it is said, nothing is lost.
        if (!(thrown instanceof RangeError)) throw thrown;
        const problem = thrown instanceof RopeProblem ? thrown.message : "Put a good value in first: one on this rung cannot be read.";
        return { ...state, problem };
      }
    case "way": {
      if (wayOf(state.ways, action.key).value === action.value) return state;
      const turned = strandTurnedBy(state.rope, action.key);
      const ways = { ...state.ways, [action.key]: action.value };
      return stepTo(state, { rope: turned === null ? state.rope : mirrorStrand(state.rope, turned), ways }, null);
    }
    case "select":
      return { ...state, selected: within(state.rope, action.rung), gesture: null };
    case "undo": {
      const before = state.past.at(-1);
      if (before === undefined) return state;
      return {
        ...state,
        ...before,
        past: state.past.slice(0, -1),
        future: [{ rope: state.rope, ways: state.ways }, ...state.future],
        selected: within(before.rope, state.selected),
        gesture: null,
        problem: null,
      };
    }
    case "redo": {
      const [after, ...future] = state.future;
      if (after === undefined) return state;
      return {
        ...state,
        ...after,
        past: [...state.past, { rope: state.rope, ways: state.ways }],
        future,
        selected: within(after.rope, state.selected),
        gesture: null,
        problem: null,
      };
    }
  }
}

export const ropeStart = (step: RopeStep): RopeState => ({ ...step, past: [], future: [], selected: 1, gesture: null, problem: null });

/** The rope being edited, with undo to any depth that is kept. */
export const useRope = (start: RopeStep) => useReducer(ropeReducer, start, ropeStart);
