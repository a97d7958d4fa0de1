import Link from "next/link";
import { Frame } from "@/ui/frame";
import { pinnedTheme } from "./server/theme";

export default async function NotFound() {
  return (
    <Frame horse={null} theme={await pinnedTheme()}>
      <h1 className="text-3xl">Nothing is tied here</h1>
      <p className="mt-3 max-w-prose">
        The horse, ladder or session this address names is not in the data now open. It may have been removed, or the address mistyped.
      </p>
      <p className="mt-5">
        <Link href="/" className="act">
          To the yard
        </Link>
      </p>
    </Frame>
  );
}
