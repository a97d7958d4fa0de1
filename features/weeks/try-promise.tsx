"use client";

import { useEffect, useState } from "react";
import { COUNTED_WORDS, type Counted, type Promised, promiseOf } from "@/core/experiment";

/** A difference in the unit of what counts. */
function sizeWords(counts: Counted, value: number): string {
  if (counts === "share") return `${Math.round(value * 100)} points`;
  return `${value >= 10 ? Math.round(value) : value.toFixed(1)} ${COUNTED_WORDS[counts].unit}`;
}

function PromiseWords({ promised, spread, counts }: { promised: Promised | null; spread: number | null; counts: Counted }) {
  if (promised === null) return <>Working out what so many blocks can show …</>;
  const { leastP, orders, foundSpreads } = promised;
  const drawn = `One of ${orders} orders is drawn.`;
  if (leastP >= 0.05)
    return (
      <>
        {drawn} <strong>So few blocks can show nothing</strong>: the smallest p that could come out is {leastP.toFixed(2)}.
      </>
    );
  if (foundSpreads === null)
    return (
      <>
        {drawn} Only a difference more than four times as large as what one block differs from the next would be found eight times in ten.
      </>
    );
  return (
    <>
      {drawn} A difference {foundSpreads} times as large as what one block differs from the next is found eight times in ten
      {spread === null
        ? "; how much blocks of this horse differ on this rung is not known yet, four of them tell."
        : `: with this horse’s earlier blocks that is about ${sizeWords(counts, foundSpreads * spread)}. A smaller one may well be missed.`}
    </>
  );
}

/** What so many blocks in an order drawn so can show; null while it is worked out, and where it cannot be. */
function usePromise(blocks: number, mostAlike: number): Promised | null {
  const [promised, setPromised] = useState<Promised | null>(null);
  useEffect(() => {
    setPromised(null);
    // After the choice is on the screen: the longest takes a few tenths of a second.
    const later = setTimeout(() => {
      try {
        setPromised(promiseOf(blocks, mostAlike));
      } catch {
        setPromised(null);
      }
    }, 30);
    return () => clearTimeout(later);
  }, [blocks, mostAlike]);
  return promised;
}

/** What an experiment can show, said before it begins. */
export function TryPromise({
  blocks,
  mostAlike,
  spread,
  counts,
}: {
  blocks: number;
  mostAlike: number;
  /** How much earlier blocks differed from one to the next; null where too few were worked. */
  spread: number | null;
  counts: Counted;
}) {
  return <PromiseWords promised={usePromise(blocks, mostAlike)} spread={spread} counts={counts} />;
}
