import { createServer, type ServerResponse } from "node:http";
import next from "next";
import { ADDRESS_HEADER, addressOf } from "@/server/access/address";

// The web server: what the framework would answer with a failure of its own is refused before it gets there.

/** A picture of a gigabyte over a slow line may take so long. */
const LONGEST_REQUEST_MS = 3_600_000;

const { PORT = "3210", HOST = "127.0.0.1" } = process.env;
const application = next({ dev: false, dir: process.cwd(), hostname: HOST, port: Number(PORT) });
const handle = application.getRequestHandler();
await application.prepare();

const server = createServer({ requestTimeout: LONGEST_REQUEST_MS }, (request, response) => {
  if (isMalformed(request.url ?? "")) return refuse(response);
  request.headers[ADDRESS_HEADER] = addressOf(request);
  void handle(request, response);
});
server.listen(Number(PORT), HOST);

/** Whether an address cannot be decoded. */
function isMalformed(url: string): boolean {
  try {
    decodeURIComponent(url.split("?")[0]!);
    return false;
  } catch {
    return true;
  }
}

function refuse(response: ServerResponse): void {
  const body = { type: "about:blank", title: "this address is malformed", status: 400, code: "invalid_input" };
  response.writeHead(400, { "content-type": "application/problem+json", "x-content-type-options": "nosniff" });
  response.end(JSON.stringify(body));
}

function stop(): void {
  server.closeAllConnections();
  server.close(() => process.exit(0));
}
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
