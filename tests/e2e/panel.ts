/** Where the simulated printer of that address shows its front panel. */
export const panelAt = (uri: string): string => uri.replace('ipp:', 'http:').replace('/ipp/print', '/panel');

/** Does something at a panel. @throws Error with what it says */
export async function putJson(url: string, body: object): Promise<void> {
  const headers = { 'Content-Type': 'application/json' };
  const answer = await fetch(url, { method: 'PUT', headers, body: JSON.stringify(body) });
  if (!answer.ok) throw new Error(`PUT ${url}: ${answer.status} ${await answer.text()}`);
}
