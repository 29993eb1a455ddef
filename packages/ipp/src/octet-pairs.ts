import type { Attributes } from './message';

export function octetStrings(attributes: Attributes, name: string): string[] {
  return (attributes[name] ?? []).flatMap((value) =>
    value.tag === 'octetString' ? [new TextDecoder().decode(value.value)] : [],
  );
}

/** "maxcapacity=500;level=140;name=Tray 1;" (PWG 5100.13, printer-input-tray). */
export function keyValues(text: string): Map<string, string> {
  const pairs = text.split(';').flatMap((pair) => {
    const equals = pair.indexOf('=');
    return equals > 0 ? [[pair.slice(0, equals).trim(), pair.slice(equals + 1).trim()] as const] : [];
  });
  return new Map(pairs);
}
