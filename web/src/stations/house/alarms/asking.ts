// A browser asks its own service to be told, with the workshop's key.
const bytesOf = (key: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(key.replace(/-/g, '+').replace(/_/g, '/')), (sign) => sign.charCodeAt(0));

/** What the workshop needs to tell this browser, as text; null where the browser or its owner does not want to. */
export async function askToBeTold(key: string): Promise<string | null> {
  if (!('serviceWorker' in navigator) || !('PushManager' in globalThis)) return null;
  const worker = await navigator.serviceWorker.ready;
  try {
    const made = await worker.pushManager.subscribe({
      userVisibleOnly: true,
      applicationServerKey: bytesOf(key),
    });
    return JSON.stringify(made);
  } catch {
    return null;
  }
}
