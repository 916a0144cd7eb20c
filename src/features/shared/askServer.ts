/** Asks our server. Undefined where it could not be reached or refused. */
export async function askServer(method: string, path: string, body?: object): Promise<Response | undefined> {
  const sent: RequestInit = body ? { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) } : { method };
  const response = await fetch(path, sent).catch(() => undefined);
  return response?.ok ? response : undefined;
}
