import type { Block } from "@/core/record";

type Parts = readonly { readonly text: string; readonly strong: boolean }[];

/** A long criterion is written smaller, so that it stays within two lines of a narrow screen. */
function sizeFor(parts: Parts): string {
  const letters = parts.reduce((sum, { text }) => sum + text.length, 0);
  return letters <= 56 ? "text-[1.18rem]" : letters <= 80 ? "text-[1.02rem]" : "text-[0.9rem]";
}

function Words({ parts }: { parts: Parts }) {
  return parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text));
}

/** What is asked for, at work: two lines at most, with what a screen reader adds. */
export function CriterionAtWork({ parts, block }: { parts: Parts; block: Block | null }) {
  const { handler_place: place, company } = block?.criterion ?? {};
  return (
    <p className={`shrink-0 leading-tight desk:text-[1.9rem]! desk:leading-snug ${sizeFor(parts)}`} data-testid="criterion">
      <Words parts={parts} />
      {(place !== undefined || company !== undefined) && (
        <span className="sr-only">
          {place !== undefined && ` Handler: ${place}.`}
          {company !== undefined && ` Company: ${company}.`}
        </span>
      )}
    </p>
  );
}

/** What is asked for, before and between blocks. */
export function Criterion({ parts }: { parts: Parts }) {
  return (
    <p className="text-[1.18rem] leading-tight lg:text-[1.9rem] lg:leading-snug" data-testid="criterion">
      <Words parts={parts} />
    </p>
  );
}
