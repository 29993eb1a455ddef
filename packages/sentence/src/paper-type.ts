/** A PWG 5101.1 media type in words. */
export function sayType(type: string): string {
  const words: Record<string, string> = {
    stationery: 'plain',
    'stationery-letterhead': 'letterhead',
    cardstock: 'card',
    labels: 'labels',
  };
  return words[type] ?? type.replace(/^stationery-/, '');
}
