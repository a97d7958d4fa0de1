/** Where no frame comes (a hidden page), the work is done after this all the same. */
const WITHOUT_A_FRAME_MS = 120;

/** Runs work after the next frame is on the screen, so that a press shows before anything is computed from it. */
export function afterPaint(work: () => void): void {
  let done = false;
  const run = () => {
    if (done) return;
    done = true;
    work();
  };
  requestAnimationFrame(() => setTimeout(run, 0));
  setTimeout(run, WITHOUT_A_FRAME_MS);
}
