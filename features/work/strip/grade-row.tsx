"use client";

const GRADE_TONES = { ease: ["border-sage", "bg-sage"], movement: ["border-tarn", "bg-tarn"] } as const;

/** A grade of the last answer, from 0 to 4 in words: of its ease, or of how it moved. */
export function GradeRow({
  what,
  label,
  words,
  grade,
  onGrade,
}: {
  what: keyof typeof GRADE_TONES;
  label: string;
  words: readonly string[];
  grade: number | null;
  onGrade: (grade: number) => void;
}) {
  const [edge, fill] = GRADE_TONES[what];
  return (
    <fieldset className="flex flex-wrap gap-1.5" aria-label={label}>
      {words.map((word, value) => (
        <button
          key={word}
          type="button"
          aria-label={`${what} ${value}: ${word}`}
          aria-pressed={grade === value}
          onClick={() => onGrade(value)}
          className={`min-h-11 shrink-0 rounded-lg border-2 ${edge} px-1.5 text-[0.85rem] leading-tight font-semibold ${grade === value ? `${fill} text-on-tarn` : "bg-paper"}`}
        >
          {word}
        </button>
      ))}
    </fieldset>
  );
}
