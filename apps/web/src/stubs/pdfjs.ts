/** Unit tests draw no pages. */
export const GlobalWorkerOptions = { workerPort: null as Worker | null };

export function getDocument(): never {
  throw new Error('no pages are drawn in unit tests');
}
