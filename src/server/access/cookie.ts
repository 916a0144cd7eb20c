const DAY_S = 86_400;

/** A cookie of a request. */
export function readCookie(cookies: string | null, name: string): string | undefined {
  const found = cookies?.split(";").find((each) => each.trim().startsWith(`${name}=`));
  return found?.trim().slice(name.length + 1) || undefined;
}

/** A cookie that no script reads and no other site sends; of no days, one that is forgotten. `isSecure` where the browser came by TLS. */
export function writeCookie(name: string, value: string, days: number, isSecure: boolean): string {
  return `${name}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${days * DAY_S}${isSecure ? "; Secure" : ""}`;
}
