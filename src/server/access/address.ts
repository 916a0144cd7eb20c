import { isIPv6 } from "node:net";
import type { IncomingMessage } from "node:http";

/** Set by our own server on every request, whatever was sent: where it came from. */
export const ADDRESS_HEADER = "x-nigrographe-address";

/**
 * Where a request came from. A proxy on this machine tells for whom it asks, as the last of those it names; nobody else is believed. An
 * IPv6 network of one customer (/64) is one address.
 */
export function addressOf({
  socket,
  headers,
}: Pick<IncomingMessage, "headers"> & { socket: { remoteAddress?: string | undefined } }): string {
  const direct = (socket.remoteAddress ?? "unknown").replace(/^::ffff:/, "");
  const forwarded = [headers["x-forwarded-for"] ?? []].flat().join(",").split(",").at(-1)?.trim();
  const isOwnProxy = direct === "127.0.0.1" || direct === "::1";
  return networkOf(isOwnProxy && forwarded ? forwarded : direct);
}

function networkOf(address: string): string {
  if (!isIPv6(address)) return address;
  const [head = "", tail] = address.toLowerCase().split("::");
  const groups = head.split(":").filter(Boolean);
  const after = tail?.split(":").filter(Boolean) ?? [];
  const all = tail === undefined ? groups : [...groups, ...Array<string>(8 - groups.length - after.length).fill("0"), ...after];
  return `${all.slice(0, 4).join(":")}::/64`;
}
