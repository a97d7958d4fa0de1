import { createServer } from "node:http";
import { OWN_HEADERS } from "@/app/server/own-headers";
import { listCopies } from "@/store";

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** What stands in the browser where the data could not be opened: what happened, what was kept, what to do. */
export function troublePage(sentence: string, file: string, demo: boolean): string {
  const copies = listCopies(file)
    .slice(0, 10)
    .map(
      ({ name, madeMs }) =>
        `<li><time datetime="${new Date(madeMs).toISOString()}">${new Date(madeMs).toISOString().slice(0, 16).replace("T", " ")}</time><br><code>npm run restore -- ${demo ? "--demo " : ""}data/backups/${escaped(name)}</code></li>`,
    )
    .join("");
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>The data could not be opened · Deft Tether</title>
<style>body{margin:0;background:#f4f1e8;color:#1c2320;font:1.0625rem/1.5 system-ui,sans-serif}main{max-width:42rem;margin:0 auto;padding:2rem 1rem}h1{font-size:1.75rem}p.what{border-left:4px solid #9d3620;padding-left:1rem;font-weight:600;overflow-wrap:anywhere}code{overflow-wrap:anywhere}li{margin:.5rem 0}</style></head>
<body><main><h1>The data could not be opened</h1><p class="what">${escaped(sentence)}</p>
<p>Nothing was changed. Taps that devices have not sent yet stay on them and are sent once the program runs again.</p>
${copies === "" ? "<p>No copies lie beside the data.</p>" : `<h2>Copies to go back to</h2><p>Stop the program, then type one of these. What is there now is set aside, not lost.</p><ul>${copies}</ul>`}
<p>When it is put right, start the program again and load this page anew.</p></main></body></html>`;
}

/** Shows that page on the program's own address until it is stopped, so that a browser that is opened there says more than that nothing answers. */
export function showTrouble(sentence: string, file: string, demo: boolean, port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer((request, response) => {
      const page = request.method === "GET" && !(request.url ?? "").startsWith("/api/");
      response.writeHead(503, {
        ...OWN_HEADERS,
        ...(page ? { "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'" } : {}),
        "content-type": page ? "text/html; charset=utf-8" : "application/problem+json",
        "cache-control": "no-store",
      });
      response.end(
        page
          ? troublePage(sentence, file, demo)
          : JSON.stringify({ type: "about:blank", status: 503, title: "Not open", detail: sentence, code: "not-open" }),
      );
    });
    server.once("error", () => resolve(false));
    server.listen(port, "127.0.0.1", () => resolve(true));
  });
}
