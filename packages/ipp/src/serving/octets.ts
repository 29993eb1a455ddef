/** As much of a text as so many octets of UTF-8 hold, no letter cut in two: names and texts of IPP have bounds (RFC 8011, 5.1). */
export function withinOctets(text: string, most: number): string {
  const bytes = new TextEncoder().encode(text);
  return bytes.length <= most ? text : new TextDecoder().decode(bytes.subarray(0, most)).replace(/\uFFFD+$/, '');
}
