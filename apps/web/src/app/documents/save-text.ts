/** Has the browser save a text as a file. */
export function saveText(name: string, text: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  link.download = name;
  link.click();
  // Not before the browser has begun to read it.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
