/** What the trust page is made from. */
export interface TrustFacts {
  /** "deft-75bd.local" */
  readonly host: string;
  readonly port: number;
  readonly addresses: readonly string[];
  readonly fingerprint: string;
  readonly nonce: string;
}

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Steps for one kind of phone, as they would be read aloud. */
const STEPS: readonly { readonly kind: string; readonly title: string; readonly steps: readonly string[] }[] = [
  {
    kind: "apple",
    title: "iPhone or iPad",
    steps: [
      "Open this page in Safari; other browsers cannot take the certificate.",
      "Press “Get the certificate” below. When asked, allow the profile to be downloaded.",
      "Open Settings. Near the top stands “Profile Downloaded”: open it, press Install, type your code, press Install again.",
      "In Settings go to General, About, and at the very bottom Certificate Trust Settings. Turn on the one that begins with “Deft Tether on”.",
      "Come back to this page and press “Check again”.",
    ],
  },
  {
    kind: "android",
    title: "Android",
    steps: [
      "Press “Get the certificate” below and let it be saved.",
      "Open the phone's Settings and search there for “CA certificate”. It lies under Security, More security settings, Encryption and credentials, Install a certificate.",
      "Choose “CA certificate”. The phone warns that somebody could watch: this certificate can vouch for this one computer only, as said below. Choose “Install anyway”.",
      "Type your code, then choose the file that was just saved.",
      "Come back to this page and press “Check again”. In the Firefox browser another step is needed: Settings, Firefox, its logo five times, then Secret settings, “Use third party CA certificates”.",
    ],
  },
  {
    kind: "computer",
    title: "Another computer",
    steps: [
      "Press “Get the certificate” below and open the file.",
      "On Windows choose Install certificate, Current user, “Place all certificates in the following store”, “Trusted Root Certification Authorities”.",
      "On a Mac it opens in Keychain Access: double-click it, open Trust, choose “Always trust”.",
      "On Linux open the browser's settings, search for certificates, Authorities, Import, and tick “identify websites”.",
      "Start the browser anew, come back to this page and press “Check again”.",
    ],
  },
];

/**
 * The page a phone is led to first: over plain http, since the phone trusts
 * nothing here yet. It holds no data, says how to trust the certificate, and
 * looks by itself whether that worked.
 */
export function trustPage({ host, port, addresses, fingerprint, nonce }: TrustFacts): string {
  const steps = STEPS.map(
    ({ kind, title, steps: list }) =>
      `<details name="phone" data-kind="${kind}"><summary>${title}</summary><ol>${list.map((step) => `<li>${escaped(step)}</li>`).join("")}</ol></details>`,
  ).join("");
  const origins = [host, ...addresses].map((name) => `https://${name}:${port}`);
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Trust this computer · Deft Tether</title>
<style nonce="${nonce}">
:root{color-scheme:light;--ground:#f4f1e8;--paper:#fffdf8;--ink:#1c2320;--soft:#565d57;--hair:#cdc7b5;--tarn:#135b60;--brick:#9d3620}
*{box-sizing:border-box}body{margin:0;background:var(--ground);color:var(--ink);font:1.0625rem/1.5 system-ui,sans-serif}
main{max-width:40rem;margin:0 auto;padding:1.25rem 1rem 4rem}h1{font-size:1.75rem;line-height:1.15;margin:.25rem 0 .75rem}h2{font-size:1.2rem;margin:1.75rem 0 .5rem}
a{color:var(--tarn);font-weight:600;text-underline-offset:3px}.act{display:block;background:var(--tarn);color:var(--paper);text-align:center;text-decoration:none;font-weight:700;font-size:1.15rem;padding:1rem;border-radius:6px;margin:.75rem 0;border:0;width:100%;font-family:inherit}
.quiet{background:var(--paper);color:var(--ink);border:2px solid var(--ink)}#state{border-left:4px solid var(--brick);padding:.25rem 0 .25rem 1rem;font-weight:600}#state[data-state=yes]{border-color:var(--tarn)}#state[data-state=asking]{border-color:var(--hair)}
details{border-top:2px solid var(--hair);padding:.75rem 0}details:last-of-type{border-bottom:2px solid var(--hair)}summary{font-weight:700;font-size:1.1rem;min-height:2rem}li{margin:.6rem 0}code{font-size:.85rem;word-break:break-word}.soft{color:var(--soft)}
[hidden]{display:none}
</style></head><body><main>
<h1>Trust this computer</h1>
<p>The pen opens without a network only if your phone trusts the computer in the tack room. That is done once, by a certificate the computer made for itself.</p>
<p id="state" role="status" data-state="asking">Looking whether this phone trusts it already.</p>
<p><a class="act" id="open" hidden>Open Deft Tether</a></p>
<p><button class="act quiet" id="again" type="button">Check again</button></p>
<h2>How it is done</h2>
${steps}
<p><a class="act" href="/authority.crt" download="deft-tether.crt">Get the certificate</a></p>
<h2>What it can do, and what not</h2>
<p>It can vouch for <strong>${escaped(host)}</strong> and for addresses inside your own network. It cannot vouch for any other site: that is written into it, and phones of recent years go by it. Its key never leaves the computer.</p>
<p>To be sure that this page is the computer's own, compare this with what stands on its screen under Network:<br><code>${escaped(fingerprint)}</code></p>
<h2>Without it</h2>
<p>The browser warns each time, and it keeps no pages: the pen then opens only while the computer is in reach, and the screen may go dark while you work. A session that is open goes on recording, and what is tapped stays on the phone until the computer has it.</p>
<p class="soft" id="name"></p>
<noscript><p>Scripts are off in this browser, so the page cannot look by itself. Open <a href="${origins[0]}/pen">${origins[0]}</a>: if no warning comes, it worked.</p></noscript>
</main><script nonce="${nonce}">
const origins = ${JSON.stringify(origins)};
const state = document.getElementById("state"), open = document.getElementById("open"), name = document.getElementById("name");
const say = (to, text) => { state.dataset.state = to; state.textContent = text; };
const trusts = async (origin) => {
  try { return (await fetch(origin + "/trust-check", { cache: "no-store", signal: AbortSignal.timeout(6000) })).ok; } catch { return false; }
};
const look = async () => {
  say("asking", "Looking whether this phone trusts it.");
  open.hidden = true;
  const answers = await Promise.all(origins.map(trusts));
  const at = answers.indexOf(true);
  if (at < 0) return say("no", "Not yet: this phone does not trust the computer, or cannot reach it. Follow the steps below, then check again.");
  open.href = origins[at] + "/pen";
  open.hidden = false;
  for (const one of document.querySelectorAll("details")) one.open = false;
  say("yes", "It worked: this phone trusts the computer.");
  name.textContent = at === 0 ? "" : "This phone does not find the computer by its name, so the number is used. If the router deals out another number, scan the code on the computer again; taps that were not sent yet wait under the old address, and the pen says so.";
};
document.getElementById("again").addEventListener("click", look);
const agent = navigator.userAgent;
const kind = /iPhone|iPad/.test(agent) || (/Macintosh/.test(agent) && navigator.maxTouchPoints > 1) ? "apple" : /Android/.test(agent) ? "android" : "computer";
document.querySelector('details[data-kind="' + kind + '"]').open = true;
look();
</script></body></html>`;
}
