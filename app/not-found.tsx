import Link from "next/link";
import { Mark } from "@/ui/frame/mark";

/** Plain on purpose: the framework loads this page's script with every page, the recorder's too. */
export default function NotFound() {
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-6 md:px-7">
      <p className="flex items-center gap-2.5 font-head text-xl font-bold">
        <Mark className="h-6 w-10" /> Deft Tether
      </p>
      <h1 className="mt-8 text-3xl">Nothing is tied here</h1>
      <p className="mt-3 max-w-prose">
        The horse, ladder or session this address names is not in the data now open. It may lie in the bin or be gone, or the address
        mistyped.
      </p>
      <p className="mt-5">
        <Link href="/" className="act">
          To the yard
        </Link>
      </p>
    </main>
  );
}
