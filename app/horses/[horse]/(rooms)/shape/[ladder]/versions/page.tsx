import type { Metadata } from "next";
import Link from "next/link";
import { planChanges } from "@/core/ladder";
import { TakeUpVersion } from "@/features/shape/take-up-version";
import { VersionChart } from "@/features/shape/version-chart";
import { asBehaviour, listVersions, rungEvidenceByVersion } from "@/store";
import { Day } from "@/ui/day";
import { ladderHere } from "../../../../../../server/ladder-here";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Versions" };

export default async function VersionsPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await ladderHere(store, horse, id);
  const versions = await listVersions(store, id);
  const evidenceOf = await rungEvidenceByVersion(store, ladder);
  const shown = versions.map((version, i) => {
    const before = versions[i - 1];
    return {
      ...version,
      evidence: evidenceOf(version.version),
      changes: before === undefined ? null : planChanges(before.plan, version.plan),
    };
  });
  return (
    <>
      <h1 className="text-[2rem]">
        <Link href={`/horses/${horse}/shape/${id}`} className="underline-offset-4 hover:underline">
          {ladder.behaviour.name}
        </Link>
        <span className="ml-4 font-sans text-base font-normal text-soft">
          {versions.length === 1 ? "one version" : `${versions.length} versions`}
        </span>
      </h1>
      <p className="mt-1 max-w-prose text-soft">
        Trials stay with the version they were worked on. Where a rung asks the same, its evidence is carried over to the present one.
      </p>
      {shown.reverse().map(({ version, createdMs, plan, evidence, changes }) => (
        <section key={version} aria-labelledby={`version-${version}`} className="mt-8 border-t-2 border-ink pt-3">
          <h2 id={`version-${version}`} className="text-xl">
            Version {version}
            <span className="ml-3 font-sans text-base font-normal text-soft">
              <Day ms={createdMs} />
              {version === ladder.version ? ", in use" : ""}
            </span>
          </h2>
          {changes !== null && (
            <ul className="mt-2 mb-4 max-w-prose list-disc pl-5">
              {changes.sentences.length === 0 ? (
                <li>No rung asks anything else.</li>
              ) : (
                changes.sentences.map((sentence) => <li key={sentence}>{sentence}</li>)
              )}
            </ul>
          )}
          {version !== ladder.version && (
            <TakeUpVersion
              ladderId={id}
              version={version}
              revision={ladder.revision}
              behaviour={asBehaviour(ladder.behaviour)}
              plan={plan}
            />
          )}
          <VersionChart plan={plan} evidence={evidence} changes={changes} />
        </section>
      ))}
    </>
  );
}
