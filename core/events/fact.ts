import type { InferType } from "yup";
import type { Part } from "./parts";
import type { payloadSchemas } from "./payloads";

export type EventType = keyof typeof payloadSchemas;

type DeepReadonly<T> = T extends readonly (infer Item)[]
  ? readonly DeepReadonly<Item>[]
  : T extends object
    ? { readonly [Key in keyof T]: DeepReadonly<T[Key]> }
    : T;

/** What a type of event carries, as its schema says. */
export type Payload<Type extends EventType = EventType> = { [T in EventType]: DeepReadonly<InferType<(typeof payloadSchemas)[T]>> }[Type];

/** What every event carries around its payload. Times in milliseconds. */
export interface Envelope {
  readonly id: string;
  readonly session: string;
  /** Device and person. */
  readonly recorder: string;
  /** One page load of that recorder. */
  readonly load: string;
  /** Counts within the load, from 0. */
  readonly seq: number;
  /** Monotonic within the load. */
  readonly mono_ms: number;
  readonly wall_ms: number;
  /** The part its recorder took at the horse; left out where one person does all. */
  readonly part?: Part;
}

/**
 * One time-stamped fact, as it travels and as it is stored: `type` says what
 * its payload holds. Keys the product does not know stay in it, unseen.
 */
export type SessionEvent<Type extends EventType = EventType> = {
  [T in Type]: Envelope & { readonly type: T; readonly payload: Payload<T> };
}[Type];

/** A fact about to be logged: its type, and what that carries. */
export type Fact = {
  [T in EventType]: object extends Payload<T>
    ? { readonly type: T; readonly payload?: Payload<T> }
    : { readonly type: T; readonly payload: Payload<T> };
}[EventType];

/** A fact in its envelope. @example eventOf(envelope, { type: "block.end" }) // { recorder: "paper", seq: 10, mono_ms: 360000, … } */
export const eventOf = (envelope: Envelope, { type, payload }: Fact): SessionEvent =>
  ({ ...envelope, type, payload: payload ?? {} }) as SessionEvent;
