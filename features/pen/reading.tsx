/** While something is read from the device: a page all the same, with its heading. */
export function Reading() {
  return (
    <>
      <h1 className="sr-only">Pen</h1>
      <p role="status" className="text-soft">
        Reading what this device has kept.
      </p>
    </>
  );
}

/** The same where it is the whole page. */
export function ReadingPage() {
  return (
    <main className="p-6">
      <Reading />
    </main>
  );
}
