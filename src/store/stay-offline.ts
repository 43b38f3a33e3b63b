/**
 * Puts the app itself on the device, so that it opens without a network. Waits until the page is at rest: the first visit must not become slower. Where the page
 * is not allowed to (plain http on a local network), nothing happens and everything else works.
 */
export function keepAppOnDevice(): void {
  if (!('serviceWorker' in navigator) || process.env.NODE_ENV !== 'production') return;
  const register = () => void navigator.serviceWorker.register('/service-worker.js').catch(() => undefined);
  if (document.readyState === 'complete') setTimeout(register, 1500);
  else window.addEventListener('load', () => setTimeout(register, 1500), { once: true });
}
