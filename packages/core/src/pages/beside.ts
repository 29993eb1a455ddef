/** What a page may ask for: addresses in what it is written in, and in its style. */
const ASKED: readonly RegExp[] = [
  /(?:src|href|poster|data)\s*=\s*(?:"([^"]+)"|'([^']+)'|([^\s"'>]+))/gi,
  /srcset\s*=\s*"([^"]+)"/gi,
  /url\(\s*["']?([^"')]+)/gi,
  /@import\s+["']([^"']+)/gi,
  // Of Markdown (CommonMark 0.31.2, 6.4).
  /!\[[^\]]*\]\(\s*<?([^\s)>]+)/g,
];

/** Anywhere else: with a scheme, from the root, or within the page itself. */
const ELSEWHERE = /^([a-z][a-z0-9+.-]*:|\/|#)/i;

/**
 * What a page, or a style, asks for beside itself: paths from the folder of the page, each once; none that leads out of it.
 *
 * @param folder of the style within that of the page; '' is the page's own
 */
export function pathsAskedFor(text: string, folder = ''): string[] {
  const written = ASKED.flatMap((pattern) =>
    [...text.matchAll(pattern)].flatMap((found) => found.slice(1).find((one) => one !== undefined) ?? []),
  );
  const single = written.flatMap((one) => (/,\s/.test(one) || /\s/.test(one) ? one.split(',').map(first) : [one]));
  const paths = single.flatMap((one) => (ELSEWHERE.test(one) ? [] : (pathFrom(folder, one) ?? [])));
  return [...new Set(paths)];
}

/** Of a picture and how large it is shown. */
const first = (one: string): string => one.trim().split(/\s/)[0] ?? '';

/** @returns null where it leads out of the folder of the page, or nowhere */
function pathFrom(folder: string, written: string): string | null {
  const [plain = ''] = written.split(/[?#]/);
  let path: string;
  try {
    path = decodeURIComponent(plain);
  } catch {
    return null;
  }
  const parts: string[] = folder === '' || folder === '.' ? [] : folder.split('/');
  for (const part of path.split('/')) {
    if (part === '' || part === '.') continue;
    if (part !== '..') parts.push(part);
    else if (parts.pop() === undefined) return null;
  }
  return parts.length === 0 ? null : parts.join('/');
}
