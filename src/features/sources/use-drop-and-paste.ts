import { useEffect } from 'react';

/** What is dropped or pasted anywhere on the screen comes in. */
export function useDropAndPaste(bring: (files: readonly File[]) => unknown): void {
  useEffect(() => {
    const stop = new AbortController();
    const options = { signal: stop.signal };
    window.addEventListener('dragover', (event) => event.preventDefault(), options);
    window.addEventListener(
      'drop',
      (event) => {
        event.preventDefault();
        void bring([...(event.dataTransfer?.files ?? [])]);
      },
      options,
    );
    window.addEventListener('paste', (event) => void bring([...(event.clipboardData?.files ?? [])]), options);
    return () => stop.abort();
  }, [bring]);
}
