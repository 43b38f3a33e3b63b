/** Hands a file to the browser's own saving. Nothing leaves the machine. */
export function saveFile(name: string, content: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name that every file system takes. */
export function safeFileName(name: string): string {
  const safe = name
    .normalize('NFKC')
    .replace(/[^\p{L}\p{N} .,_()-]+/gu, '-')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^\.+/, '');
  return safe.slice(0, 80) || 'outline';
}
