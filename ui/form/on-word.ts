import { isOneOf } from "@/core/typed";

/** What a select of some words does when one is chosen. @example <select onChange={onAdvice(SIGN_KINDS, setKind)}> */
export const onAdvice =
  <const Word extends string>(words: readonly Word[], take: (word: Word) => void) =>
  ({ target }: { readonly target: { readonly value: string } }): void => {
    if (isOneOf(words, target.value)) take(target.value);
  };
