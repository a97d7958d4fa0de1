/** What holds for this horse and plan, then what holds for every session. */
export function UsualCautions({ cautions }: { cautions: readonly string[] }) {
  return (
    <p className="text-sm leading-snug text-soft">
      {cautions.map((caution) => (
        <strong key={caution} className="block text-brick">
          {caution}
        </strong>
      ))}
      Helmet, gloves, boots. Line folded in the hand, never wrapped. Stay out of the kick and strike zone. Stop for pain, lameness, heat or
      distress and call a veterinarian.
    </p>
  );
}
