import type { PhotoType } from "@/store";
import { getPhoto, setPhoto } from "@/store";
import { takeAct } from "../../../../server/form-route";
import { answer, json, problem, readBytes } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

type Context = { params: Promise<{ id: string }> };

/** The page makes the picture small before it sends it. */
const PHOTO_MOST_BYTES = 600 * 1024;

/** What a picture's first bytes say it is; the name and the header are not believed. */
function typeOf(bytes: Buffer): PhotoType | null {
  if (bytes.length < 12) return null;
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return "image/jpeg";
  if (bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return "image/png";
  if (bytes.toString("latin1", 0, 4) === "RIFF" && bytes.toString("latin1", 8, 12) === "WEBP") return "image/webp";
  return null;
}

export function GET(request: Request, { params }: Context) {
  return answer(request, async () => {
    const photo = await getPhoto(await getStore(), (await params).id);
    // What a file brought in says of itself is not believed either.
    const type = photo === null ? null : typeOf(Buffer.from(photo.bytes));
    if (photo === null || type === null) return problem(404, "Not found", "There is no picture of this horse.");
    return new Response(new Uint8Array(photo.bytes), {
      headers: { "content-type": type, "x-content-type-options": "nosniff", "cache-control": "private, max-age=31536000, immutable" },
    });
  });
}

export function PUT(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { id } = await params;
    const bytes = await readBytes(request, PHOTO_MOST_BYTES);
    if (bytes === null) return problem(413, "Too large", `A picture of at most ${PHOTO_MOST_BYTES / 1024} kB.`);
    const type = typeOf(bytes);
    if (type === null) return problem(415, "Not a picture", "Send a JPEG, PNG or WebP picture.");
    await setPhoto(await getStore(), id, { type, bytes });
    return json({ id });
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async (store) => {
    await setPhoto(store, id, null);
    return { id };
  });
}
