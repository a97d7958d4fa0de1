import type { Metadata } from "next";

export const metadata: Metadata = { title: "The yard keeper's" };

/** Where a helper is led who asks for a page of the yard keeper's. */
export default function NotAllowedPage() {
  return (
    <main className="mx-auto max-w-prose px-5 py-10">
      <h1 className="text-[2rem]">That is the yard keeper's</h1>
      <p className="mt-3 text-lg">A helper logs and reads. Plans, people, settings, the bin and the data are changed by a yard keeper.</p>
      <p className="mt-5 flex gap-4">
        <a href="/pen" className="act">
          To the pen
        </a>
        <a href="/" className="act-quiet">
          To the yard
        </a>
      </p>
    </main>
  );
}
